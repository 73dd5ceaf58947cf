package nightreed.match.start;

import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import nightreed.match.start.FmWalk.Heard;
import nightreed.match.start.Ground.Line;
import nightreed.recipe.FmPair;
import nightreed.recipe.FmRecipe;
import nightreed.recipe.part.Common;
import nightreed.recipe.part.Exciter;

/**
 * Pairs added one by one to those that leave the least over, each time with all values of all pairs walked together
 * ({@link FmWalk}): a pair that is chosen alone makes up for those that are not there yet, so several ways are followed.
 */
final class FmFit {
    /** Ways that are walked from, and that are followed. */
    private static final int WALKED = 6;

    /** Fewer where each is detuned before. */
    private static final int WALKED_HELD = 3;

    private static final int KEPT = 3;

    /** How often the pairs of the nearest are looked for again, at the most. */
    private static final int PASSES = 5;

    /** What each time has to leave of a misfit: of a sound that was made so it leaves far less. */
    private static final double MUCH = 0.9;

    /** Of all seats of pairs, how many are walked from a step, and rounds of it. */
    private static final int LIKELIEST = 8;

    private static final int STEP_ROUNDS = 2;

    /** Of so many frames one is enough to choose where to walk from. */
    private static final int THIN = 3;

    private static final int BRIEF_ROUNDS = 6;
    private static final int ROUNDS = 25;

    /** An index with which only the first sidebands are heard. */
    private static final double LITTLE_INDEX = 0.6;

    /** What one may be tried with, as its line is loud. */
    private static final double MOST_OF_LITTLE = 2;

    private static final int MOST_LEFT = 6;

    /** Other modulators that are walked from. */
    private static final int REWIRED = 2;

    /** Ways to the pairs count as the same if they leave so nearly the same over. */
    private static final double SAME = 1e-3;

    /** What one more pair has to leave of a misfit. */
    private static final double WORTH = 0.97;

    /** How far a modulator may be off [Hz]. */
    private static final double[] DETUNED_HZ = {0, -0.3, 0.3, -0.7, 0.7, -1.2, 1.2, -2, 2};

    /** How far a carrier may be off besides, and how many steps there are to either side [Hz]. */
    private static final double SLID_HZ = 2;

    private static final int SLID_STEPS = 25;

    private static final int FINE_STEPS = 5;

    /** Times in which a level or an index may fall once a key is let go [s]. */
    private static final double[] RELEASES = {0.06, 0.2, 0.6, 1.8};

    /** What a walk begins with for the noise of a strike. */
    private static final Exciter NOISE = new Exciter(1, -20, 30, 200, 3000);

    private final Ground g;
    private final Frames frames;
    private final Common movement;
    private final FmProposals proposals;
    private final FmWalk walk;
    private final FmWalk scout;
    private final FmWalk fine;
    private final FmWalk loud; // what is loud of the whole note, its beginning or its release included
    private final boolean tuned;
    private final boolean steady; // whether lines are known where they lie, not as multiples of a pitch

    /** @param tuned whether all ratios are whole, as those of bodies that are bowed or blown are */
    FmFit(Ground g, boolean tuned) {
        this.g = g;
        this.tuned = tuned;
        this.movement = g.movementWithoutTremolo();
        SteadySpectrum spectrum = tuned ? null : SteadySpectrum.of(g.side(), movement);
        List<Line> placed = tuned || !g.isHeld() ? List.of() : SteadyLines.of(spectrum);
        this.steady = SteadyLines.areBesideHarmonics(placed, g.f0());
        this.frames = Frames.of(g.side(), movement, false);
        this.walk = new FmWalk(frames, g.f0(), false, tuned);
        this.proposals = new FmProposals(g, frames, steady ? placed : g.lines(), spectrum, walk.gain(), tuned);
        this.scout = new FmWalk(frames.thinned(THIN), g.f0(), false, tuned, walk.gain(), null);
        FmWalk beginning =
                g.isHeld() ? null : new FmWalk(Frames.ofBeginning(g.side()), g.f0(), true, false, walk.gain(), null);
        Frames whole = Frames.of(g.side(), movement, g.isHeld());
        this.fine = new FmWalk(whole, g.f0(), true, tuned, walk.gain(), beginning);
        FmWalk begun = beginning == null
                ? null
                : new FmWalk(Frames.ofBeginning(g.side()), g.f0(), false, false, walk.gain(), null);
        this.loud = new FmWalk(whole, g.f0(), false, tuned, walk.gain(), begun);
    }

