package nightreed.match.fit;

import java.util.ArrayList;
import java.util.List;
import nightreed.recipe.Recipe;
import nightreed.recipe.part.Parameter;

/**
 * Variants of a recipe whose tones begin a little later and rise faster or slower. Spectral frames resolve a rise no finer than their
 * window, and tones need not begin with the strike noise.
 */
final class OnsetVariants {
    private static final double[] LATE_SECONDS = {0, 0.005, 0.012};
    private static final double[] RISES = {0.5, 1, 2};

    private OnsetVariants() {}

    /** The recipe itself is not among them; none where it has no such values. */
    static List<Recipe> of(Recipe recipe) {
        List<Recipe> out = new ArrayList<>();
        for (double late : LATE_SECONDS) {
            for (double rise : RISES) {
                Recipe r = changed(recipe, late, rise);
                if (!r.equals(recipe)) {
                    out.add(r);
                }
            }
        }
        return out;
    }

    private static Recipe changed(Recipe recipe, double late, double rise) {
        Recipe r = recipe;
        for (Recipe.Setting s : recipe.settings()) {
            Parameter p = s.parameter();
            if (ends(p, "amp.delay")) {
                r = r.with(p.id(), p.clamp(s.value() + late));
            } else if (ends(p, "amp.attack")) {
                r = r.with(p.id(), p.clamp(s.value() * rise));
            }
        }
        return r;
    }

    private static boolean ends(Parameter p, String id) {
        return p.id().equals(id) || p.id().endsWith("." + id);
    }
}
