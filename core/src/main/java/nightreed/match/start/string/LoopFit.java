package nightreed.match.start.string;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import nightreed.match.start.StartContext;
import nightreed.measure.partial.Partial;
import nightreed.music.Pitch;
import nightreed.optim.LeastSquaresProblem;
import nightreed.optim.LevenbergMarquardt;
import nightreed.recipe.LoopLoss;
import nightreed.recipe.LoopLoss.Kind;
import nightreed.recipe.SecondString;
import nightreed.voice.string.StringModes;
import nightreed.voice.string.StringModes.Mode;

/**
 * The loop, or the two loops, whose partials lie where those of a recording do and die as they do: pitch, stiffness, decays and
 * a second string at once, against the partials of the loop as it is played ({@link StringModes}). Frequencies and decays are
 * measured so well that hardly anything of a loop is left to be searched for.
 *
 * @param f0Hz    pitch without stiffness [Hz]
 * @param second  null for one string
 * @param matched partials that are within a cent of the loop's
 */
record LoopFit(double f0Hz, double stiffness, LoopLoss loss, SecondString second, int matched) {
    /** Fewer partials tell less than they are asked for. */
    private static final int FEWEST = 5;

    /** Partials that are looked at, the most audible ones. */
    private static final int MOST = 32;

    /** Number of the highest: of low strings there are hundreds, and each of the loop's costs as much as another. */
    private static final int HIGHEST = 80;

    /** Stiffnesses that stand for all. */
    private static final int STIFFNESSES = 44;

    /** So that none at all can be walked away from. */
    private static final double LEAST_COUPLING_DB = 1e-4;

    private static final double LEAST_STIFFNESS = 1e-7;
    private static final double MOST_STIFFNESS = 0.02;

    /** Partials that a law is laid through for a start: higher ones of a loop leave it. */
    private static final int LAWFUL = 16;

    private static final double ROUGHLY_CENTS = 8;

    /** Distances that matter, first from far and then from near [cents], and the same of decays [share]. */
    private static final double[] CENTS = {6, 1, 0.15};

    private static final double[] DECAYS = {0.3, 0.1, 0.04};

    /** What a bridge that takes some has to leave of what is left over without. */
    private static final double COUPLED = 0.8;

    /** Two strings of nearly one pitch stand for each other, so the last digits are slow to come. */
    private static final LevenbergMarquardt.Options OPTIONS =
            LevenbergMarquardt.Options.USUAL.withMostIterations(60).withCostTolerance(1e-6);

    private static final int LAST = CENTS.length - 1;

    /** Partials that lie within it follow a loop [cents]. */
    private static final double CLOSE_CENTS = 1;

    /** Share of the partials, by audibility, that a loop may leave over, seen from far. */
    private static final double MOST_LEFT = 0.4;

    private record Line(double hz, double centsSe, double t60, double t60Se, double weight) {}

    /** What is fitted of the recording. */
    private record Lines(List<Line> all, double fs, boolean inverted, double toHz, double weights) {}

    /**
     * @param roughly a law of the decays
     * @param second  a second string, if there seems to be one, else null
     * @return null if the partials are too few, or those of no string
     */
    static LoopFit of(StartContext g, LoopLoss roughly, SecondString second, boolean inverted) {
        Lines lines = lines(g, inverted);
        if (lines.all.size() < FEWEST) {
            return null;
        }
        LoopFit best = laid(lines, g, roughly, second).parallelStream()
                .map(f -> polished(lines, f, false))
                .min(Comparator.comparingDouble(f -> cost(lines, f, LAST)))
                .orElse(null);
        if (best == null || cost(lines, best, 0) > MOST_LEFT * lines.weights) {
            return null;
        }
        List<LoopFit> others = new ArrayList<>(List.of(best));
        for (Kind kind : Kind.values()) {
            others.add(best.with(kind));
        }
        best = others.parallelStream()
                .map(f -> polished(lines, f, false))
                .min(Comparator.comparingDouble(f -> cost(lines, f, LAST)))
                .orElseThrow();
        if (second != null) {
            // strings well apart die alike with a bridge that takes some and with a loop that loses more
            LoopFit coupled = polished(lines, best, true);
            best = cost(lines, coupled, LAST) < COUPLED * cost(lines, best, LAST) ? coupled : best;
        }
        return best.counted(lines);
    }

