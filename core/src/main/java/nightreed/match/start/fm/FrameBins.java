package nightreed.match.start.fm;

import java.util.Arrays;
import nightreed.match.start.NonuniformStft;

/** The bins of frames that are looked at one by one, and bands that the power of all others is counted in. Immutable. */
final class FrameBins {
    private static final int MOST_BINS = 300;
    private static final double HIGHEST_HZ = 14_000;

    /** Power under the strongest that a bin is looked at for. */
    private static final double LEAST = 1e-5;

    /** A tone that falls fast starts so much higher than it is in the first frame. */
    private static final double HEADROOM = 4;

    private final int[] place; // of a bin among those looked at; of others -1 - band
    private final int count;
    private final int bands;
    private final double most;
    private final double gain;

    /** @param reference amplitude of a pair whose level is 0 dB; 0 for one that suits the frames */
    FrameBins(NonuniformStft frames, double reference) {
        double[] top = new double[frames.bins()];
        double loudest = 1e-20;
        for (int f = 0; f < frames.count(); f++) {
            double sum = 0;
            for (int b = 0; b < top.length; b++) {
                top[b] = Math.max(top[b], frames.power(f)[b]);
                sum += frames.power(f)[b];
            }
            loudest = Math.max(loudest, sum);
        }
        most = Math.max(1e-20, Arrays.stream(top).max().orElse(0));
        gain = reference > 0 ? reference : HEADROOM * Math.sqrt(loudest / 1.5); // a sine of 1 leaves 1.5 in all bins
        place = new int[top.length];
        count = chosen(top, (int) Math.min(top.length - 1, HIGHEST_HZ / frames.binHz()));
        bands = -Arrays.stream(place).min().orElse(-1);
    }

    /** The strongest bins and their neighbours. @param last bin that may be one */
    private int chosen(double[] top, int last) {
        double[] sorted = top.clone();
        Arrays.sort(sorted);
        double least = Math.max(LEAST * most, sorted[Math.max(0, sorted.length - MOST_BINS)]);
        boolean[] near = new boolean[top.length];
        for (int b = 1; b <= last; b++) {
            for (int k = Math.max(1, b - 1); top[b] >= least && k <= Math.min(last, b + 1); k++) {
                near[k] = true;
            }
        }
        int n = 0;
        for (int b = 0; b < top.length; b++) {
            place[b] = near[b] ? n++ : -1 - (int) (2 * Math.log(1 + b) / Math.log(2));
        }
        return n;
    }

    /** Of the frames. */
    int all() {
        return place.length;
    }

    /** That are looked at one by one. */
    int count() {
        return count;
    }

    /** Half octaves that the others are counted in. */
    int bands() {
        return bands;
    }

    boolean isLookedAt(int bin) {
        return place[bin] >= 0;
    }

    /** Place among those looked at, or after them that of its band. */
    int slot(int bin) {
        return place[bin] >= 0 ? place[bin] : count - 1 - place[bin];
    }

    /** Power of the strongest. */
    double most() {
        return most;
    }

    /** Amplitude of a sine as loud as the loudest frame. */
    double gain() {
        return gain;
    }
}
