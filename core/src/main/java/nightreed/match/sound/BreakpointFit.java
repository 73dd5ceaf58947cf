package nightreed.match.sound;

import java.util.Arrays;
import org.hipparchus.exception.MathRuntimeException;
import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.ArrayRealVector;
import org.hipparchus.linear.CholeskyDecomposition;

/**
 * Where a level bends from one straight course into a steeper one: two lines that meet, by least squares over the levels in dB.
 * It is surer than any single fall where a level swings, and where it falls no faster than it swings.
 *
 * @param frame  at which the lines meet
 * @param before slope up to there [dB/frame]
 * @param after  slope from there on [dB/frame]
 * @param rms    what the levels are off the lines by [dB]
 */
public record BreakpointFit(int frame, double before, double after, double rms) {
    /** Levels under the top from which on, and down to which, they are looked at [dB]. */
    private static final double BEGINS_DB = -8;

    private static final double ENDS_DB = -40;

    /** Frames that each line has at the least. */
    private static final int FEWEST_BEFORE = 10;

    private static final int FEWEST_AFTER = 4;

    private static final double FLOOR_DB = -50;

    /** @return null where there are too few frames */
    public static BreakpointFit of(double[] power) {
        double top = Arrays.stream(power).max().orElse(0);
        double[] db = Arrays.stream(power)
                .map(p -> Math.max(FLOOR_DB, 10 * Math.log10(p / top + 1e-12)))
                .toArray();
        int first = 0;
        while (first < db.length && db[first] < BEGINS_DB) {
            first++;
        }
        int end = db.length;
        while (end > first && db[end - 1] < ENDS_DB) {
            end--;
        }
        return best(db, first, end, first + FEWEST_BEFORE, end - FEWEST_AFTER);
    }

    /** @param from least frame that the lines may meet at, up to {@code to}; null if there is none */
    private static BreakpointFit best(double[] v, int first, int end, int from, int to) {
        BreakpointFit best = null;
        double least = Double.POSITIVE_INFINITY;
        double squares = 0;
        for (int i = first; i < end; i++) {
            squares += v[i] * v[i];
        }
        for (int k = from; k <= to; k++) {
            double[][] products = new double[3][3];
            double[] right = new double[3];
            for (int i = first; i < end; i++) {
                double[] basis = {1, Math.min(i, k) - k, Math.max(0, i - k)};
                for (int p = 0; p < 3; p++) {
                    right[p] += basis[p] * v[i];
                    for (int q = 0; q < 3; q++) {
                        products[p][q] += basis[p] * basis[q];
                    }
                }
            }
            products[2][2] += 1e-9; // no frame may be after it
            double[] x = solved(products, right);
            double left = squares - x[0] * right[0] - x[1] * right[1] - x[2] * right[2];
            if (left < least) {
                least = left;
                best = new BreakpointFit(k, x[1], x[2], Math.sqrt(Math.max(0, left) / (end - first)));
            }
        }
        return best;
    }

    private static double[] solved(double[][] products, double[] right) {
        try {
            return new CholeskyDecomposition(new Array2DRowRealMatrix(products, false), 1e-9, 1e-12)
                    .getSolver()
                    .solve(new ArrayRealVector(right))
                    .toArray();
        } catch (MathRuntimeException degenerate) {
            return new double[3];
        }
    }
}
