package nightreed.measure.held;

import java.util.Arrays;

/**
 * A path that stands still and jumps at even intervals to values without an order, as a stepped random LFO makes it.
 *
 * <p>Any wandering path can be cut into steps that follow it; what shows real steps is that it matters where they are cut.
 * Steps half an interval later than the true ones take in two values each and explain much less.
 */
final class StepFit {
    private static final double LOWEST_HZ = 1.5;
    private static final double HIGHEST_HZ = 16;
    private static final int PHASES = 12;
    private static final int FEWEST_STEPS = 6;

    /** Share of the variance about the mean that steps may leave over. */
    private static final double MOST_LEFT = 0.12;

    /** By how much more steps half an interval later leave over. */
    private static final double CONTRAST = 6;

    /** Time around a jump in which the windows of the path hold both values, to which a jump is known [s]. */
    static final double GUARD_SECONDS = 0.011;

    /** Beginning and end of the path, in which the note itself still rises or already falls [s]. */
    private static final double EDGE_SECONDS = 0.06;

    /** A slower rate that leaves over no more than so many times as much is the true one: each of its steps was cut up. */
    private static final double SLOWER = 4;

    private final double[] t;
    private final double[][] sums; // of w, w y, w y² up to a frame

    /** @param t times [s], rising; y values there; w weights */
    StepFit(double[] t, double[] y, double[] w) {
        int from = 0;
        int to = t.length;
        while (from < to && t[from] < t[0] + EDGE_SECONDS) {
            from++;
        }
        while (to > from && t[to - 1] > t[t.length - 1] - EDGE_SECONDS) {
            to--;
        }
        this.t = Arrays.copyOfRange(t, from, to);
        this.sums = new double[3][this.t.length + 1];
        for (int i = 0; i < this.t.length; i++) {
            double v = y[from + i];
            sums[0][i + 1] = sums[0][i] + w[from + i];
            sums[1][i + 1] = sums[1][i] + w[from + i] * v;
            sums[2][i + 1] = sums[2][i] + w[from + i] * v * v;
        }
    }

    /**
     * @param rateHz steps a second
     * @param start  time of the first jump, or where the first step would have begun [s]
     * @param levels value of each step from {@code start} on
     * @param cost   weighted squares that it leaves over, as if all frames counted
     */
    record Steps(double rateHz, double start, double[] levels, double cost) {}

    /** @return null if the path does not move in steps */
    Steps find() {
        if (t.length < 2 * FEWEST_STEPS) {
            return null;
        }
        double length = t[t.length - 1] - t[0];
        Steps best = null;
        double least = Double.POSITIVE_INFINITY;
        for (double rate = Math.max(LOWEST_HZ, FEWEST_STEPS / length); rate <= HIGHEST_HZ; rate += 0.08 / length) {
            for (int k = 0; k < PHASES; k++) {
                Steps s = at(rate, t[0] - (double) k / PHASES / rate);
                double judged = bic(s);
                if (judged < least) {
                    least = judged;
                    best = s;
                }
            }
        }
        if (best == null) {
            return null;
        }
        best = slowest(refined(best, length), length);
        double all = sums[2][t.length] - sums[1][t.length] * sums[1][t.length] / sums[0][t.length];
        Steps later = at(best.rateHz, best.start + 0.5 / best.rateHz);
        boolean real = best.cost < MOST_LEFT * all && later.cost > CONTRAST * best.cost;
        return real && jumps(best) >= FEWEST_STEPS - 2 ? best : null;
    }

    private Steps slowest(Steps found, double length) {
        Steps best = found;
        for (int parts = 2; parts <= HIGHEST_HZ / LOWEST_HZ; parts++) {
            for (int k = 0; k < parts; k++) {
                double rate = found.rateHz / parts;
                if (rate * length >= FEWEST_STEPS) {
                    Steps s = refined(at(rate, found.start + k / found.rateHz), length);
                    best = s.cost < SLOWER * found.cost ? s : best;
                }
            }
        }
        return best;
    }

    private Steps refined(Steps start, double length) {
        Steps best = start;
        double dr = 0.04 / length;
        double ds = 0.5 / PHASES / start.rateHz;
        for (int i = 0; i < 12; i++) {
            Steps before = best;
            for (double[] step : new double[][] {{dr, 0}, {-dr, 0}, {0, ds}, {0, -ds}}) {
                Steps s = at(best.rateHz + step[0], best.start + step[1]);
                if (bic(s) < bic(best)) {
                    best = s;
                }
            }
            if (best == before) {
                dr *= 0.5;
                ds *= 0.5;
            }
        }
        return best;
    }

    /** Bayesian information criterion, with each step, the rate and the place of the first as unknowns. */
    double bic(Steps s) {
        return t.length * Math.log(Math.max(1e-12, s.cost) / t.length) + (s.levels.length + 2) * Math.log(t.length);
    }

    /** Steps that differ from the one before by far more than what is left over. */
    private int jumps(Steps s) {
        double spread = Math.sqrt(s.cost / sums[0][t.length]);
        int count = 0;
        for (int i = 1; i < s.levels.length; i++) {
            count += Math.abs(s.levels[i] - s.levels[i - 1]) > 3 * spread ? 1 : 0;
        }
        return count;
    }

    private Steps at(double rate, double start) {
        double first = start - Math.ceil((start - t[0]) * rate) / rate;
        int count = (int) Math.ceil((t[t.length - 1] - first) * rate);
        double[] levels = new double[Math.max(1, count)];
        double cost = 0;
        double counted = 1e-12;
        double guard = Math.min(GUARD_SECONDS, 0.2 / rate);
        int to = 0;
        for (int k = 0; k < levels.length; k++) {
            int from = to;
            while (from < t.length && t[from] < first + k / rate + guard) {
                from++;
            }
            to = from;
            while (to < t.length && t[to] < first + (k + 1) / rate - guard) {
                to++;
            }
            double w = sums[0][to] - sums[0][from];
            double y = sums[1][to] - sums[1][from];
            levels[k] = w > 0 ? y / w : Double.NaN; // too little of it is seen
            cost += w > 0 ? Math.max(0, sums[2][to] - sums[2][from] - y * y / w) : 0;
            counted += w;
        }
        for (int k = 1; k < levels.length; k++) {
            levels[k] = Double.isNaN(levels[k]) ? levels[k - 1] : levels[k];
        }
        for (int k = levels.length - 2; k >= 0; k--) {
            levels[k] = Double.isNaN(levels[k]) ? levels[k + 1] : levels[k];
        }
        return new Steps(rate, first, levels, cost * sums[0][t.length] / counted);
    }
}
