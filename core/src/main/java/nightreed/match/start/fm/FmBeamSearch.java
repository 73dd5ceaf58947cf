package nightreed.match.start.fm;

import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import nightreed.match.start.NonuniformStft;
import nightreed.match.start.StartContext;
import nightreed.recipe.FmPair;
import nightreed.recipe.FmRecipe;
import nightreed.recipe.part.Common;
import nightreed.recipe.part.Exciter;

/**
 * A beam search for FM pairs: in each round every model of the beam is extended by the pairs that {@link FmProposals} finds in
 * what it leaves over, the likeliest extensions are refined with all values of all pairs ({@link FmSpectralFit}), and the best
 * few form the next beam. A beam, since the pair that fits best alone makes up for those that are not there yet.
 */
final class FmBeamSearch {
    /** Extensions that are refined, and models that stay in the beam. */
    private static final int REFINED = 6;

    /** Fewer for held notes: whole ratios differ more. */
    private static final int REFINED_HELD = 3;

    private static final int BEAM = 3;

    /** Models that are refined with weak lines, which takes most of the time; the coarse misfit chooses them. */
    private static final int FINE = 2;

    /** How often pairs of the best model are replaced, at the most. */
    private static final int PASSES = 3;

    /** Part of the misfit that a replaced pair must leave at the most; a sound that was made so leaves far less. */
    private static final double MUCH = 0.9;

    /** Replacements that are refined, and iterations for them. */
    private static final int LIKELIEST = 8;

    private static final int STEP_ITERATIONS = 2;

    /** One frame of so many is enough to rank proposals. */
    private static final int THIN = 3;

    private static final int BRIEF_ITERATIONS = 6;
    private static final int ITERATIONS = 25;

    /** Models count as the same if their misfits differ by less, relatively. */
    private static final double SAME = 1e-3;

    /** Part of the misfit that one more pair must leave at the most. */
    private static final double WORTH = 0.97;

    /** Times in which level and index may fall once the key is let go [s]. */
    private static final double[] RELEASES = {0.06, 0.2, 0.6, 1.8};

    /** Strike noise that a struck model starts with: 30 ms between 200 and 3000 Hz, 20 dB under the first pair. */
    private static final Exciter NOISE = new Exciter(1, -20, 30, 200, 3000);

    private final StartContext g;
    private final NonuniformStft frames;
    private final boolean tuned;
    private final FmProposals proposals;
    private final FmSpectralFit coarse;
    private final FmSpectralFit ranking; // on few frames

    /** Ratios of held notes are whole, as bodies that are bowed or blown have harmonics only. */
    FmBeamSearch(StartContext g) {
        this.g = g;
        this.tuned = g.isHeld();
        Common movement = g.movementWithoutTremolo();
        this.frames = NonuniformStft.of(g.side(), movement, false);
        this.coarse = fit(frames, false, 0, null);
        this.ranking = fit(frames.thinned(THIN), false, coarse.gain(), null);
        this.proposals = new FmProposals(g, frames, g.lines(), coarse.gain(), tuned);
    }

    private FmSpectralFit fit(NonuniformStft of, boolean fine, double gain, FmSpectralFit beside) {
        return new FmSpectralFit(of, g.f0(), fine, tuned, gain, beside, g.progress());
    }

    /** A model and what it leaves over, 0 to about 1. */
    record Found(FmModel model, double misfit) {}

    /** One model, put together greedily on few frames: takes some tenths of a second. */
    FmModel roughly() {
        FmModel now = roughly(proposals.first().map(this::begun).toList());
        for (int n = 2; n <= FmRecipe.MOST_PAIRS; n++) {
            FmModel before = now;
            List<FmModel> extended = extended(before).toList();
            FmModel next = extended.isEmpty() ? before : roughly(extended);
            if (ranking.misfit(next) > WORTH * ranking.misfit(before)) {
                break;
            }
            now = next;
        }
        return now;
    }

