package nightreed.match;

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
    static double late(Side first, Side second) {
        return late(start(first), start(second));
    }

    /** Levels around the measured onset of a sound, to be laid over others. */
    public static double[] start(Side side) {
        return start(
                side.clip().mixed(),
                side.clip().sampleRateHz(),
                side.measurement().onsetSeconds());
    }

    /** The same around a time [s] of samples; before the first of them there is silence. */
    public static double[] start(double[] x, double sampleRateHz, double onset) {
        double from = onset - REACH;
        double[] out = new double[(int) ((SPAN + REACH) / STEP)];
        double top = 1e-20;
        for (int f = 0; f < out.length; f++) {
            int a = (int) Math.max(0, (from + f * STEP) * sampleRateHz);
            int b = (int) Math.min(x.length, (from + f * STEP + WINDOW) * sampleRateHz);
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

    /** Time by which the second start is later than the first, each told around its own onset [s]. */
    public static double late(double[] first, double[] second) {
        int reach = (int) (REACH / STEP);
        double[] cost = new double[2 * reach + 1];
        int best = reach;
        for (int k = 0; k < cost.length; k++) {
            cost[k] = cost(first, second, k - reach);
            best = cost[k] < cost[best] ? k : best;
        }
        if (best == 0 || best == cost.length - 1) {
            return (best - reach) * STEP;
        }
        // a mean of absolute differences falls to its least and rises from it along straight lines
        double before = cost[best - 1] - cost[best];
        double after = cost[best + 1] - cost[best];
        double between = 0.5 * (before - after) / Math.max(1e-9, Math.max(before, after));
        return (best - reach + between) * STEP;
    }

    private static double cost(double[] first, double[] second, int shift) {
        double sum = 0;
        int count = 0;
        for (int i = Math.max(0, -shift); i < Math.min(first.length, second.length - shift); i++) {
            sum += Math.abs(first[i] - second[i + shift]);
            count++;
        }
        return count == 0 ? Double.POSITIVE_INFINITY : sum / count + 1e-3 * Math.abs(shift); // of equals the nearest
    }
}
