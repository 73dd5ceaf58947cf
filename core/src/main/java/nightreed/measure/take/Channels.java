package nightreed.measure.take;

import java.util.Locale;
import nightreed.sound.Clip;

/**
 * The one signal that is measured, of the channels of a recording: their mean where they agree, the louder one where they
 * would cancel each other or where one holds nothing.
 *
 * @param samples what is measured
 * @param remark  what was unusual about the channels, null if nothing was
 */
public record Channels(double[] samples, String remark) {
    /** Level under the louder channel at which one counts as dead [dB]. */
    private static final double DEAD_DB = -50;

    /** Correlation below which a mean would lose most of the sound. */
    private static final double CANCELLING = -0.3;

    public static Channels of(Clip clip) {
        if (clip.channelCount() != 2) {
            return new Channels(clip.mixed(), null);
        }
        float[] left = clip.channel(0);
        float[] right = clip.channel(1);
        double ll = 1e-20;
        double rr = 1e-20;
        double lr = 0;
        for (int i = 0; i < left.length; i++) {
            ll += (double) left[i] * left[i];
            rr += (double) right[i] * right[i];
            lr += (double) left[i] * right[i];
        }
        double db = 10 * Math.log10(Math.min(ll, rr) / Math.max(ll, rr));
        float[] louder = ll >= rr ? left : right;
        String name = ll >= rr ? "left" : "right";
        if (db < DEAD_DB) {
            return new Channels(
                    doubles(louder),
                    "Only the " + name + " channel holds sound; it alone is measured: check the cable of the other.");
        }
        double correlation = lr / Math.sqrt(ll * rr);
        if (correlation < CANCELLING) {
            return new Channels(
                    doubles(louder),
                    String.format(
                            Locale.ROOT,
                            "The channels cancel each other (correlation %.2f): the %s one alone is measured. One may be"
                                    + " inverted.",
                            correlation,
                            name));
        }
        return new Channels(clip.mixed(), null);
    }

    private static double[] doubles(float[] x) {
        double[] d = new double[x.length];
        for (int i = 0; i < x.length; i++) {
            d[i] = x[i];
        }
        return d;
    }
}