    /** Pairs and what they leave over, 0 to about 1. */
    record Found(Heard sound, double misfit) {}

    /**
     * The likeliest first, and after them what they were before weak lines counted as much as strong ones: of a sound that was
     * not made so, the loud ones alone may be all that can be met. What each leaves over is told with weak lines.
     */
    List<Found> found(int most) {
        List<Found> all = new ArrayList<>();
        List<Found> front = best(proposals
                .first()
                .map(p -> new Heard(List.of(p), g.isHeld() ? null : NOISE))
                .toList());
        all.addAll(front);
        for (int n = 2; n <= FmRecipe.MOST_PAIRS && !front.isEmpty(); n++) {
            List<Found> before = front;
            front = seated(best(before.stream().flatMap(f -> extended(f.sound)).toList()));
            double worth = WORTH * before.get(0).misfit;
            front = front.stream().filter(f -> f.misfit < worth).toList();
            all.addAll(front);
        }
        List<Found> coarse =
                all.stream().sorted(Comparator.comparingDouble(Found::misfit)).limit(most).toList().parallelStream()
                        .map(f -> walked(g.isHeld() ? loud : walk, released(f.sound), ROUNDS))
                        .toList();
        Stream<Found> fine = coarse.parallelStream()
                .map(f -> plain(rewired(finely(f))))
                .sorted(Comparator.comparingDouble(
                        f -> f.misfit / Math.pow(WORTH, f.sound.pairs().size())));
        return Stream.concat(fine, coarse.stream().map(f -> new Found(f.sound, this.fine.misfit(f.sound))))
                .toList();
    }

    /**
     * With carriers that change places with sidebands of theirs, and pairs looked for again in what the others leave, as long
     * as that leaves less over: what is chosen while others are missing stands in for them (after J. Friedman, W. Stuetzle,
     * "Projection pursuit regression", 1981, whose terms are fitted again in turn).
     */
    private Found reseated(Found f) {
        Found best = f;
        boolean anew = false;
        for (int pass = 0; pass < PASSES; pass++) {
            boolean looks = anew;
            Found from = best;
            Stream<Heard> tried = IntStream.range(0, from.sound.pairs().size())
                    .boxed()
                    .flatMap(i -> looks
                            ? again(from.sound, i)
                            : Stream.concat(FmSeats.of(from.sound, i), seats(from.sound, i)));
            Found next = nearest(tried.toList());
            boolean better = next != null && next.misfit < MUCH * from.misfit;
            if (!better && anew) {
                break;
            }
            best = better ? next : from;
            anew = !better;
        }
        return best;
    }

    /** With the nearest reseated, which it stays; whole ratios leave no other seat that is meant. */
    private List<Found> seated(List<Found> front) {
        if (front.isEmpty() || tuned) {
            return front;
        }
        List<Found> out = new ArrayList<>(front);
        out.set(0, reseated(front.get(0)));
        return out;
    }

    /** Of many, the likeliest walked from a little way, and the nearest of them further; null for none. */
    private Found nearest(List<Heard> tried) {
        return likeliest(tried).parallelStream()
                .map(p -> walked(p.sound, STEP_ROUNDS))
                .sorted(Comparator.comparingDouble(Found::misfit))
                .limit(KEPT)
                .toList()
                .parallelStream()
                .map(p -> walked(p.sound, BRIEF_ROUNDS))
                .min(Comparator.comparingDouble(Found::misfit))
                .orElse(null);
    }

