package nightreed.voice.wave;

/**
 * Reads a wave from the two tables between which its number of harmonics lies, so that none appears or goes at once when the
 * pitch moves. Where it moves past a table within a step, what was read before fades into what is read now. Nothing is
 * allocated.
 */
final class TableBlend {
    /** A table is reached halfway to the next, so that one reading does for every other pitch that stands still. */
    private static final double REACHED = 0.5;

    private double[] low; // null for silence
    private double[] high;
    private double share = 1; // of the one with more harmonics
    private double shareStep;
    private double[] lowBefore;
    private double[] highBefore;
    private double shareBefore;
    private double fade = 1;
    private double fadeStep;
    private boolean fresh = true;

    /** Begins anew: the next aim is there at once. */
    void start() {
        fresh = true;
    }

    /**
     * Sets what the next {@code n} samples glide towards.
     *
     * @param set  wave, null for silence
     * @param most harmonics at the most; silence below 1
     */
    void aim(WaveSet set, double most, int n) {
        boolean silent = set == null || most < 1;
        int i = silent ? 0 : set.level(most);
        double[] nextHigh = silent ? null : set.table(i);
        double[] nextLow = silent || i == 0 ? nextHigh : set.table(i - 1);
        double next = nextLow == nextHigh ? 1 : Math.min(1, set.between(i, most) / REACHED);
        if (fresh || nextHigh == high && nextLow == low) {
            share = fresh ? next : share;
            fade = 1;
            fadeStep = 0;
        } else {
            lowBefore = low;
            highBefore = high;
            shareBefore = share;
            share = next;
            fade = 0;
            fadeStep = 1.0 / n;
        }
        low = nextLow;
        high = nextHigh;
        shareStep = (next - share) / n;
        if (Math.abs(next - share) < 1e-9) {
            share = next;
            shareStep = 0;
        }
        fresh = false;
    }

    /** @param phase 0 to 1 */
    double read(double phase) {
        double y = mixed(low, high, share, phase);
        return fade == 1 ? y : fade * y + (1 - fade) * mixed(lowBefore, highBefore, shareBefore, phase);
    }

    private static double mixed(double[] low, double[] high, double share, double phase) {
        if (high == null) {
            return 0;
        }
        double y = WaveSet.read(high, phase);
        return share == 1 ? y : share * y + (1 - share) * WaveSet.read(low, phase);
    }

    /** One sample on. */
    void advance() {
        share += shareStep;
        fade = Math.min(1, fade + fadeStep);
    }
}
