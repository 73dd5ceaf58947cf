package nightreed.match.start.fm;

import nightreed.match.start.NonuniformStft;

/**
 * The likeliest course of the index through all frames (dynamic programming; R. Bellman, 1957; A. Viterbi, 1967).
 *
 * @param index    per frame [rad]
 * @param level    amplitude of the carrier that it would take, per frame
 * @param likeness mean over the frames by their weights, 0 to 1
 */
record ViterbiIndexPath(double[] index, double[] level, double likeness) {
    /** An index that jumps between frames costs so much of the likeness per step of the net. */
    private static final double JUMP = 0.004;

    /** What a frame is like with an index. @param likeness 0 to 1  @param level amplitude of the carrier then */
    record Like(double likeness, double level) {}

    /**
     * @param like    [frame][index]
     * @param indexes of the net, rising [rad]; at least as many as {@code like} has
     */
    static ViterbiIndexPath through(Like[][] like, NonuniformStft frames, double[] indexes) {
        int n = like.length;
        int many = like[0].length;
        double[][] best = new double[n][many];
        int[][] from = new int[n][many];
        for (int f = 0; f < n; f++) {
            for (int i = 0; i < many; i++) {
                double before = f == 0 ? 0 : Double.NEGATIVE_INFINITY;
                for (int o = 0; f > 0 && o < many; o++) {
                    double v = best[f - 1][o] - JUMP * Math.abs(i - o);
                    if (v > before) {
                        before = v;
                        from[f][i] = o;
                    }
                }
                best[f][i] = before + frames.weight(f) * like[f][i].likeness;
            }
        }
        int at = 0;
        for (int i = 0; i < many; i++) {
            at = best[n - 1][i] > best[n - 1][at] ? i : at;
        }
        double[] index = new double[n];
        double[] level = new double[n];
        double sum = 0;
        double weights = 1e-9;
        for (int f = n - 1; f >= 0; f--) {
            index[f] = between(like[f], at, indexes);
            level[f] = like[f][at].level;
            sum += frames.weight(f) * like[f][at].likeness;
            weights += frames.weight(f);
            at = from[f][at];
        }
        return new ViterbiIndexPath(index, level, sum / weights);
    }

    /** Between the points of the net, by the parabola through three of them. */
    private static double between(Like[] like, int at, double[] indexes) {
        if (at == 0 || at == like.length - 1) {
            return indexes[at];
        }
        double low = like[at - 1].likeness;
        double mid = like[at].likeness;
        double high = like[at + 1].likeness;
        double bend = low - 2 * mid + high;
        double by = bend < -1e-12 ? Math.max(-0.5, Math.min(0.5, 0.5 * (low - high) / bend)) : 0;
        return indexes[at] + by * (by > 0 ? indexes[at + 1] - indexes[at] : indexes[at] - indexes[at - 1]);
    }
}
