package nightreed.voice.formant;

import java.util.Arrays;

/**
 * Splits a signal into bands side by side, 36 dB per octave at each edge, and puts them together again. The low half of a
 * split is two third-order Butterworth low-passes in a row, the high half likewise, turned over; their sum is a third-order
 * all-pass. Such a low-pass is half the sum of a first-order all-pass A and a second-order one B, and the high-pass half their
 * difference, so that A², AB and B² give both halves (P. Regalia, S. Mitra, P. Vaidyanathan, "The digital all-pass filter: a
 * versatile signal processing building block", Proc. IEEE 76(1), 1988). One thread at a time; only the constructor allocates.
 */
final class SplitBank {
    private static final int STATES = 9;
    private final double fs;
    private final double[][] edge; // [edge][c of A, p1 and p2 of B]
    private final double[][] state;

    SplitBank(int bands, double fs) {
        this.fs = fs;
        edge = new double[bands + 1][3];
        state = new double[bands + 1][STATES];
    }

    void reset() {
        for (double[] s : state) {
            Arrays.fill(s, 0);
        }
    }

    /** Puts an edge at a frequency [Hz]: 0 is under the lowest band, {@code bands} over the highest. */
    void edge(int i, double hz) {
        double t = Math.tan(Math.PI * Math.max(5, Math.min(hz, 0.47 * fs)) / fs);
        double n = 1 + t + t * t;
        double[] e = edge[i];
        e[0] = (t - 1) / (t + 1);
        e[1] = 2 * (t * t - 1) / n;
        e[2] = (1 - t + t * t) / n;
    }

    /** Puts all edges where another bank has them. */
    void edgesOf(SplitBank other) {
        for (int i = 0; i < edge.length; i++) {
            System.arraycopy(other.edge[i], 0, edge[i], 0, edge[i].length);
        }
    }

    /**
     * Splits at an edge.
     *
     * @param x    signal; becomes the part above the edge, turned over
     * @param low  becomes the part below
     */
    void split(int i, double[] x, double[] low, int n) {
        double c = edge[i][0];
        double p1 = edge[i][1];
        double p2 = edge[i][2];
        double[] s = state[i];
        double x1 = s[0]; // the signal one sample ago
        double x2 = s[1]; // and two
        double a1 = s[2]; // likewise A, A², B, B², AB of it
        double aa1 = s[3];
        double b1 = s[4];
        double b2 = s[5];
        double bb1 = s[6];
        double bb2 = s[7];
        double ab1 = s[8];
        for (int k = 0; k < n; k++) {
            double in = x[k];
            // in these orders little waits for what came out last
            double a = (c * in + x1) - c * a1;
            double b = (p2 * (in - b2) + (p1 * x1 + x2)) - p1 * b1;
            double aa = (c * a + a1) - c * aa1;
            double ab = (c * b + b1) - c * ab1;
            double bb = (p2 * (b - bb2) + (p1 * b1 + b2)) - p1 * bb1;
            x2 = x1;
            x1 = in;
            a1 = a;
            aa1 = aa;
            b2 = b1;
            b1 = b;
            bb2 = bb1;
            bb1 = bb;
            ab1 = ab;
            double squares = 0.25 * (aa + bb);
            low[k] = squares + 0.5 * ab;
            x[k] = 0.5 * ab - squares;
        }
        s[0] = x1;
        s[1] = x2;
        s[2] = a1;
        s[3] = aa1;
        s[4] = b1;
        s[5] = b2;
        s[6] = bb1;
        s[7] = bb2;
        s[8] = ab1;
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
            Arrays.fill(s, 0);
        }
    }

    /** Puts bands together: the sum so far passes through the all-pass that both halves of the next split make together. */
    static final class Sum {
        private final double[][] state;

        Sum(int bands) {
            state = new double[bands][5];
        }

        void flush() {
            for (double[] s : state) {
                SplitBank.flush(s);
            }
        }

        void reset() {
            for (double[] s : state) {
                Arrays.fill(s, 0);
            }
        }

        /**
         * Adds a band to the sum of those below it.
         *
         * @param sum  of the bands below; becomes the sum with this one
         * @param gain of the band at the first sample
         * @param step by which the gain grows with each sample
         */
        void add(SplitBank bank, int band, double[] sum, double[] x, double gain, double step, int n) {
            double c = bank.edge[band + 1][0];
            double p1 = bank.edge[band + 1][1];
            double p2 = bank.edge[band + 1][2];
            double[] s = state[band];
            double x1 = s[0];
            double x2 = s[1];
            double y1 = s[2];
            double y2 = s[3];
            double v1 = s[4];
            double g = gain;
            for (int k = 0; k < n; k++) {
                double in = sum[k];
                double y = p2 * (in - y2) + x2 + p1 * x1 - p1 * y1; // in this order little waits for the last y
                double v = c * y + y1 - c * v1;
                x2 = x1;
                x1 = in;
                y2 = y1;
                y1 = y;
                v1 = v;
                sum[k] = v + g * x[k];
                g += step;
            }
            s[0] = x1;
            s[1] = x2;
            s[2] = y1;
            s[3] = y2;
            s[4] = v1;
        }
    }
}
