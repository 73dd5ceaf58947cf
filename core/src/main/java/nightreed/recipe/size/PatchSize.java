package nightreed.recipe.size;

import nightreed.recipe.FormantRecipe;
import nightreed.recipe.Patch;
import nightreed.recipe.Recipe;
import nightreed.recipe.ResonatorRecipe;

/** How many values a hand has to set to get a recipe. */
public final class PatchSize {
    private PatchSize() {}

    /** Of {@link FreeValues}; each level that is stored from a recording counts as well, since somebody would have to enter it. */
    public static int of(Recipe recipe) {
        return FreeValues.of(recipe).size() + stored(recipe);
    }

    /** Of all layers. */
    public static int of(Patch patch) {
        return patch.layers().stream().mapToInt(l -> of(l.recipe())).sum();
    }

    /** Whether it holds a course or a piece of a recording, which no hand can set. */
    public static boolean followsRecording(Recipe recipe) {
        return stored(recipe) > 0;
    }

    /** Whether any layer does. */
    public static boolean followsRecording(Patch patch) {
        return patch.layers().stream().anyMatch(l -> followsRecording(l.recipe()));
    }

    private static int stored(Recipe recipe) {
        if (recipe instanceof FormantRecipe f) {
            return f.bands().stream().mapToInt(b -> b.pathDb().size()).sum();
        }
        return recipe instanceof ResonatorRecipe r && r.feed() != null
                ? r.feed().samples().length
                : 0;
    }
}
