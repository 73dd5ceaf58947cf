package nightreed.match.start.fm;

import java.util.Arrays;

/**
 * What a line leaves in the bins around it whose amplitude moves within a frame: its course is told by a few values, straight
 * between them, and each piece of it has a spectrum of its own through the window (after J. Allen, L. Rabiner, "A unified
 * approach to short-time Fourier analysis and synthesis", 1977). Immutable.
 */
final class WindowPieces {
    /** Bins on either side of a line that are told. */
    static final int FAR = 8;

    /** Points that the window is summed over, and that are told from bin to bin. */
    private static final int POINTS = 1024;

    private static final int STEPS = 32;

    private final double[] nodes;
    private final double[] re; // [place, then piece]
    private final double[] im;

    /** @param nodes where in the window the values lie, by rising number, 0 for its start to 1 for its end */
    WindowPieces(double... nodes) {
        this.nodes = nodes.clone();
        int places = 2 * FAR * STEPS + 2;
        re = new double[places * nodes.length];
        im = new double[re.length];
        double[] piece = new double[nodes.length];
        for (int i = 0; i < POINTS; i++) {
            double u = (i + 0.5) / POINTS;
            double w = (1 - Math.cos(2 * Math.PI * u)) / POINTS; // a sine of 1 leaves 1
            pieces(u, piece);
            for (int at = 0; at < places; at++) {
                double turn = -2 * Math.PI * ((double) at / STEPS - FAR) * (u - 0.5);
                double c = w * Math.cos(turn);
                double s = w * Math.sin(turn);
                for (int p = 0; p < piece.length; p++) {
                    re[at * piece.length + p] += c * piece[p];
                    im[at * piece.length + p] += s * piece[p];
                }
            }
        }
    }

    private void pieces(double u, double[] out) {
        Arrays.fill(out, 0);
        int n = nodes.length;
        int last = 0;
        while (last < n - 2 && nodes[last + 1] < u) {
            last++;
        }
        double x = (u - nodes[last]) / (nodes[last + 1] - nodes[last]); // beyond the ends it goes on as straight
        out[last] = 1 - x;
        out[last + 1] = x;
    }

    int count() {
        return nodes.length;
    }

    /** Where a value lies, in windows after the middle of one. */
    double place(int piece) {
        return nodes[piece] - 0.5;
    }

    /**
     * Real and imaginary part that each piece of 1 leaves.
     *
     * @param bins how far off a bin lies, {@link #FAR} at the most
     * @param to   two values for each piece
     * @param from the first of them
     */
    void at(double bins, double[] to, int from) {
        double place = (bins + FAR) * STEPS;
        int i = (int) place;
        double f = place - i;
        int low = i * nodes.length;
        int high = low + nodes.length;
        for (int p = 0; p < nodes.length; p++) {
            to[from + 2 * p] = re[low + p] + f * (re[high + p] - re[low + p]);
            to[from + 2 * p + 1] = im[low + p] + f * (im[high + p] - im[low + p]);
        }
    }

    /** The same of its slope, per bin. */
    void slope(double bins, double[] to, int from) {
        int place = (int) ((bins + FAR) * STEPS);
        int low = place * nodes.length;
        int high = low + nodes.length;
        for (int p = 0; p < nodes.length; p++) {
            to[from + 2 * p] = STEPS * (re[high + p] - re[low + p]);
            to[from + 2 * p + 1] = STEPS * (im[high + p] - im[low + p]);
        }
    }
}
