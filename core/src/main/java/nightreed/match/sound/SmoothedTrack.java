package nightreed.match.sound;

import java.util.Arrays;

/**
 * A path over time as it is heard: what it does slowly is followed moment by moment; what it does faster than some twenty times
 * a second is heard as roughness, as deep or as shallow, but not where it stands at any moment (H. Fastl and E. Zwicker,
 * "Psychoacoustics", 2007, chapters 10 and 11).
 *
 * @param now   per frame, as it is; NaN where nothing is known
 * @param slow  per frame, NaN where nothing is known
 * @param rough per frame, root of the mean square of what is faster
 */
public record SmoothedTrack(double[] now, double[] slow, double[] rough) {
    /** Frames of {@link LoudnessTracks#HOP} to each side that are heard together: a window of 100 ms, half as wide at half its height. */
    private static final int REACH = 5;

    private static final double SILENCE = 1e-15;

    /**
     * @param values  per frame; NaN where nothing is known
     * @param weights per frame, how much each counts beside its neighbours, 0 or more
     */
    public static SmoothedTrack of(double[] values, double[] weights) {
        double[] slow = new double[values.length];
        for (int f = 0; f < slow.length; f++) {
            slow[f] = mean(values, weights, f);
        }
        return about(slow, values, weights);
    }

    /**
     * Of a level.
     *
     * @param power  per frame
     * @param gainDb added to it [dB]
     */
    public static SmoothedTrack ofLevel(double[] power, double gainDb) {
        double[] even = new double[power.length];
        Arrays.fill(even, 1);
        double[] slow = new double[power.length];
        double[] values = new double[power.length];
        for (int f = 0; f < slow.length; f++) {
            slow[f] = 10 * Math.log10(mean(power, even, f) + SILENCE) + gainDb;
            values[f] = 10 * Math.log10(power[f] + SILENCE) + gainDb;
        }
        return about(slow, values, power);
    }

    private static SmoothedTrack about(double[] slow, double[] values, double[] weights) {
        double[] rough = new double[values.length];
        for (int f = 0; f < slow.length; f++) {
            rough[f] = Double.isNaN(values[f]) ? Double.NaN : offTheLine(values, weights, f);
        }
        return new SmoothedTrack(values, slow, rough);
    }

    /** Root of the mean square about the straight line through what is heard together: a fall that goes on is no roughness. */
    private static double offTheLine(double[] values, double[] weights, int at) {
        double all = 1e-30;
        double k = 0;
        double v = 0;
        double kk = 0;
        double kv = 0;
        double vv = 0;
        for (int f = Math.max(0, at - REACH); f <= Math.min(values.length - 1, at + REACH); f++) {
            if (!Double.isNaN(values[f])) {
                double w = weights[f] * window(f - at);
                double y = values[f] - values[at];
                all += w;
                k += w * (f - at);
                v += w * y;
                kk += w * (f - at) * (f - at);
                kv += w * (f - at) * y;
                vv += w * y * y;
            }
        }
        double spread = kk / all - k / all * k / all;
        double both = kv / all - k / all * v / all;
        double left = vv / all - v / all * v / all - (spread > 1e-9 ? both * both / spread : 0);
        return Math.sqrt(Math.max(0, left));
    }

    private static double window(int frames) {
        return 0.5 + 0.5 * Math.cos(Math.PI * frames / (REACH + 1.0));
    }

    private static double mean(double[] values, double[] weights, int at) {
        double sum = 0;
        double all = 0;
        for (int k = -REACH; k <= REACH; k++) {
            int f = at + k;
            if (f >= 0 && f < values.length && !Double.isNaN(values[f])) {
                double w = weights[f] * window(k);
                sum += w * values[f];
                all += w;
            }
        }
        return all > 0 && !Double.isNaN(values[at]) ? sum / all : Double.NaN;
    }

    /**
     * How far another is away at a frame, in the unit of the path: no more than it is at that moment. NaN where one of them is
     * not known.
     */
    public double away(SmoothedTrack other, int frame) {
        double moment = Math.abs(other.now[frame] - now[frame]);
        // the depth of a swing is root 2 of its root mean square
        double heard = Math.hypot(other.slow[frame] - slow[frame], Math.sqrt(2) * (other.rough[frame] - rough[frame]));
        return Math.min(moment, heard);
    }
}
