package nightreed.measure.traits;

/**
 * The comb of the pluck point: partial n is excited in proportion to |sin(π n β)| (T. D. Rossing, "The Science of String
 * Instruments", 2010), over a slope that stands for pick, string and body.
 */
final class PluckFit {
    private static final int LEAST_LINES = 8;

    /** No notch is deeper than this in a real string [dB]. */
    private static final double DEEPEST_DB = -30;

    private static final double LEAST_SHARE = 0.02;

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
        double step = 0.06 / lines.count(); // the comb of the last line turns by a fifth of a radian
        double before = Double.POSITIVE_INFINITY;
        double here = Double.POSITIVE_INFINITY;
        for (double share = LEAST_SHARE; share <= 0.5 + step; share += step) {
            double[] u = {without.unknowns()[0] + 4, without.unknowns()[1], share};
            double next = share > 0.5 ? Double.POSITIVE_INFINITY : comb.cost(u);
            if (here <= before && here < next) { // a valley of its own
                u[2] = share - step;
                LevelFit.Result r = comb.polish(u);
                if (best == null || r.bic() < best.bic()) {
                    second = other(best, r) ? best : second;
                    best = r;
                } else if (other(r, best) && (second == null || r.bic() < second.bic())) {
                    second = r;
                }
            }
            before = here;
            here = next;
        }
        if (best == null || best.bic() > without.bic() - 2) {
            return null;
        }
        double odds = 1
                + Math.exp(-0.5 * (without.bic() - best.bic()))
                + (second == null ? 0 : Math.exp(-0.5 * (second.bic() - best.bic())));
        double share = fold(best.unknowns()[2]);
        return share < LEAST_SHARE ? null : new PluckPoint(share, best.errors()[2], 1 / odds);
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
