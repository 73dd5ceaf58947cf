package nightreed.match.fit;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import nightreed.recipe.FmPair;
import nightreed.recipe.FmRecipe;

/**
 * The same pairs with other frequencies, which no walk along slopes leads to: a partial that is missing becomes a sideband of
 * one of them or the carrier of another, and a carrier changes places with one of its own sidebands. Indexes go with it, as
 * another carrier needs another one for much the same lines.
 */
final class FmRewiring {
    /** Indexes that a changed pair is tried with [rad]. */
    private static final double[] INDEXES = {0.4, 1.2, 2.4, 4.5};

    /** Levels under the loudest pair that another carrier is tried with [dB]. */
    private static final double[] LEVELS_DB = {-6, -18, -30};

    /** Index under which sidebands are hardly there [rad]. */
    private static final double BARE = 0.3;

    private static final double LEAST_RATIO = 0.05;
    private static final double MOST_RATIO = 60;
    private static final int STEPS = 2;

    private final FmRecipe recipe;
    private final double f0;
    private final Set<FmRecipe> out = new LinkedHashSet<>();

    private FmRewiring(FmRecipe recipe) {
        this.recipe = recipe;
        this.f0 = recipe.f0Hz();
    }

    /** @param missing frequencies of partials that it has too little of [Hz]; may be empty */
    static List<FmRecipe> of(FmRecipe recipe, List<Double> missing) {
        FmRewiring r = new FmRewiring(recipe);
        for (int p = 1; p <= recipe.pairs().size(); p++) {
            r.carrierAmongSidebands(p);
            r.otherIndexes(p);
            r.otherModulators(p);
        }
        for (double hz : missing) {
            for (int p = 1; p <= recipe.pairs().size(); p++) {
                r.sideband(p, hz);
                r.carrier(p, hz);
            }
            r.another(hz);
        }
        r.out.remove(recipe);
        return new ArrayList<>(r.out);
    }

    /** What the ids of the values of the pair begin with that another recipe has otherwise, such as "pair.2.". */
    static String changed(FmRecipe before, FmRecipe after) {
        int pair = 0;
        while (pair < Math.min(before.pairs().size(), after.pairs().size())
                && before.pairs().get(pair).equals(after.pairs().get(pair))) {
            pair++;
        }
        return "pair." + (pair + 1) + ".";
    }

    private void carrierAmongSidebands(int pair) {
        FmPair p = recipe.pairs().get(pair - 1);
        for (int k = -STEPS; k <= STEPS; k++) {
            double carrier = Math.abs(p.carrierRatio() + k * p.modulatorRatio());
            for (double index : k == 0 ? new double[0] : INDEXES) {
                add(pair, carrier, p.modulatorRatio(), index);
            }
        }
    }

    private void otherIndexes(int pair) {
        FmPair p = recipe.pairs().get(pair - 1);
        for (double index : INDEXES) {
            add(pair, p.carrierRatio(), p.modulatorRatio(), index);
        }
    }

    private void otherModulators(int pair) {
        FmPair p = recipe.pairs().get(pair - 1);
        for (double times : new double[] {0.5, 2, 3, 1.0 / 3}) {
            add(pair, p.carrierRatio(), times * p.modulatorRatio(), p.index());
            add(pair, p.carrierRatio(), times * p.modulatorRatio(), Math.max(BARE, p.index() / 2));
        }
    }

    /** The modulator put where it has one of its first sidebands there. */
    private void sideband(int pair, double hz) {
        FmPair p = recipe.pairs().get(pair - 1);
        double at = hz / f0;
        for (double modulator : new double[] {Math.abs(at - p.carrierRatio()), at + p.carrierRatio()}) {
            for (double index : p.index() < BARE ? new double[] {0.3, 0.9, 2.8} : new double[] {p.index(), BARE}) {
                add(pair, p.carrierRatio(), modulator, index);
            }
        }
    }

    private void carrier(int pair, double hz) {
        FmPair p = recipe.pairs().get(pair - 1);
        add(pair, hz / f0, p.modulatorRatio(), p.index());
        add(pair, hz / f0, p.modulatorRatio(), 0);
    }

    /** One more pair, which begins as a sine. */
    private void another(double hz) {
        List<FmPair> pairs = recipe.pairs();
        if (pairs.size() == FmRecipe.MOST_PAIRS || !isRatio(hz / f0)) {
            return;
        }
        FmPair loudest = pairs.get(0);
        for (FmPair p : pairs) {
            loudest = p.levelDb() > loudest.levelDb() ? p : loudest;
        }
        for (double under : LEVELS_DB) {
            List<FmPair> more = new ArrayList<>(pairs);
            more.add(FmPair.of(
                    Math.max(-60, loudest.levelDb() + under),
                    hz / f0,
                    loudest.modulatorRatio(),
                    0,
                    loudest.amplitude(),
                    loudest.bend()));
            out.add(recipe.withPairs(more));
        }
    }

    private void add(int pair, double carrier, double modulator, double index) {
        if (isRatio(carrier) && isRatio(modulator)) {
            String id = "pair." + pair + ".";
            out.add(recipe.with(id + "carrierRatio", carrier)
                    .with(id + "modulatorRatio", modulator)
                    .with(id + "index", index));
        }
    }

    private static boolean isRatio(double ratio) {
        return ratio > LEAST_RATIO && ratio < MOST_RATIO;
    }
}
