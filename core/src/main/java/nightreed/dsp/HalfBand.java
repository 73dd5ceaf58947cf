package nightreed.dsp;

/**
 * Halves or doubles a sample rate: two rows of all-passes whose sum is a half-band low-pass, flat in the pass band and without
 * latency to speak of (R. Valenzuela, A. Constantinides, "Digital signal processing schemes for efficient interpolation and
 * decimation", IEE Proc. G 130(6), 1983; elliptic design after L. Gazsi, IEEE Trans. CAS 32(11), 1985).
 * <p>One thread at a time; only the constructor allocates.
 */
public final class HalfBand {
    private final double[] coefficient;
    private final double[] x1;
    private final double[] y1;

    /**
     * @param sections   all-passes, 2 to 16: the more, the deeper the stop band
     * @param transition width of the transition as a share of the higher rate, above 0 and below 0.25: the pass band ends at
     *                   0.25 less this
     */
    public HalfBand(int sections, double transition) {
        if (sections < 2 || sections > 16 || !(transition > 0 && transition < 0.25)) {
            throw new IllegalArgumentException(
                    "a half-band filter needs 2 to 16 sections and a transition of 0 to 0.25, got " + sections + " and "
                            + transition);
        }
        coefficient = design(sections, transition);
        x1 = new double[sections];
        y1 = new double[sections];
    }

    /** For the last step down to the rate that is heard: flat to 0.45 of it, -100 dB from 0.55 on. */
    public static HalfBand steep() {
        return new HalfBand(10, 0.025);
    }

    /** For a step between two higher rates. */
    public static HalfBand wide() {
        return new HalfBand(5, 0.12);
    }

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

    /** Halves the rate: {@code 2n} samples of {@code in} become {@code n} of {@code out}, which may be the same array. */
    public void down(double[] in, double[] out, int n) {
        for (int i = 0; i < n; i++) {
            double a = in[2 * i + 1];
            double b = in[2 * i];
            out[i] = 0.5 * (row(0, a) + row(1, b));
        }
    }

    /** Doubles the rate: {@code n} samples of {@code in} become {@code 2n} of {@code out}, another array. */
    public void up(double[] in, double[] out, int n) {
        for (int i = 0; i < n; i++) {
            double v = in[i];
            out[2 * i] = row(0, v);
            out[2 * i + 1] = row(1, v);
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
