package nightreed.match.start;

import nightreed.match.sound.AnalysedSound;

/**
 * How a held note begins whose tone comes later than its first breath or bow noise: what envelopes wait for.
 *
 * @param delaySeconds from the onset until the tone begins to rise [s]
 * @param attackSeconds its whole rise [s]
 */
public record LateRise(double delaySeconds, double attackSeconds) {
    /** Window in which the level is looked at [s]: two periods of 400 Hz. */
    private static final double WINDOW = 0.005;

    private static final double HOP = 0.001;

    /** Span after the onset in which a tone has to have come [s]. */
    private static final double SPAN = 0.6;

    /** A wait that is shorter is none [s]: the ear takes it for part of the rise. */
    private static final double LEAST_DELAY = 0.008;

    /** Shares of the top between which a rise is measured, as everywhere. */
    private static final double LOW = 0.1;

    private static final double HIGH = 0.9;

    /** Null if the tone begins at once, or nothing begins. */
    public static LateRise of(AnalysedSound side) {
        double[] x = side.clip().mixed();
        double fs = side.measurement().sampleRateHz();
        int onset = (int) Math.max(0, side.measurement().onsetSeconds() * fs);
        int window = (int) (WINDOW * fs);
        int frames = (int) Math.min(SPAN / HOP, (x.length - onset - window) / (HOP * fs));
        if (frames < 20) {
            return null;
        }
        double[] level = new double[frames];
        double top = 0;
        for (int f = 0; f < frames; f++) {
            int at = onset + (int) (f * HOP * fs);
            double sum = 0;
            for (int i = at; i < at + window; i++) {
                sum += x[i] * x[i];
            }
            level[f] = Math.sqrt(sum / window);
            top = Math.max(top, level[f]);
        }
        int high = 0;
        while (level[high] < HIGH * top) {
            high++;
        }
        int low = high;
        while (low > 0 && level[low] > LOW * top) {
            low--;
        }
        double attack = Math.max(0.001, (high - low) * HOP / (HIGH - LOW));
        double delay = low * HOP + WINDOW / 2 - LOW * attack;
        return delay < LEAST_DELAY ? null : new LateRise(delay, attack);
    }
}
