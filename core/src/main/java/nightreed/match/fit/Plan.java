package nightreed.match.fit;

import java.util.List;
import java.util.Set;
import nightreed.recipe.Recipe;

/**
 * What a fit is to keep to.
 *
 * @param recipe  whose locked values stay, and which a fit may go on from; null if there is none
 * @param onward  whether to go on from it, and not begin with what was measured
 * @param locked  values that stay as they are in it, by id
 * @param seconds that a fit may take; infinite for as long as it needs
 */
public record Plan(Recipe recipe, boolean onward, Set<String> locked, double seconds) {
    /** Afresh, nothing locked, as long as it needs. */
    public static final Plan USUAL = new Plan(null, false, Set.of(), Double.POSITIVE_INFINITY);

    public Plan {
        locked = Set.copyOf(locked);
    }

    /** The same with another limit [s]. */
    public Plan within(double limit) {
        return new Plan(recipe, onward, locked, limit);
    }

    /** Afresh, but with some values as they are in a recipe. */
    public Plan keeping(Recipe like, Set<String> ids) {
        return new Plan(like, false, ids, seconds);
    }

    /** On from a recipe, without moving some of its values. */
    public Plan from(Recipe here, Set<String> ids) {
        return new Plan(here, true, ids, seconds);
    }

    /** Another recipe with the locked values as they are. */
    Recipe kept(Recipe other) {
        Recipe r = other;
        for (Recipe.Setting s : recipe == null ? List.<Recipe.Setting>of() : recipe.settings()) {
            String id = s.parameter().id();
            boolean there =
                    r.settings().stream().anyMatch(o -> o.parameter().id().equals(id));
            if (locked.contains(id) && there) {
                r = r.with(id, s.value());
            }
        }
        return r;
    }
}