    private FmModel roughly(List<FmModel> tried) {
        FmModel best = ranked(ranking, tried, 1).get(0).model;
        FmModel turned = ranking.turned(best, best.pairs().size() - 1);
        return ranking.nearest(turned, BRIEF_ITERATIONS);
    }

    private FmModel begun(FmPair p) {
        return new FmModel(List.of(p), g.isHeld() ? null : NOISE);
    }

    /**
     * The best models, and after them what they were before weak lines counted as much as strong ones: of a sound that FM cannot
     * make, the strong lines may be all that can be matched. Misfits count weak lines.
     */
    List<Found> found() {
        List<Found> met = new ArrayList<>();
        List<Found> beam = best(proposals.first().map(this::begun).toList());
        met.addAll(beam);
        for (int n = 2; n <= FmRecipe.MOST_PAIRS && !beam.isEmpty(); n++) {
            List<Found> before = beam;
            beam = withBestReplaced(
                    best(before.stream().flatMap(f -> extended(f.model)).toList()));
            double worth = WORTH * before.get(0).misfit;
            beam = beam.stream().filter(f -> f.misfit < worth).toList();
            met.addAll(beam);
        }
        Refinement refinement = new Refinement();
        List<Found> likeliest = met.stream()
                .sorted(Comparator.comparingDouble(Found::misfit))
                .limit(FINE)
                .toList();
        List<Found> strong =
                likeliest.parallelStream().map(f -> refinement.strong(f.model)).toList();
        Stream<Found> fine = strong.parallelStream()
                .map(f -> refinement.fine(f.model))
                .sorted(Comparator.comparingDouble(
                        f -> f.misfit / Math.pow(WORTH, f.model.pairs().size())));
        return Stream.concat(fine, strong.stream().map(f -> refinement.judged(f.model)))
                .toList();
    }

    /**
     * Pairs of the best model are replaced for as long as that leaves less over: a carrier changes places with one of its own
     * sidebands, or a pair is looked for again in what the others leave (after J. Friedman, W. Stuetzle, "Projection pursuit
     * regression", 1981, whose terms are fitted again in turn). Whole ratios leave nothing to replace.
     */
    private List<Found> withBestReplaced(List<Found> beam) {
        if (beam.isEmpty() || tuned) {
            return beam;
        }
        Found best = beam.get(0);
        boolean anew = false;
        for (int pass = 0; pass < PASSES; pass++) {
            boolean looks = anew;
            FmModel from = best.model;
            Stream<FmModel> tried = IntStream.range(0, from.pairs().size())
                    .boxed()
                    .flatMap(i -> looks ? again(from, i) : CarrierReassignment.of(from, i));
            Found next = nearest(tried.toList());
            boolean better = next != null && next.misfit < MUCH * best.misfit;
            if (!better && anew) {
                break;
            }
            best = better ? next : best;
            anew = !better;
        }
        List<Found> out = new ArrayList<>(beam);
        out.set(0, best);
        return out;
    }

    /** One pair looked for anew in what the others leave. */
    private Stream<FmModel> again(FmModel model, int pair) {
        return extended(model.without(pair))
                .parallel()
                .map(m -> ranking.turned(m, m.pairs().size() - 1));
    }

    /** The likeliest refined a little, and the best of them further; null for none. */
    private Found nearest(List<FmModel> tried) {
        return ranked(ranking, tried, LIKELIEST).parallelStream()
                .map(p -> refined(p.model, STEP_ITERATIONS))
                .sorted(Comparator.comparingDouble(Found::misfit))
                .limit(BEAM)
                .toList()
                .parallelStream()
                .map(p -> refined(p.model, BRIEF_ITERATIONS))
                .min(Comparator.comparingDouble(Found::misfit))
                .orElse(null);
    }

