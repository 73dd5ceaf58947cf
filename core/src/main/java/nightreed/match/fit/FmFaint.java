package nightreed.match.fit;

import java.util.ArrayList;
import java.util.List;
import nightreed.measure.Measurement;
import nightreed.measure.Partial;
import nightreed.recipe.FmPair;
import nightreed.recipe.FmRecipe;
import nightreed.recipe.part.Envelope;

/**
 * Partials so weak that a walk by spectra does not feel them, made the sidebands of pairs that are hardly modulated, or a pair
 * of their own: the first sideband of a small index is half of it times the carrier (J. Chowning, 1973), and where it dies
 * sooner than its carrier the index falls as much faster. So both are told and need not be looked for.
 */
final class FmFaint {
    /** Index under which a pair has no sidebands that would be lost [rad]. */
    private static final double BARE = 0.12;

    /** Index up to which the first sideband alone counts [rad]. */
    private static final double MOST_INDEX = 0.6;

    /** How far a partial may lie off and be the one that is meant. */
    private static final double NEAR = 0.004;

    private static final double LEAST_RATIO = 0.05;
    private static final double MOST_RATIO = 60;
    private static final double LEAST_DB = -79;
    private static final double MOST_DB = 6;

    /** T60 of an index that hardly falls [s]. */
    private static final double SLOW_SECONDS = 40;

    private FmFaint() {}

    /** @param missing partials that a recipe has too little of [Hz] */
    static List<FmRecipe> of(FmRecipe recipe, Measurement measured, List<Double> missing) {
        List<FmRecipe> out = new ArrayList<>();
        for (double hz : missing) {
            Partial weak = near(measured, hz);
            for (int i = 0; weak != null && i < recipe.pairs().size(); i++) {
                FmPair pair = recipe.pairs().get(i);
                Partial carrier = near(measured, pair.carrierRatio() * recipe.f0Hz());
                if (carrier == null || carrier == weak) {
                    continue;
                }
                if (pair.index() < BARE) {
                    out.addAll(sidebands(recipe, i, carrier, weak));
                }
                double level = pair.levelDb() + 20 * Math.log10(weak.amplitude() / carrier.amplitude());
                double ratio = weak.frequencyHz() / recipe.f0Hz();
                boolean playable = level > LEAST_DB && level < MOST_DB && ratio > LEAST_RATIO && ratio < MOST_RATIO;
                if (recipe.pairs().size() < FmRecipe.MOST_PAIRS && playable) {
                    out.add(another(recipe, pair, level, weak));
                }
            }
        }
        return out;
    }

    private static Partial near(Measurement m, double hz) {
        Partial best = null;
        for (Partial p : m.partials()) {
            double off = Math.abs(p.frequencyHz() / hz - 1);
            boolean nearer = best == null || off < Math.abs(best.frequencyHz() / hz - 1);
            best = off < NEAR && nearer ? p : best;
        }
        return best;
    }

    private static List<FmRecipe> sidebands(FmRecipe recipe, int i, Partial carrier, Partial weak) {
        FmPair pair = recipe.pairs().get(i);
        double index = 2 * weak.amplitude() / carrier.amplitude();
        List<FmRecipe> out = new ArrayList<>();
        double at = weak.frequencyHz() / recipe.f0Hz();
        for (double modulator : new double[] {Math.abs(at - pair.carrierRatio()), at + pair.carrierRatio()}) {
            if (index < MOST_INDEX && modulator > LEAST_RATIO && modulator < MOST_RATIO) {
                out.add(with(
                        recipe,
                        i,
                        pair.with(pair.carrierRatio(), modulator, index)
                                .withFeedback(0)
                                .withEnvelopes(pair.amplitude(), course(carrier, weak, pair.bend()))));
            }
        }
        return out;
    }

    /** Of an index with which a sideband falls as it does while its carrier falls by itself. */
    private static Envelope course(Partial carrier, Partial weak, Envelope like) {
        if (carrier.t60Seconds() == null || weak.t60Seconds() == null) {
            return Envelope.held(0, like.releaseSeconds());
        }
        double pace = 1 / weak.t60Seconds() - 1 / carrier.t60Seconds();
        return Envelope.struck(0, 1 / Math.max(1 / SLOW_SECONDS, pace), like.releaseSeconds());
    }

    private static FmRecipe another(FmRecipe recipe, FmPair beside, double level, Partial weak) {
        Envelope course = weak.t60Seconds() == null
                ? beside.amplitude()
                : Envelope.struck(
                        beside.amplitude().attackSeconds(),
                        weak.t60Seconds(),
                        beside.amplitude().releaseSeconds());
        List<FmPair> more = new ArrayList<>(recipe.pairs());
        more.add(FmPair.of(
                level,
                weak.frequencyHz() / recipe.f0Hz(),
                beside.modulatorRatio(),
                0,
                course,
                Envelope.held(0, beside.bend().releaseSeconds())));
        return recipe.withPairs(more);
    }

    private static FmRecipe with(FmRecipe recipe, int i, FmPair pair) {
        List<FmPair> pairs = new ArrayList<>(recipe.pairs());
        pairs.set(i, pair);
        return recipe.withPairs(pairs);
    }
}
