package nightreed.match.fit;

import nightreed.music.Pitch;
import nightreed.recipe.FmPair;
import nightreed.recipe.FmRecipe;
import nightreed.recipe.Recipe;
import nightreed.voice.fm.Sidebands;

/** What renders take, so that a search by a slow method makes fewer of them. */
final class RenderCost {
    private RenderCost() {}

    /**
     * Time that a second of a method takes to render, against that of the plainest; for resonators, which begin so near that
     * more renders gain little, what keeps their search as short as it was.
     */
    static double of(Recipe recipe, double fs) {
        return switch (recipe.method()) {
            case "formant" -> 6;
            case "ring" -> 2.2;
            case "resonators" -> 2;
            case "fm" -> modulated((FmRecipe) recipe, fs);
            default -> 1;
        };
    }

    /** A pair whose sidebands reach far is computed at a multiple of the rate. */
    private static double modulated(FmRecipe recipe, double fs) {
        double f0 = Pitch.hz(recipe.key());
        double top = 0;
        for (FmPair p : recipe.pairs()) {
            top = Math.max(top, Sidebands.topHz(f0 * p.carrierRatio(), f0 * p.modulatorRatio(), p.index()));
        }
        double times = Math.min(8, Math.pow(2, Math.ceil(Math.max(0, Math.log(top / 0.45 / fs) / Math.log(2)))));
        return 0.9 + 0.32 * times * recipe.pairs().size();
    }
}