    /** By rising misfit, on two threads. */
    private static List<Found> ranked(FmSpectralFit by, List<FmModel> tried, int most) {
        int half = (tried.size() + 1) / 2;
        return Stream.of(tried.subList(0, half), tried.subList(half, tried.size()))
                .parallel()
                .flatMap(some -> {
                    List<Double> misfits = by.misfits(some);
                    return IntStream.range(0, some.size()).mapToObj(i -> new Found(some.get(i), misfits.get(i)));
                })
                .sorted(Comparator.comparingDouble(Found::misfit))
                .limit(most)
                .toList();
    }

    /** The best extensions that differ, refined. */
    private List<Found> best(List<FmModel> tried) {
        List<Found> out = new ArrayList<>();
        List<Found> likely = tried.parallelStream()
                .map(m -> ranking.turned(m, m.pairs().size() - 1))
                .map(m -> new Found(m, coarse.misfit(m)))
                .sorted(Comparator.comparingDouble(Found::misfit))
                .limit(g.isHeld() ? REFINED_HELD : REFINED)
                .toList();
        likely.parallelStream()
                .map(f -> refined(f.model, BRIEF_ITERATIONS))
                .sorted(Comparator.comparingDouble(Found::misfit))
                .forEachOrdered(f -> {
                    boolean known = out.stream().anyMatch(o -> Math.abs(o.misfit / f.misfit - 1) < SAME);
                    if (!known && out.size() < (g.isHeld() ? BEAM - 1 : BEAM)) {
                        out.add(f);
                    }
                });
        return out;
    }

    private Found refined(FmModel from, int iterations) {
        return refined(coarse, from, iterations);
    }

    private static Found refined(FmSpectralFit fit, FmModel from, int iterations) {
        FmModel there = fit.nearest(from, iterations);
        return new Found(there, fit.misfit(there));
    }

    private Stream<FmModel> extended(FmModel model) {
        return proposals.beside(coarse.power(model)).map(model::and);
    }

    /** Fits of the whole note, its beginning or its release included: made once the beam has ended. */
    private final class Refinement {
        private final FmSpectralFit strong;
        private final FmSpectralFit fine; // weak lines count nearly as much as strong ones

        Refinement() {
            NonuniformStft whole = NonuniformStft.of(g.side(), g.movementWithoutTremolo(), g.isHeld());
            strong = fit(whole, false, coarse.gain(), beginning(false));
            fine = fit(whole, true, coarse.gain(), beginning(true));
        }

        private FmSpectralFit beginning(boolean weakToo) {
            return g.isHeld() ? null : fit(NonuniformStft.ofBeginning(g.side()), weakToo, coarse.gain(), null);
        }

        Found strong(FmModel model) {
            return g.isHeld() ? refined(strong, released(model), ITERATIONS) : refined(model, ITERATIONS);
        }

        /**
         * With weak lines. A struck model is also refined from the usual strike noise with the short frames of the beginning: long
         * frames barely resolve the noise, so the tones absorb it otherwise.
         */
        Found fine(FmModel model) {
            Found found = refined(fine, model, ITERATIONS);
            if (!g.isHeld()) {
                FmModel begun = strong.nearest(new FmModel(model.pairs(), NOISE), ITERATIONS);
                Found other = refined(fine, begun, ITERATIONS);
                found = other.misfit < found.misfit ? other : found;
            }
            return judged(fine.plain(found.model));
        }

        Found judged(FmModel model) {
            return new Found(model, fine.misfit(model));
        }

        /** With the releases of level and index of a small grid that leave least over, the same for all pairs. */
        private FmModel released(FmModel model) {
            List<FmModel> tried = new ArrayList<>(List.of(model));
            for (double level : RELEASES) {
                for (double index : RELEASES) {
                    tried.add(new FmModel(
                            model.pairs().stream()
                                    .map(p -> p.withEnvelopes(
                                            p.amplitude().withRelease(level),
                                            p.bend().withRelease(index)))
                                    .toList(),
                            model.noise()));
                }
            }
            List<Double> misfits = strong.misfits(tried);
            return tried.get(misfits.indexOf(Collections.min(misfits)));
        }
    }
}
