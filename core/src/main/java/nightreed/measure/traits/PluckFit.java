package nightreed.measure.traits;

import java.util.ArrayList;
import java.util.List;

/**
 * The comb of the pluck point: partial n is excited in proportion to |sin(π n β)| (T. D. Rossing, "The Science of String
 * Instruments", 2010), over a slope that stands for pick, string and body.
 */
final class PluckFit {
    private static final int LEAST_LINES = 8;

    /** No notch is deeper than this in a real string [dB]. */
    private static final double DEEPEST_DB = -30;

    private static final double LEAST_SHARE = 0.02;
    private static final int MOST_VALLEYS = 8;

    private final Spectrum lines;

    PluckFit(Spectrum lines) {
        this.lines = lines;
    }

    /** Null if the lines are too few, or a slope alone explains them as well. */
    PluckPoint fit() {
        if (lines.heard() < LEAST_LINES) {
            return null;
        }
        LevelFit slope = new LevelFit(lines, (i, u) -> straight(i, u));
        LevelFit.Result without = slope.polish(new double[] {0, -6});
        LevelFit comb = new LevelFit(lines, (i, u) -> straight(i, u) + combDb(i + 1, u[2]));
        LevelFit.Result best = null;
        LevelFit.Result second = null;
        for (double[] start : valleys(comb, without.unknowns())) {
            LevelFit.Result r = comb.polish(start);
            if (best == null || r.bic() < best.bic()) {
                second = other(best, r) ? best : second;
                best = r;
            } else if (other(r, best) && (second == null || r.bic() < second.bic())) {
                second = r;
            }
        }
        if (best == null || best.bic() > without.bic() - 2) {
            return null;
        }
        double odds = 1
                + Math.exp(-0.5 * best.independent() * (without.bic() - best.bic()))
                + (second == null ? 0 : Math.exp(-0.5 * best.independent() * (second.bic() - best.bic())));
        double share = fold(best.unknowns()[2]);
        return share < LEAST_SHARE ? null : new PluckPoint(share, best.errors()[2], 1 / odds);
    }

    /** Where the cost has valleys of its own over the share, the deepest first. */
    private List<double[]> valleys(LevelFit comb, double[] slope) {
        double step = 0.06 / lines.count(); // the comb of the last line turns by a fifth of a radian
        List<double[]> found = new ArrayList<>();
        List<Double> depth = new ArrayList<>();
        double before = Double.POSITIVE_INFINITY;
        double here = Double.POSITIVE_INFINITY;
        for (double share = LEAST_SHARE; share <= 0.5 + 2 * step; share += step) {
            double[] u = {slope[0] + 4, slope[1], share};
            double next = share > 0.5 + step ? Double.POSITIVE_INFINITY : comb.cost(u);
            if (here <= before && here < next) {
                int at = 0;
                while (at < depth.size() && depth.get(at) < here) {
                    at++;
                }
                depth.add(at, here);
                found.add(at, new double[] {u[0], u[1], share - step});
            }
            before = here;
            here = next;
        }
        return found.subList(0, Math.min(MOST_VALLEYS, found.size()));
    }

    private static boolean other(LevelFit.Result a, LevelFit.Result b) {
        return a != null && Math.abs(fold(a.unknowns()[2]) - fold(b.unknowns()[2])) > 0.005;
    }

    private double straight(int i, double[] u) {
        return u[0] + u[1] * Math.log(lines.hz(i) / 1000) / Math.log(2);
    }

    static double combDb(int n, double share) {
        double s = Math.sin(Math.PI * n * share);
        return 10 * Math.log10(s * s + Math.pow(10, DEEPEST_DB / 10));
    }

    private static double fold(double share) {
        double s = Math.abs(share) % 1;
        return Math.min(s, 1 - s);
    }
}
