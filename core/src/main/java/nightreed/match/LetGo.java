package nightreed.match;

import java.util.Arrays;
import nightreed.recipe.part.Envelope;

/**
 * Where the key of a held note is let go, by least squares: a level that runs on straight, but for a swing that is known, and
 * from some moment on falls along the course of a release.
 */
final class LetGo {
    /** How much earlier and later than where it roughly is, and before the end where nothing is known of it [frames]. */
    private static final int EARLIER = 25;

    private static final int LATER = 15;
    private static final int LAST = 100;

    /** Frames before the moment that are looked at, that have to be, and of the fall that have to be there. */
    private static final int BEFORE = 60;

    private static final int FEWEST_BEFORE = 15;
    private static final int FEWEST_AFTER = 5;

    /** Bends and times of releases that are tried, in seconds, each longer by a factor. */
    private static final double[] CURVES = {-0.3, 0, 0.3, 0.6, 1};

    private static final double SHORTEST = 0.02;
    private static final double LONGEST = 8;
    private static final double LONGER = 1.35;

    /** How far the moment is usually off [s], and what share of the squares being so far off costs. */
    private static final double USUALLY_OFF = 0.15;

    private static final double COST = 0.3;

    /** Squares that a fall may leave of those off a straight line, and where nothing else tells that a key is let go. */
    private static final double LEFT = 0.5;

    private static final double LEFT_UNSEEN = 0.1;

    /** Share of the amplitude that may be there at the end where nothing else tells, and that it may be off by, as roots. */
    private static final double FALLEN = 0.9;

    private static final double UNREST = 0.06;

    private final double[] level; // roots of amplitudes, so that weak frames count beside strong ones
    private final double[] known;
    private final int first;

    private LetGo(double[] power, double[] swingDb, int first) {
        level = Arrays.stream(power)
                .map(p -> Math.sqrt(Math.sqrt(Math.max(0, p))))
                .toArray();
        known = Arrays.stream(swingDb).map(d -> Math.pow(10, d / 40)).toArray();
        this.first = first;
    }

    /** @param end root of the share of the amplitude that is still there at the end @param left squares off the course */
    private record Fall(double key, double left, double end) {}

    /**
     * @param power   per frame of {@link Paths#HOP}
     * @param swingDb known swing of the level at each frame [dB]
     * @param roughly where the key seems to be let go; infinite if it does not [s]
     * @param rise    time after the onset at which the level has risen [s]
     * @return the same where no course fits clearly
     */
    static double refined(double[] power, double[] swingDb, double roughly, double rise) {
        boolean seen = !Double.isInfinite(roughly);
        int risen = (int) (rise / Paths.HOP);
        int last = power.length - FEWEST_AFTER;
        int near = seen ? (int) (roughly / Paths.HOP) : last;
        int from = Math.max(risen + FEWEST_BEFORE, near - (seen ? EARLIER : LAST));
        int to = Math.min(last, near + LATER);
        if (to <= from) {
            return roughly;
        }
        LetGo of = new LetGo(power, swingDb, Math.max(risen, from - BEFORE));
        Fall best = of.best(from, to, seen ? roughly : Double.NaN);
        double straight = of.left(Double.POSITIVE_INFINITY, Envelope.held(0, 0));
        boolean bends = best.left < (seen ? LEFT : LEFT_UNSEEN) * straight && (seen || best.end < FALLEN);
        return bends && of.unrest(best, from) < UNREST ? best.key : roughly;
    }

    /** What it is off a course by, as a share of the level before. */
    private double unrest(Fall fall, int from) {
        double mean = Arrays.stream(level, first, from).average().orElse(1);
        return Math.sqrt(fall.left / (level.length - first)) / mean;
    }

    /** @param from frame of the first moment that is tried, up to {@code to} @param roughly NaN if nothing is known */
    private Fall best(int from, int to, double roughly) {
        Fall best = null;
        double least = Double.POSITIVE_INFINITY;
        for (double curve : CURVES) {
            for (double t = SHORTEST; t < LONGEST; t *= LONGER) {
                Envelope e = new Envelope(0, 0, 0, 0, 0, curve, 1, t);
                for (double k = from; k <= to; k += 0.5) {
                    double key = k * Paths.HOP;
                    double left = left(key, e);
                    double off = Double.isNaN(roughly) ? 0 : (key - roughly) / USUALLY_OFF;
                    double cost = left * (1 + COST * off * off);
                    if (cost < least) {
                        least = cost;
                        double toEnd = Math.max(0, (level.length - 0.5) * Paths.HOP - key);
                        best = new Fall(key, left, Math.sqrt(e.released(1, toEnd)));
                    }
                }
            }
        }
        return best;
    }

    /** Squares off (a + b f) times a course, with the a and b that leave the least. */
    private double left(double key, Envelope release) {
        double aa = 1e-30;
        double ab = 0;
        double bb = 1e-30;
        double ay = 0;
        double by = 0;
        double yy = 0;
        for (int f = first; f < level.length; f++) {
            double after = (f + 0.5) * Paths.HOP - key;
            double a = known[f] * (after > 0 ? Math.sqrt(release.released(1, after)) : 1);
            double b = a * (f - first);
            aa += a * a;
            ab += a * b;
            bb += b * b;
            ay += a * level[f];
            by += b * level[f];
            yy += level[f] * level[f];
        }
        double det = aa * bb - ab * ab;
        if (det < 1e-12 * aa * bb) {
            return yy - ay * ay / aa;
        }
        double p = (ay * bb - by * ab) / det;
        double q = (by * aa - ay * ab) / det;
        return Math.max(0, yy - p * ay - q * by);
    }
}
