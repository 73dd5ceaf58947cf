package nightreed.match.fit;

import nightreed.match.Comparison;
import nightreed.recipe.Recipe;
import nightreed.sound.Clip;

/**
 * What a fit found.
 *
 * @param imitation  rendered as long, as loud and from the same onset as the recording
 * @param comparison recording against imitation, the imitation measured afresh
 * @param seconds    time it took [s]
 */
public record Fitted(Recipe recipe, Clip imitation, Comparison comparison, double seconds) {
    public String method() {
        return recipe.method();
    }
}
