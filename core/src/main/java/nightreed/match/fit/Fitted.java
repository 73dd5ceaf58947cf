package nightreed.match.fit;

import nightreed.match.compare.Comparison;
import nightreed.recipe.Recipe;
import nightreed.sound.Clip;

/**
 * What a fit found.
 *
 * @param imitation  rendered as long, as loud and from the same onset as the recording
 * @param comparison recording against imitation
 * @param measured   whether the imitation was measured afresh for it; otherwise it is what the search itself heard, aspect by
 *                   aspect, since there was no time to measure
 * @param seconds    time it took [s]
 */
public record Fitted(Recipe recipe, Clip imitation, Comparison comparison, boolean measured, double seconds) {
    public String method() {
        return recipe.method();
    }
}
