package nightreed.match.fit;

import nightreed.match.method.Methods;
import nightreed.recipe.Recipe;

/**
 * What renders and listening take, so that a search by a slow method makes fewer of them. The unit is what a second of the
 * plainest sound takes, about 2.5 ms on the machine that the shares were measured on.
 */
final class RenderCost {
    /** Of listening: of any sound, and of each second of it. */
    private static final double LISTENING = 0.2;

    private static final double LISTENING_PER_SECOND = 0.35;

    private RenderCost() {}

    /**
     * Of one render that is listened to.
     *
     * @param seconds that are rendered
     * @param fs      sample rate [Hz]
     */
    static double of(Recipe recipe, double seconds, double fs) {
        return LISTENING + seconds * (LISTENING_PER_SECOND + Methods.of(recipe).costPerSecond(recipe, fs));
    }
}
