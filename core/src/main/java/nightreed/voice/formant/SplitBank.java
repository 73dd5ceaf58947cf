package nightreed.voice.formant;

/**
 * Splits a signal into bands side by side, 36 dB per octave at each edge, and puts them together again. The low half of a
 * split is two third-order Butterworth low-passes in a row, the high half likewise, turned over; their sum is a third-order
 * all-pass. One thread at a time; only the constructor allocates.
 */
final class SplitBank {
    private static final int SECTIONS = 3;
    private final double fs;
    private final int bands;
    // coefficients of each edge: two sections of Q 1 and one of Q 1/2, low and high share their poles
    private final double[][] edge; // [edge][..] k1 c1 k2 c2 normalised
    private final double[][] state; // [edge][low 6, high 6]

    SplitBank(int bands, double fs) {
        this.fs = fs;
        this.bands = bands;
        edge = new double[bands + 1][8];
        state = new double[bands + 1][4 * SECTIONS];
    }

    void reset() {
        for (double[] s : state) {
            java.util.Arrays.fill(s, 0);
        }
    }

    /** Number of bands. */
    int bands() {
        return bands;
    }

    /** Puts an edge at a frequency [Hz]: 0 is under the lowest band, {@code bands} over the highest. */
    void edge(int i, double hz) {
        double w = 2 * Math.PI * Math.max(5, Math.min(hz, 0.47 * fs)) / fs;
        double c = Math.cos(w);
        double s = Math.sin(w);
        double[] e = edge[i];
        double alpha = s / 2; // Q 1
        double n = 1 + alpha;
        e[0] = (1 - c) / 2 / n; // low-pass gain
        e[1] = (1 + c) / 2 / n; // high-pass gain
        e[2] = -2 * c / n;
        e[3] = (1 - alpha) / n;
        alpha = s; // Q 1/2
        n = 1 + alpha;
        e[4] = (1 - c) / 2 / n;
        e[5] = (1 + c) / 2 / n;
        e[6] = -2 * c / n;
        e[7] = (1 - alpha) / n;
    }

    /**
     * Splits at an edge.
     *
     * @param x    signal; becomes the part above the edge, turned over
     * @param low  becomes the part below; null if it is not wanted
     */
    void split(int i, double[] x, double[] low, int n) {
        double[] e = edge[i];
        double[] s = state[i];
        double l0 = e[0];
        double h0 = e[1];
        double p1 = e[2];
        double p2 = e[3];
        double l1 = e[4];
        double h1 = e[5];
        double q1 = e[6];
        double q2 = e[7];
        double s0 = s[0];
        double s1 = s[1];
        double s2 = s[2];
        double s3 = s[3];
        double s4 = s[4];
        double s5 = s[5];
        double t0 = s[6];
        double t1 = s[7];
        double t2 = s[8];
        double t3 = s[9];
        double t4 = s[10];
        double t5 = s[11];
        for (int k = 0; k < n; k++) {
            double in = x[k];
            if (low != null) {
                double u = l0 * in;
                double y = u + s0;
                s0 = 2 * u - p1 * y + s1;
                s1 = u - p2 * y;
                u = l0 * y;
                double z = u + s2;
                s2 = 2 * u - p1 * z + s3;
                s3 = u - p2 * z;
                u = l1 * z;
                double v = u + s4;
                s4 = 2 * u - q1 * v + s5;
                s5 = u - q2 * v;
                low[k] = v;
            }
            double u = h0 * in;
            double y = u + t0;
            t0 = -2 * u - p1 * y + t1;
            t1 = u - p2 * y;
            u = h0 * y;
            double z = u + t2;
            t2 = -2 * u - p1 * z + t3;
            t3 = u - p2 * z;
            u = h1 * z;
            double v = u + t4;
            t4 = -2 * u - q1 * v + t5;
            t5 = u - q2 * v;
            x[k] = -v;
        }
        s[0] = s0;
        s[1] = s1;
        s[2] = s2;
        s[3] = s3;
        s[4] = s4;
        s[5] = s5;
        s[6] = t0;
        s[7] = t1;
        s[8] = t2;
        s[9] = t3;
        s[10] = t4;
        s[11] = t5;
    }

    /** Ends tails that have sunk into denormal numbers, which are slow on some processors. */
    void flush() {
        for (double[] s : state) {
            flush(s);
        }
    }

    private static void flush(double[] s) {
        double sum = 0;
        for (double v : s) {
            sum += Math.abs(v);
        }
        if (sum < 1e-30) {
            java.util.Arrays.fill(s, 0);
        }
    }

    /** The all-pass that both halves of a split make together, at work on a sum of bands. */
    static final class Aligner {
        private final double[][] state;

        Aligner(int edges) {
            state = new double[edges][4];
        }

        void flush() {
            for (double[] s : state) {
                SplitBank.flush(s);
            }
        }

        void reset() {
            for (double[] s : state) {
                java.util.Arrays.fill(s, 0);
            }
        }

        /** Passes {@code x[0..n)} through the all-pass of an edge of {@code bank}. */
        void process(SplitBank bank, int i, double[] x, int n) {
            double p1 = bank.edge[i][2];
            double p2 = bank.edge[i][3];
            // the section of Q 1/2 has a double real pole at -r, r² = its last coefficient
            double r = -bank.edge[i][6] / 2;
            double[] s = state[i];
            double s0 = s[0];
            double s1 = s[1];
            double s2 = s[2];
            for (int k = 0; k < n; k++) {
                double in = x[k];
                double y = p2 * in + s0;
                s0 = p1 * in - p1 * y + s1;
                s1 = in - p2 * y;
                // first order: (z^-1 - r)/(1 - r z^-1), turned over as s -> -s asks
                double v = -r * y + s2;
                s2 = y + r * v;
                x[k] = -v;
            }
            s[0] = s0;
            s[1] = s1;
            s[2] = s2;
        }
    }
}