    private LoopFit with(Kind kind) {
        LoopLoss other = new LoopLoss(kind, loss.t60Seconds(), loss.halfHz(), loss.power());
        return new LoopFit(f0Hz, stiffness, other, second, 0);
    }

    private LoopFit counted(Lines lines) {
        List<Mode> modes = modes(lines);
        int close = 0;
        for (Line l : lines.all) {
            close += modes.stream().anyMatch(m -> Math.abs(Pitch.cents(m.hz(), l.hz)) < CLOSE_CENTS) ? 1 : 0;
        }
        return new LoopFit(f0Hz, stiffness, loss, second, close);
    }

    private static Lines lines(StartContext g, boolean inverted) {
        List<Line> out = new ArrayList<>();
        double fs = g.measurement().sampleRateHz();
        double top = g.lines().get(0).db();
        double highest = 0;
        double weights = 0;
        List<Partial> partials = new ArrayList<>(g.measurement().reliablePartials());
        double most = Math.min(0.4 * fs, HIGHEST * g.f0());
        partials.removeIf(p -> p.t60Seconds() == null || p.frequencyHz() > most);
        partials.sort(Comparator.comparingDouble(p -> -p.levelDb()));
        for (Partial p : partials.subList(0, Math.min(MOST, partials.size()))) {
            double under = Math.max(0, top - 20 * Math.log10(p.amplitude() + 1e-12));
            Line l = new Line(
                    p.frequencyHz(),
                    1200 / Math.log(2) * p.frequencySeHz() / p.frequencyHz(),
                    p.t60Seconds(),
                    p.stages() != null ? Double.POSITIVE_INFINITY : p.t60SeSeconds() / p.t60Seconds(),
                    1 / (1 + under / 10));
            out.add(l);
            weights += l.weight;
            highest = Math.max(highest, l.hz);
        }
        return new Lines(out, fs, inverted, 1.02 * highest, weights);
    }

    /** Laws of stiff strings laid through the partials; those that explain most, one with its stiffness and one without. */
    private static List<LoopFit> laid(Lines lines, StartContext g, LoopLoss loss, SecondString second) {
        double apart = second == null ? 0 : second.detuneCents();
        LoopFit best = null;
        LoopFit plain = null;
        double most = -1;
        double mostPlain = -1;
        for (int k = 0; k <= STIFFNESSES; k++) {
            double b = k == 0
                    ? 0
                    : LEAST_STIFFNESS * Math.pow(MOST_STIFFNESS / LEAST_STIFFNESS, (k - 1.0) / (STIFFNESSES - 1));
            for (Line anchor : lines.all.subList(0, Math.min(6, lines.all.size()))) {
                double n = number(anchor.hz, g.f0(), b, lines.inverted);
                double f0 = anchor.hz / (n * Math.sqrt(1 + b * n * n));
                if (Math.abs(Pitch.cents(g.f0(), f0)) > 60) {
                    continue;
                }
                for (double mine : apart == 0 ? new double[] {0} : new double[] {0, apart}) {
                    double at = f0 * Math.pow(2, -mine / 1200);
                    double explained = explained(lines, at, b, apart);
                    LoopFit f = new LoopFit(at, b, loss, second, 0);
                    if (explained > most) {
                        most = explained;
                        best = f;
                    }
                    if (k == 0 && explained > mostPlain) {
                        mostPlain = explained;
                        plain = f;
                    }
                }
            }
        }
        List<LoopFit> out = new ArrayList<>();
        if (best != null) {
            out.add(best);
        }
        if (plain != null && !plain.equals(best)) {
            out.add(plain);
        }
        return out;
    }

    private static double explained(Lines lines, double f0, double b, double apart) {
        double sum = 0;
        for (Line l : lines.all) {
            double n = number(l.hz, f0, b, lines.inverted);
            if (n > LAWFUL) {
                continue;
            }
            double off = Pitch.cents(n * f0 * Math.sqrt(1 + b * n * n), l.hz);
            double other = Math.min(Math.abs(off), Math.abs(off - apart)) / ROUGHLY_CENTS;
            sum += l.weight * Math.exp(-0.5 * other * other);
        }
        return sum;
    }

