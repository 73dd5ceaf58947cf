package nightreed.project;

import nightreed.recipe.Patch;
import nightreed.recipe.Recipe;

/**
 * A recipe that was kept, with how close it was.
 *
 * @param id       row
 * @param name     what was done
 * @param note     what its maker thought of it
 * @param at       when, ISO 8601
 * @param totalJnd distance then [JND]
 * @param worst    aspect that stood out most then, null if it was not noted
 * @param worstJnd its distance [JND], null likewise
 * @param picture  what it looked like, null likewise
 * @param patch    the recipe, and what sounds under it
 */
public record Take(
        long id,
        String name,
        String note,
        String at,
        double totalJnd,
        String worst,
        Double worstJnd,
        TakePicture picture,
        Patch patch) {
    public Recipe recipe() {
        return patch.first();
    }
}
