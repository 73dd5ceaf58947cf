package nightreed.match.start;

import java.util.List;
import nightreed.recipe.Recipe;

/**
 * A recipe to begin with.
 *
 * @param recipe  what sounds
 * @param origins where its values come from; a value that is not named here is a usual one
 */
public record Start(Recipe recipe, List<Origin> origins) {
    public Start {
        origins = List.copyOf(origins);
    }

    /**
     * Where a value comes from.
     *
     * @param parameterId its id, or the beginning of the ids of several
     * @param measured    whether it was measured or computed from what was; otherwise it is a usual value
     * @param why         in a few words
     */
    public record Origin(String parameterId, boolean measured, String why) {}

    /** Origin of a value; null if it is a usual one that nothing needs to be said about. */
    public Origin originOf(String parameterId) {
        Origin best = null;
        for (Origin o : origins) {
            boolean fits = parameterId.equals(o.parameterId()) || parameterId.startsWith(o.parameterId() + ".");
            if (fits
                    && (best == null
                            || o.parameterId().length() > best.parameterId().length())) {
                best = o;
            }
        }
        return best;
    }
}