    private List<Found> likeliest(List<Heard> tried) {
        int half = (tried.size() + 1) / 2;
        return Stream.of(tried.subList(0, half), tried.subList(half, tried.size()))
                .parallel()
                .flatMap(some -> {
                    List<Double> misfits = scout.misfits(some);
                    return IntStream.range(0, some.size()).mapToObj(i -> new Found(some.get(i), misfits.get(i)));
                })
                .sorted(Comparator.comparingDouble(Found::misfit))
                .limit(LIKELIEST)
                .toList();
    }

    /** One pair looked for anew. */
    private Stream<Heard> again(Heard sound, int i) {
        return extended(sound.without(i))
                .parallel()
                .map(h -> scout.turned(h, h.pairs().size() - 1, 0));
    }

    /** With the times of a net in which level and index fall once the key is let go, that leave the least, all pairs alike. */
    private Heard released(Heard sound) {
        if (!g.isHeld()) {
            return sound;
        }
        return leastLeft(
                loud, releases(sound, IntStream.range(0, sound.pairs().size()).toArray()));
    }

    /** The same for each pair, weak ones too: after a strong one has died away they may be all that is heard. */
    private Heard releasedApart(Heard sound) {
        Heard now = sound;
        for (int i = 0; g.isHeld() && i < sound.pairs().size() && sound.pairs().size() > 1; i++) {
            now = leastLeft(fine, releases(now, i));
        }
        return now;
    }

    private static Heard leastLeft(FmWalk walk, List<Heard> tried) {
        List<Double> misfits = walk.misfits(tried);
        return tried.get(misfits.indexOf(Collections.min(misfits)));
    }

    /** As it is, and with each of the net. @param which pairs get them */
    private static List<Heard> releases(Heard sound, int... which) {
        List<Heard> tried = new ArrayList<>(List.of(sound));
        for (double level : RELEASES) {
            for (double index : RELEASES) {
                Heard other = sound;
                for (int i : which) {
                    FmPair p = sound.pairs().get(i);
                    other = other.with(
                            i,
                            p.withEnvelopes(
                                    p.amplitude().withRelease(level), p.bend().withRelease(index)));
                }
                tried.add(other);
            }
        }
        return tried;
    }

    /**
     * Walked until weak lines count, and of a struck note from how it begins, too: of the noise of a strike long frames say
     * little, and tones stand in for it unless it is walked to first, while what is loud has fewer hills.
     */
    private Found finely(Found f) {
        Found plain = walked(fine, releasedApart(f.sound), ROUNDS);
        if (g.isHeld()) {
            return tuned ? plain : slid(plain);
        }
        Found begun = fine(walked(loud, new Heard(f.sound.pairs(), NOISE), ROUNDS), ROUNDS);
        return begun.misfit < plain.misfit ? begun : plain;
    }

    /** How fast folded lines beat, from frames that lie far apart, is told by all of a net and no slope. */
    private Found slid(Found f) {
        FmWalk dense = new FmWalk(Frames.ofHeld(g.side(), movement), g.f0(), false, tuned, walk.gain(), null);
        Heard now = f.sound;
        for (int i = 0; i < now.pairs().size(); i++) {
            if (now.pairs().get(i).index() > LITTLE_INDEX) {
                Heard roughly = dense.slid(now, i, SLID_HZ, SLID_STEPS);
                now = dense.slid(roughly, i, SLID_HZ / SLID_STEPS, FINE_STEPS);
            }
        }
        Found other = walked(fine, dense.nearest(now, BRIEF_ROUNDS), ROUNDS);
        return other.misfit < f.misfit ? other : f;
    }

    private Found fine(Found f, int rounds) {
        return walked(fine, f.sound, rounds);
    }

