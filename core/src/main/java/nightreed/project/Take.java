package nightreed.project;

import java.util.Locale;
import nightreed.recipe.Patch;
import nightreed.recipe.Recipe;

/**
 * A recipe that was kept, with how close it was.
 *
 * @param id       row
 * @param name     what was done
 * @param note     what its maker thought of it
 * @param at       when, ISO 8601
 * @param totalJnd distance then [JND]; below 0 if there was no recording
 * @param worst    aspect that stood out most then, null if it was not noted
 * @param worstJnd its distance [JND], null likewise
 * @param picture  what it looked like, null likewise
 * @param patch    all that sounded
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
    /** The distance of a take that there was no recording for. */
    static final double NOT_COMPARED = -1;

    public boolean isCompared() {
        return totalJnd >= 0;
    }

    /** Its distance with the unit, or a word where there was nothing to be near to. */
    public String distance() {
        return isCompared() ? String.format(Locale.ROOT, "%.2f JND", totalJnd) : "by itself";
    }

    public Recipe recipe() {
        return patch.first();
    }
}
