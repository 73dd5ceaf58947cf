package nightreed.match.start;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import nightreed.match.start.StartContext.Line;

/**
 * All places that the lines of one modulator may lie at, whichever of them is the carrier: at the distance {@code offset} from
 * its multiples, above 0 or below. FM and ring modulation put their lines on such grids, so sums and differences of partials
 * tell the modulator.
 *
 * @param offset    one of the lines [Hz]
 * @param modulator distance of the lines [Hz]
 * @param share     of the partials that lie on the grid, weighted by level, without what would do so by chance, 0 to 1
 */
public record SidebandGrid(double offset, double modulator, double share) {
    /** Strongest partials whose sums and differences are tried; chosen: more find the same grids. */
    private static final int PARTIALS = 12;

    /** Of them, those that a grid is laid through. */
    private static final int OFFSETS = 6;

    /** A partial lies on a line within this [Hz], or share of its frequency; measured partials are about as exact. */
    private static final double NEAR_HZ = 0.4;

    private static final double NEAR_SHARE = 0.0005;

    /** Modulators count as the same within this share. */
    private static final double SAME = 0.0008;

    /** @return grids that differ, those that most partials lie on first; may be empty */
    public static List<SidebandGrid> of(List<Line> lines, double f0, NonuniformStft frames, int most) {
        int n = Math.min(PARTIALS, lines.size());
        double top = 0.9 * frames.bins() * frames.binHz();
        List<Double> modulators = new ArrayList<>(List.of(f0));
        for (int i = 0; i < n; i++) {
            double a = lines.get(i).hz();
            add(modulators, a);
            for (int k = 0; k < i; k++) {
                double b = lines.get(k).hz();
                add(modulators, Math.abs(a - b));
                add(modulators, Math.abs(a - b) / 2);
                add(modulators, a + b);
                add(modulators, (a + b) / 2);
            }
        }
        List<SidebandGrid> all = new ArrayList<>();
        for (double m : modulators) {
            boolean sensible = m > 0.2 * f0 && m < 25 * f0 && m > 3 * frames.binHz() && m < top;
            for (int i = 0; sensible && i < Math.min(OFFSETS, n); i++) {
                double offset = lines.get(i).hz();
                all.add(new SidebandGrid(offset, m, share(lines, offset, m)));
            }
        }
        all.sort(Comparator.comparingDouble(g -> -g.share));
        List<SidebandGrid> out = new ArrayList<>();
        for (SidebandGrid g : all) {
            if (out.size() < most && out.stream().noneMatch(g::isLike)) {
                out.add(g);
            }
        }
        return out;
    }

    private boolean isLike(SidebandGrid o) {
        double up = Math.abs(Math.IEEEremainder(offset - o.offset, modulator));
        double down = Math.abs(Math.IEEEremainder(offset + o.offset, modulator));
        return Math.abs(modulator - o.modulator) < NEAR_HZ && Math.min(up, down) < NEAR_HZ;
    }

    /** Share of the partials, weighted by level, that lie on lines of a carrier and a modulator, without chance. */
    public static double share(List<Line> lines, double carrier, double modulator) {
        double on = 0;
        double all = 1e-9;
        for (Line l : lines) {
            double w = Math.max(0.02, 1 + (l.db() - lines.get(0).db()) / 50);
            double width = NEAR_HZ + NEAR_SHARE * l.hz();
            double up = Math.abs(Math.IEEEremainder(l.hz() - carrier, modulator));
            double down = Math.abs(Math.IEEEremainder(l.hz() + carrier, modulator));
            double off = Math.min(up, down) / width;
            double chance = Math.min(1, 6 * width / modulator);
            on += w * Math.max(0, 1 / (1 + off * off) - chance);
            all += w;
        }
        return on / all;
    }

    private static void add(List<Double> to, double hz) {
        if (to.stream().noneMatch(o -> Math.abs(o / hz - 1) < SAME)) {
            to.add(hz);
        }
    }
}
