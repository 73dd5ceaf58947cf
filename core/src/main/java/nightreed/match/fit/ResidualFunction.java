package nightreed.match.fit;

import nightreed.recipe.Recipe;

/** Plays a recipe and tells how it differs from what was recorded; may be asked by several threads. */
public interface ResidualFunction {
    /** Differences in JND times the root of their weight; as many for every recipe. */
    double[] differences(Recipe recipe);

    /** What an answer costs; in a unit that is the same for all recipes. */
    double cost(Recipe recipe);
}
