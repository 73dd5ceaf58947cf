package nightreed.match;

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
 * @param before slope up to there [dB/frame], of an amplitude as a share of full scale
 * @param after  slope from there on, as before
 * @param rms    what the levels are off the lines by [dB], of an amplitude as before
 */
record Knee(int frame, double before, double after, double rms) {
    /** Levels under the top from which on, and down to which, they are looked at [dB]. */
    private static final double BEGINS_DB = -8;

    private static final double ENDS_DB = -40;

    /** Frames that each line has at the least. */
    private static final int FEWEST_BEFORE = 10;

    private static final int FEWEST_AFTER = 4;

    private static final double FLOOR_DB = -50;

    /** Frames that an amplitude's bend may be off, that it has to be steady for before, and that it may take to fall. */
    private static final int NEAR = 25;

    private static final int STEADY = 30;
    private static final int LATEST = 50;

    private static final double A_THIRD = 0.35;

    /** Share of the amplitude that it may be off the lines by, and of the squares off one line that two may leave. */
    private static final double UNREST = 0.05;

    private static final double BENT = 0.3;

    /** @return null where there are too few frames */
    static Knee of(double[] power) {
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

    /**
     * Of the amplitude near a frame: it bends at once where a key is let go, also where the level in dB only begins to bend.
     * Looked at is how it was just before, and how it falls to a third.
     *
     * @param power per frame
     * @return null where it does not bend clearly, or was not steady before
     */
    static Knee ofAmplitude(double[] power, int near) {
        int first = near - NEAR - STEADY;
        if (first < 0 || near - NEAR + FEWEST_BEFORE > power.length) {
            return null;
        }
        double[] amplitude =
                Arrays.stream(power).map(p -> Math.sqrt(Math.max(0, p))).toArray();
        double steady = median(amplitude, first, near - NEAR + FEWEST_BEFORE);
        int end = near - NEAR;
        while (end < Math.min(amplitude.length, near + LATEST) && amplitude[end] > A_THIRD * steady) {
            end++;
        }
        end = Math.min(end + 1, amplitude.length);
        Knee bent = best(amplitude, first, end, near - NEAR, end - FEWEST_AFTER + 1);
        Knee straight = best(amplitude, first, end, end, end);
        boolean clear = bent != null
                && bent.rms < UNREST * steady
                && square(bent.rms) < BENT * square(straight.rms)
                && bent.after < bent.before;
        return clear ? bent : null;
    }

    private static double square(double v) {
        return v * v;
    }

    private static double median(double[] v, int from, int to) {
        double[] part = Arrays.copyOfRange(v, from, to);
        Arrays.sort(part);
        return part[part.length / 2];
    }

    /** @param from least frame that the lines may meet at, up to {@code to}; null if there is none */
    private static Knee best(double[] v, int first, int end, int from, int to) {
        Knee best = null;
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
                best = new Knee(k, x[1], x[2], Math.sqrt(Math.max(0, left) / (end - first)));
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