    /** A modulator that bends little has one or two lines of its own, and may have been led to those of others. */
    private Found rewired(Found f) {
        List<Found> tried = new ArrayList<>();
        List<Line> left = proposals.left(frames.without(walk.power(f.sound)));
        for (Line l : left.subList(0, Math.min(MOST_LEFT, left.size()))) {
            for (int i = 0; i < f.sound.pairs().size(); i++) {
                FmPair p = f.sound.pairs().get(i);
                double hz = p.carrierRatio() * g.f0();
                double index = 2 * root(l.hz()) / Math.max(1e-9, root(hz)); // J1 is half an index that is small
                for (double modulator : new double[] {Math.abs(hz - l.hz()), hz + l.hz()}) {
                    if (p.index() < LITTLE_INDEX && index < MOST_OF_LITTLE) {
                        Heard other = f.sound.with(i, modulated(p, proposals.ratio(modulator / g.f0()), index));
                        tried.add(new Found(other, fine.misfit(other)));
                    }
                }
            }
        }
        return tried.stream()
                .sorted(Comparator.comparingDouble(Found::misfit))
                .limit(REWIRED)
                .map(t -> fine(t, BRIEF_ROUNDS))
                .filter(r -> r.misfit < f.misfit)
                .min(Comparator.comparingDouble(Found::misfit))
                .orElse(f);
    }

    /** Of the power at a line, in all frames. */
    private double root(double hz) {
        int b = (int) Math.rint(hz / frames.binHz());
        double sum = 0;
        for (int f = 0; f < frames.count() && b < frames.bins(); f++) {
            sum += frames.weight(f) * frames.power(f)[b];
        }
        return Math.sqrt(sum);
    }

    private static FmPair modulated(FmPair p, double ratio, double index) {
        return p.with(p.carrierRatio(), Ground.limited(ratio, 0.05, 60), index);
    }

    private Found plain(Found f) {
        Heard plainer = fine.plain(f.sound);
        return new Found(plainer, fine.misfit(plainer));
    }

    private List<Found> best(List<Heard> tried) {
        List<Found> out = new ArrayList<>();
        List<Found> likely = tried.parallelStream()
                .map(p -> scout.turned(p, p.pairs().size() - 1, 0))
                .map(p -> new Found(p, walk.misfit(p)))
                .sorted(Comparator.comparingDouble(Found::misfit))
                .limit(g.isHeld() ? WALKED_HELD : WALKED)
                .toList();
        likely.parallelStream()
                .map(f -> walked(detuned(f.sound), BRIEF_ROUNDS))
                .sorted(Comparator.comparingDouble(Found::misfit))
                .forEachOrdered(f -> {
                    boolean known = out.stream().anyMatch(o -> Math.abs(o.misfit / f.misfit - 1) < SAME);
                    if (!known && out.size() < (g.isHeld() ? KEPT - 1 : KEPT)) {
                        out.add(f);
                    }
                });
        return out;
    }

    /** Harmonics of a held note are measured as multiples of its pitch, also where they beat. */
    private Heard detuned(Heard sound) {
        return g.isHeld() && !tuned && !steady
                ? scout.turned(sound, sound.pairs().size() - 1, DETUNED_HZ)
                : sound;
    }

    private Found walked(Heard from, int rounds) {
        return walked(walk, from, rounds);
    }

    private static Found walked(FmWalk walk, Heard from, int rounds) {
        Heard there = walk.nearest(from, rounds);
        return new Found(there, walk.misfit(there));
    }

    private Stream<Heard> extended(Heard sound) {
        return proposals.beside(sound.pairs(), walk.power(sound)).map(sound::and);
    }

    /** The same lines of one pair with another of them for the carrier. */
    private Stream<Heard> seats(Heard sound, int i) {
        return proposals
                .seats(sound.pairs().get(i), walk.power(sound.without(i)))
                .parallel()
                .map(o -> scout.turned(sound.with(i, o), i, 0));
    }
}
