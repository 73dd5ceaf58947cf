package nightreed.match.start;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Stream;
import nightreed.match.start.FmFrames.Course;
import nightreed.match.start.FmWalk.Heard;
import nightreed.match.start.Ground.Line;
import nightreed.music.Pitch;
import nightreed.recipe.FmPair;
import nightreed.recipe.FmRecipe;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.Exciter;

/**
 * Pairs added one by one to those that leave the least over, each time with all values of all pairs walked together
 * ({@link FmWalk}): a pair that is chosen alone makes up for those that are not there yet, so several ways are followed.
 */
final class FmFit {
    private static final int FIRST = 10;
    private static final int NEXT = 3;
    private static final int WALKED = 6;
    private static final int KEPT = 3;
    private static final int BRIEF_ROUNDS = 6;
    private static final int ROUNDS = 25;

    /** Ways to the pairs count as the same if they leave so nearly the same over. */
    private static final double SAME = 1e-3;

    /** What one more pair has to leave of a misfit. */
    private static final double WORTH = 0.97;

    private static final double[] DETUNED_HZ = {0, -0.2, 0.2, -0.4, 0.4, -0.7, 0.7, -1, 1, -1.4, 1.4, -2, 2};

    /** What a walk begins with for the noise of a strike. */
    private static final Exciter NOISE = new Exciter(1, -20, 30, 200, 3000);

    private final Ground g;
    private final Frames frames;
    private final FmWalk walk;

    FmFit(Ground g) {
        this.g = g;
        this.frames = Frames.of(g.side());
        this.walk = new FmWalk(frames, g.f0());
    }

    /** Pairs and what they leave over, 0 to about 1. */
    record Found(Heard sound, double misfit) {}

    /** The likeliest first. */
    List<Found> found(int most) {
        List<Found> all = new ArrayList<>();
        List<Found> front = best(pairs(new FmFrames(frames), g.lines(), FIRST)
                .map(p -> new Heard(List.of(p), g.isHeld() ? null : NOISE))
                .toList());
        all.addAll(front);
        for (int n = 2; n <= FmRecipe.MOST_PAIRS && !front.isEmpty(); n++) {
            List<Found> before = front;
            front = best(before.stream().flatMap(this::extended).toList());
            double worth = WORTH * before.get(0).misfit;
            front = front.stream().filter(f -> f.misfit < worth).toList();
            all.addAll(front);
        }
        return all.stream()
                .sorted(Comparator.comparingDouble(Found::misfit))
                .limit(most)
                .toList()
                .parallelStream()
                .map(f -> plain(walked(f.sound, ROUNDS)))
                .sorted(Comparator.comparingDouble(
                        f -> f.misfit / Math.pow(WORTH, f.sound.pairs().size())))
                .toList();
    }

    private Found plain(Found f) {
        Heard plainer = walk.plain(f.sound);
        return new Found(plainer, walk.misfit(plainer));
    }

    private List<Found> best(List<Heard> tried) {
        List<Found> out = new ArrayList<>();
        List<Found> likely = tried.parallelStream()
                .map(p -> walk.turned(p, p.pairs().size() - 1, 0))
                .map(p -> new Found(p, walk.misfit(p)))
                .sorted(Comparator.comparingDouble(Found::misfit))
                .limit(WALKED)
                .toList();
        likely.parallelStream()
                .map(f -> walked(detuned(f.sound), BRIEF_ROUNDS))
                .sorted(Comparator.comparingDouble(Found::misfit))
                .forEachOrdered(f -> {
                    boolean known = out.stream().anyMatch(o -> Math.abs(o.misfit / f.misfit - 1) < SAME);
                    if (!known && out.size() < KEPT) {
                        out.add(f);
                    }
                });
        return out;
    }

    /** Harmonics of a held note are measured as multiples of its pitch, also where they beat. */
    private Heard detuned(Heard sound) {
        return g.isHeld() ? walk.turned(sound, sound.pairs().size() - 1, DETUNED_HZ) : sound;
    }

    private Found walked(Heard from, int rounds) {
        Heard there = walk.nearest(from, rounds);
        return new Found(there, walk.misfit(there));
    }

    private Stream<Heard> extended(Found f) {
        Frames left = frames.without(walk.power(f.sound));
        List<Line> lines = g.lines().stream().filter(l -> isLeft(l, left)).toList();
        if (lines.isEmpty()) {
            return Stream.empty();
        }
        FmFrames fit = new FmFrames(left);
        FmPair plain = flat(fit.plain(lines.get(0), g.f0()));
        return Stream.concat(pairs(fit, lines, NEXT), Stream.of(plain)).map(f.sound::and);
    }

    private boolean isLeft(Line l, Frames left) {
        int b = (int) Math.rint(l.hz() / frames.binHz());
        double was = 1e-20;
        double is = 0;
        for (int f = 0; f < frames.count() && b < frames.bins(); f++) {
            was += frames.power(f)[b];
            is += left.power(f)[b];
        }
        return is > 0.1 * was;
    }

    private Stream<FmPair> pairs(FmFrames fit, List<Line> lines, int most) {
        return fit.pairs(lines, g.f0(), most).stream().flatMap(c -> Stream.of(pair(c), flat(c)));
    }

    private FmPair pair(Course c) {
        double[] t = frames.seconds();
        double[] weight = new double[t.length];
        for (int f = 0; f < t.length; f++) {
            weight[f] = frames.weight(f) + 0.02;
        }
        double level = top(c.level());
        double index = Math.max(0.02, top(c.index()));
        EnvelopeFit amp = EnvelopeFit.ofLevel(t, shares(c.level(), level), weight, g.attack(), g.release());
        EnvelopeFit bend = EnvelopeFit.of(t, shares(c.index(), index), weight, Math.min(0.0005, g.attack()), g.release());
        return FmPair.of(
                Ground.limited(20 * Math.log10(level * amp.top() / walk.gain() + 1e-9), -60, 6),
                Ground.limited(c.carrierHz() / g.f0(), 0.05, 60),
                Ground.limited(c.modulatorHz() / g.f0(), 0.05, 60),
                Ground.limited(index * bend.top(), 0, 50),
                amp.envelope(),
                bend.envelope());
    }

    /** With an index that stays: what the first frames say of its course may be of a strike's noise. */
    private FmPair flat(Course c) {
        double[] index = c.index();
        double sum = 0;
        double weights = 1e-9;
        for (int f = index.length / 4; f < index.length; f++) {
            sum += frames.weight(f) * index[f];
            weights += frames.weight(f);
        }
        FmPair p = pair(c);
        return FmPair.of(p.levelDb(), p.carrierRatio(), p.modulatorRatio(), Math.max(0.02, sum / weights), p.amplitude(), Envelope.struck(0.0005, 20, g.release()));
    }

    private static double[] shares(double[] values, double of) {
        double[] out = new double[values.length];
        for (int i = 0; i < out.length; i++) {
            out[i] = values[i] / Math.max(1e-12, of);
        }
        return out;
    }

    private static double top(double[] values) {
        double most = 0;
        for (double v : values) {
            most = Math.max(most, v);
        }
        return most;
    }
}