    private static double number(double hz, double f0, double b, boolean inverted) {
        // (n f0)² (1 + B n²) = hz², straight in n²
        double q = hz * hz / (f0 * f0);
        double n = Math.sqrt(b == 0 ? q : (Math.sqrt(1 + 4 * b * q) - 1) / (2 * b));
        return inverted ? Math.max(1, 1 + 2 * Math.rint((n - 1) / 2)) : Math.max(1, Math.rint(n));
    }

    // ---- on rulers that a polish may walk on ----

    /** Cents of pitch, logarithms of stiffness, T60, half and power; of a second string cents and root of the coupling. */
    private double[] unknowns(boolean coupled) {
        double[] u = new double[second == null ? 5 : coupled ? 7 : 6];
        u[1] = Math.log(stiffness + LEAST_STIFFNESS);
        u[2] = Math.log(loss.t60Seconds());
        u[3] = Math.log(loss.halfHz());
        u[4] = Math.log(loss.power());
        if (second != null) {
            u[5] = second.detuneCents() / 10;
        }
        if (u.length > 6) {
            u[6] = Math.sqrt(second.couplingDb() + LEAST_COUPLING_DB);
        }
        return u;
    }

    private LoopFit with(double[] u) {
        LoopLoss l = new LoopLoss(
                loss.kind(),
                StartContext.limited(Math.exp(u[2]), 0.02, 100),
                StartContext.limited(Math.exp(u[3]), 50, 100_000),
                StartContext.limited(Math.exp(u[4]), 0.3, 3));
        SecondString s = second == null
                ? null
                : new SecondString(
                        StartContext.limited(10 * u[5], -50, 50),
                        u.length < 7
                                ? second.couplingDb()
                                : StartContext.limited(u[6] * u[6] - LEAST_COUPLING_DB, 0, 6),
                        second.levelDb());
        double b = StartContext.limited(Math.exp(u[1]) - LEAST_STIFFNESS, 0, MOST_STIFFNESS);
        return new LoopFit(f0Hz * Math.pow(2, StartContext.limited(u[0], -10, 10) / 120), b, l, s, matched);
    }

    private static LoopFit polished(Lines lines, LoopFit start, boolean coupled) {
        LoopFit now = start;
        for (int near = 0; near <= LAST; near++) {
            now = polished(lines, now, coupled, near);
        }
        return now;
    }

    private static LoopFit polished(Lines lines, LoopFit start, boolean coupled, int near) {
        return start.with(LevenbergMarquardt.minimize(
                        LeastSquaresProblem.limited(1, u -> residuals(lines, start.with(u), near)),
                        start.unknowns(coupled),
                        OPTIONS)
                .point());
    }

    private static double squares(double[] r) {
        return Arrays.stream(r).map(v -> v * v).sum();
    }

    private static double cost(Lines lines, LoopFit f, int near) {
        return squares(residuals(lines, f, near));
    }

    private List<Mode> modes(Lines lines) {
        return StringModes.of(lines.fs, f0Hz, loss, stiffness, lines.inverted, second, lines.toHz);
    }

    /** Of each partial, how far its place and its decay are off those of the nearest of the loop; strays count no more than far. */
    private static double[] residuals(Lines lines, LoopFit f, int near) {
        List<Mode> modes = f.modes(lines);
        double[] out = new double[2 * lines.all.size()];
        int at = 0;
        for (Line l : lines.all) {
            Mode best = null;
            double least = Double.POSITIVE_INFINITY;
            for (Mode m : modes) {
                double off = Math.abs(m.hz() - l.hz);
                if (off < least) {
                    least = off;
                    best = m;
                }
            }
            double share = Math.sqrt(l.weight / 2);
            double cents = best == null ? 1200 : Pitch.cents(best.hz(), l.hz);
            double decay = best == null ? 1 : Math.log(l.t60 / best.t60Seconds());
            out[at++] = share * bent(cents / Math.hypot(CENTS[near], l.centsSe));
            out[at++] = share * bent(decay / Math.hypot(DECAYS[near], l.t60Se));
        }
        return out;
    }

    /** Up to 1 (S. Geman, D. McClure, 1987). */
    private static double bent(double r) {
        return r / Math.sqrt(1 + r * r);
    }
}
