package nightreed.sound;

import nightreed.dsp.Windows;

/**
 * Slower without a change of pitch: overlapping pieces are laid out farther apart, each taken from where it continues the
 * one before best (W. Verhelst, M. Roelands, "An overlap-add technique based on waveform similarity", ICASSP 1993).
 */
public final class TimeStretch {
    private static final double PIECE_SECONDS = 0.05;
    private static final double SEARCH_SECONDS = 0.012;

    private TimeStretch() {}

    /**
     * @param clip   mixed to mono
     * @param factor how many times as long, 1 to 8
     */
    public static Clip slower(Clip clip, double factor) {
        if (!(factor >= 1 && factor <= 8)) {
            throw new IllegalArgumentException("a sound can be made 1 to 8 times as long, not " + factor);
        }
        float[] x = clip.mixedFloats();
        int piece = 2 * (int) (PIECE_SECONDS * clip.sampleRateHz() / 2);
        int hop = piece / 2;
        int search = (int) (SEARCH_SECONDS * clip.sampleRateHz());
        double[] out = new double[(int) (x.length * factor) + piece];
        int from = 0; // where the piece before was taken
        for (int k = 0; k * hop < x.length * factor; k++) {
            int wanted = (int) (k * hop / factor);
            int best = k == 0 ? 0 : closest(x, from + hop, wanted, search, hop);
            for (int i = 0; i < piece; i++) {
                double w = Windows.hann(i, piece);
                if (best + i >= 0 && best + i < x.length) {
                    out[k * hop + i] += w * x[best + i];
                }
            }
            from = best;
        }
        float[] y = new float[(int) (x.length * factor)];
        for (int i = 0; i < y.length; i++) {
            y[i] = (float) out[i];
        }
        return Clip.mono(y, clip.sampleRateHz());
    }

    /** Place near {@code wanted} whose samples are most like those at {@code natural}. */
    private static int closest(float[] x, int natural, int wanted, int search, int length) {
        int best = wanted;
        double most = Double.NEGATIVE_INFINITY;
        for (int at = wanted - search; at <= wanted + search; at += 2) {
            double sum = 0;
            double energy = 1e-9;
            for (int i = 0; i < length; i += 2) {
                int a = natural + i;
                int b = at + i;
                if (a >= 0 && a < x.length && b >= 0 && b < x.length) {
                    sum += (double) x[a] * x[b];
                    energy += (double) x[b] * x[b];
                }
            }
            double likeness = sum / Math.sqrt(energy);
            if (likeness > most) {
                most = likeness;
                best = at;
            }
        }
        return best;
    }
}
