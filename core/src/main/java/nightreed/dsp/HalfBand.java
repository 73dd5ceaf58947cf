package nightreed.dsp;

/**
 * Halves or doubles a sample rate: two rows of all-passes whose sum is a half-band low-pass, flat in the pass band and without
 * latency to speak of (R. Valenzuela, A. Constantinides, "Digital signal processing schemes for efficient interpolation and
 * decimation", IEE Proc. G 130(6), 1983; elliptic design after L. Gazsi, IEEE Trans. CAS 32(11), 1985).
 * <p>One thread at a time; only the constructor allocates.
 */
public final class HalfBand {
    private static final double[] STEEP = design(10, 0.025);
    private static final double[] WIDE = design(5, 0.12);

    private final double[] coefficient;
    private final double[] x1;
    private final double[] y1;

    private HalfBand(double[] coefficient) {
        this.coefficient = coefficient;
        x1 = new double[coefficient.length];
        y1 = new double[coefficient.length];
    }

    /** For the last step down to the rate that is heard: flat to 0.45 of it, -100 dB from 0.55 on. */
    public static HalfBand steep() {
        return new HalfBand(STEEP);
    }

    /** For a step between two higher rates. */
    public static HalfBand wide() {
        return new HalfBand(WIDE);
    }

    /**
     * @param n          all-passes: the more, the deeper the stop band
     * @param transition width of the transition as a share of the higher rate: the pass band ends at 0.25 less this
     */
    private static double[] design(int n, double transition) {
        double t = Math.tan((1 - 2 * transition) * Math.PI / 4);
        double k = t * t;
        double root = Math.pow(1 - k * k, 0.25);
        double e = 0.5 * (1 - root) / (1 + root);
        double e4 = e * e * e * e;
        double q = e * (1 + e4 * (2 + e4 * (15 + 150 * e4)));
        int order = 2 * n + 1;
        double[] c = new double[n];
        for (int i = 0; i < n; i++) {
            double num = 0;
            double den = 0.5;
            for (int j = 0; j < 20; j++) {
                double sign = j % 2 == 0 ? 1 : -1;
                num += sign * Math.pow(q, j * (j + 1.0)) * Math.sin((2 * j + 1) * (i + 1) * Math.PI / order);
                if (j > 0) {
                    den += sign * Math.pow(q, (double) j * j) * Math.cos(2 * j * (i + 1) * Math.PI / order);
                }
            }
            double w = Math.pow(q, 0.25) * num / den;
            double ww = w * w;
            double x = Math.sqrt((1 - ww * k) * (1 - ww / k)) / (1 + ww);
            c[i] = (1 - x) / (1 + x);
        }
        return c;
    }

    public void reset() {
        java.util.Arrays.fill(x1, 0);
        java.util.Arrays.fill(y1, 0);
    }

    /**
     * Halves the rate: {@code 2n} samples of {@code in}, which are used up, become {@code n} of {@code out}, which may be the
     * same array.
     */
    public void down(double[] in, double[] out, int n) {
        int s = 0;
        for (; s + 3 < coefficient.length; s += 4) {
            four(s, in, n);
        }
        for (int i = 0; i < n; i++) {
            double a = in[2 * i + 1];
            double b = in[2 * i];
            out[i] = 0.5 * (row(s, a) + row(s + 1, b));
        }
    }

    /** Two sections of each row in one go: none waits for what another does with the same sample before. */
    private void four(int s, double[] in, int n) {
        double a = coefficient[s];
        double b = coefficient[s + 1];
        double c = coefficient[s + 2];
        double d = coefficient[s + 3];
        double ax = x1[s];
        double bx = x1[s + 1];
        double ay = y1[s];
        double by = y1[s + 1];
        double cx = x1[s + 2];
        double dx = x1[s + 3];
        double cy = y1[s + 2];
        double dy = y1[s + 3];
        for (int i = 0; i < n; i++) {
            double odd = in[2 * i + 1];
            double even = in[2 * i];
            ay = (a * odd + ax) - a * ay;
            ax = odd;
            by = (b * even + bx) - b * by;
            bx = even;
            cy = (c * ay + cx) - c * cy;
            cx = ay;
            dy = (d * by + dx) - d * dy;
            dx = by;
            in[2 * i + 1] = cy;
            in[2 * i] = dy;
        }
        x1[s] = ax;
        x1[s + 1] = bx;
        y1[s] = ay;
        y1[s + 1] = by;
        x1[s + 2] = cx;
        x1[s + 3] = dx;
        y1[s + 2] = cy;
        y1[s + 3] = dy;
    }

    /** Doubles the rate: {@code n} samples of {@code in} become {@code 2n} of {@code out}, another array. */
    public void up(double[] in, double[] out, int n) {
        for (int i = 0; i < n; i++) {
            out[2 * i] = in[i];
            out[2 * i + 1] = in[i];
        }
        int s = 0;
        for (; s + 3 < coefficient.length; s += 4) {
            four(s, out, n);
        }
        for (int i = 0; i < n; i++) { // what passed the first row comes first
            double first = row(s, out[2 * i + 1]);
            out[2 * i + 1] = row(s + 1, out[2 * i]);
            out[2 * i] = first;
        }
    }

    private double row(int first, double in) {
        double v = in;
        for (int s = first; s < coefficient.length; s += 2) {
            double y = coefficient[s] * (v - y1[s]) + x1[s];
            x1[s] = v;
            y1[s] = y;
            v = y;
        }
        return v;
    }

    /** Ends a tail that has sunk into denormal numbers, which are slow on some processors. */
    public void flush() {
        double left = 0;
        for (double v : y1) {
            left += Math.abs(v);
        }
        if (left < 1e-30) {
            reset();
        }
    }
}
