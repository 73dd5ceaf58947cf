package nightreed.match.compare;

import nightreed.match.sound.AnalysedSound;
import nightreed.sound.Clip;

/**
 * Where two slow starts lie over each other. An onset is where something stands clear of the background; beside a clean
 * imitation that is later in a recording with noise, though they may rise alike.
 */
public final class Alignment {
    private static final double STEP = 0.001;
    private static final double WINDOW = 0.006;
    private static final double REACH = 0.06;
    private static final double SPAN = 0.35;

    /** Levels further under the top count alike [dB]. */
    private static final double RANGE_DB = 30;

    private Alignment() {}

    /** Time by which the start of the second is later than its measured onset [s]. */
    public static double late(AnalysedSound first, AnalysedSound second) {
        double[] mine = levels(first.clip(), first.measurement().onsetSeconds() - REACH);
        double[] other = levels(second.clip(), second.measurement().onsetSeconds() - REACH);
        int reach = (int) (REACH / STEP);
        int best = 0;
        double least = Double.POSITIVE_INFINITY;
        for (int shift = -reach; shift <= reach; shift++) {
            double sum = 0;
            int count = 0;
            for (int i = Math.max(0, -shift); i < Math.min(mine.length, other.length - shift); i++) {
                sum += Math.abs(mine[i] - other[i + shift]);
                count++;
            }
            double cost = sum / Math.max(1, count) + 1e-3 * Math.abs(shift); // of equals the nearest
            if (count > 0 && cost < least) {
                least = cost;
                best = shift;
            }
        }
        return best * STEP;
    }

    /** Level over time re its top [dB]. */
    private static double[] levels(Clip clip, double from) {
        double[] x = clip.mixed();
        double fs = clip.sampleRateHz();
        double[] out = new double[(int) ((SPAN + REACH) / STEP)];
        double top = 1e-20;
        for (int f = 0; f < out.length; f++) {
            int a = (int) Math.max(0, (from + f * STEP) * fs);
            int b = (int) Math.min(x.length, (from + f * STEP + WINDOW) * fs);
            for (int i = a; i < b; i++) {
                out[f] += x[i] * x[i];
            }
            top = Math.max(top, out[f]);
        }
        for (int f = 0; f < out.length; f++) {
            out[f] = Math.max(-RANGE_DB, 10 * Math.log10(out[f] / top + 1e-12));
        }
        return out;
    }
}
