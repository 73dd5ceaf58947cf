package nightreed.measure.take;

/**
 * The constant that a recorder adds to all samples. It is their mean, unless the recording begins so quietly that its beginning
 * can tell the constant by itself, and tells another: then the sound is lopsided and not the recording, and taking the mean off
 * would put a step where the note begins.
 */
public final class Offset {
    /** Beginning that is looked at [s]. */
    private static final double LEAD_IN = 0.03;

    /** Spread of a quiet beginning, as a share of the peak. */
    private static final double QUIET = 0.01;

    /** Spreads that the means may differ by. */
    private static final double SAME = 3;

    private Offset() {}

    /** @param x samples, at least one */
    public static double of(double[] x, double sampleRateHz) {
        int lead = (int) Math.min(x.length, LEAD_IN * sampleRateHz);
        double all = mean(x, x.length);
        double first = mean(x, lead);
        double peak = 0;
        for (double v : x) {
            peak = Math.max(peak, Math.abs(v - all));
        }
        double square = 0;
        for (int i = 0; i < lead; i++) {
            square += (x[i] - first) * (x[i] - first) / lead;
        }
        double spread = Math.sqrt(square);
        boolean tells = lead > 1 && spread < QUIET * peak;
        return tells && Math.abs(all - first) > SAME * spread ? first : all;
    }

    private static double mean(double[] x, int count) {
        double sum = 0;
        for (int i = 0; i < count; i++) {
            sum += x[i] / count;
        }
        return sum;
    }
}
