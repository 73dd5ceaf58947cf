package nightreed.match.start.resonator;

import java.util.ArrayList;
import java.util.List;
import nightreed.recipe.Mode;
import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.ArrayRealVector;
import org.hipparchus.linear.CholeskyDecomposition;
import org.hipparchus.linear.RealMatrix;
import org.hipparchus.linear.RealVector;

/**
 * Levels and phases that modes of given frequencies and decays need for their sum to be a recording: linear least squares on
 * the samples. Modes that lie close together and partly cancel, as strings' do, cannot be chosen one by one; whenever one is
 * left out the others have to be solved for anew.
 */
final class ModeAmplitudes {
    /** Share of its own energy by which a mode is held back, so that twins do not blow up against each other. */
    private static final double RIDGE = 1e-4;

    private ModeAmplitudes() {}

    /**
     * @param modes      ratios and T60s count
     * @param f0Hz       frequency of ratio 1 [Hz]
     * @param x          samples from the onset on
     * @param fs         their rate [Hz]
     * @param amplitude  of a mode of level 0
     * @return the modes with levels and phases; those that came out silent are left out
     */
    static List<Mode> solved(List<Mode> modes, double f0Hz, double[] x, double fs, double amplitude) {
        int k = modes.size();
        int n = x.length;
        double[] pole = new double[2 * k]; // log of the radius, angle
        for (int i = 0; i < k; i++) {
            pole[2 * i] = -Math.log(1000) / (modes.get(i).t60Seconds() * fs);
            pole[2 * i + 1] = 2 * Math.PI * modes.get(i).ratio() * f0Hz / fs;
        }
        RealMatrix gram = new Array2DRowRealMatrix(2 * k, 2 * k);
        RealVector right = new ArrayRealVector(2 * k);
        for (int i = 0; i < k; i++) {
            for (int j = 0; j <= i; j++) {
                double[] sum = series(pole[2 * i] + pole[2 * j], pole[2 * i + 1] + pole[2 * j + 1], n);
                double[] difference = series(pole[2 * i] + pole[2 * j], pole[2 * i + 1] - pole[2 * j + 1], n);
                put(gram, 2 * i, 2 * j, 0.5 * (sum[0] + difference[0]));
                put(gram, 2 * i + 1, 2 * j + 1, 0.5 * (difference[0] - sum[0]));
                put(gram, 2 * i, 2 * j + 1, 0.5 * (sum[1] - difference[1]));
                put(gram, 2 * i + 1, 2 * j, 0.5 * (sum[1] + difference[1]));
            }
            double[] c = correlation(x, pole[2 * i], pole[2 * i + 1]);
            right.setEntry(2 * i, c[0]);
            right.setEntry(2 * i + 1, c[1]);
        }
        for (int i = 0; i < 2 * k; i++) {
            gram.addToEntry(i, i, RIDGE * gram.getEntry(i, i) + 1e-12);
        }
        RealVector c = new CholeskyDecomposition(gram, 1e-9, 1e-14).getSolver().solve(right);
        List<Mode> out = new ArrayList<>();
        for (int i = 0; i < k; i++) {
            double re = c.getEntry(2 * i);
            double im = -c.getEntry(2 * i + 1); // Re (a z^n) = Re a Re z^n - Im a Im z^n
            double db = 20 * Math.log10(Math.hypot(re, im) / amplitude + 1e-9);
            if (db > -110) {
                Mode m = modes.get(i);
                out.add(new Mode(m.ratio(), Math.min(24, db), m.t60Seconds(), Math.atan2(im, re)));
            }
        }
        return out;
    }

    private static void put(RealMatrix m, int row, int column, double v) {
        m.setEntry(row, column, v);
        m.setEntry(column, row, v);
    }

    /** Σ e^((d + jw) t) for t from 0 to n-1, real and imaginary part. */
    private static double[] series(double d, double w, int n) {
        double r = Math.exp(d * n);
        double topRe = 1 - r * Math.cos(w * n);
        double topIm = -r * Math.sin(w * n);
        double s = Math.exp(d);
        double bottomRe = 1 - s * Math.cos(w);
        double bottomIm = -s * Math.sin(w);
        double size = bottomRe * bottomRe + bottomIm * bottomIm;
        if (size < 1e-18) {
            return new double[] {n, 0};
        }
        return new double[] {(topRe * bottomRe + topIm * bottomIm) / size, (topIm * bottomRe - topRe * bottomIm) / size
        };
    }

    /** Σ x e^((d + jw) t), real and imaginary part. */
    private static double[] correlation(double[] x, double d, double w) {
        double zr = Math.exp(d) * Math.cos(w);
        double zi = Math.exp(d) * Math.sin(w);
        double re = 1;
        double im = 0;
        double sumRe = 0;
        double sumIm = 0;
        for (double v : x) {
            sumRe += v * re;
            sumIm += v * im;
            double next = re * zr - im * zi;
            im = re * zi + im * zr;
            re = next;
        }
        return new double[] {sumRe, sumIm};
    }
}
