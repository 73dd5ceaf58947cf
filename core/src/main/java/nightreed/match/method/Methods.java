package nightreed.match.method;

import java.util.List;
import nightreed.match.start.Method;
import nightreed.match.start.fm.FmMethod;
import nightreed.match.start.formant.FormantMethod;
import nightreed.match.start.resonator.ResonatorMethod;
import nightreed.match.start.ring.RingMethod;
import nightreed.match.start.string.StringMethod;
import nightreed.match.start.subtractive.SubtractiveMethod;
import nightreed.recipe.Recipe;

/** All methods there are: the only list of them. */
public final class Methods {
    /** In the order they are offered. */
    public static final List<Method> ALL = List.of(
            new ResonatorMethod(),
            new FmMethod(),
            new RingMethod(),
            new FormantMethod(),
            new StringMethod(),
            new SubtractiveMethod());

    private Methods() {}

    /** @throws IllegalArgumentException if there is no such method */
    public static Method of(String id) {
        return ALL.stream()
                .filter(m -> m.id().equals(id))
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException("there is no method '" + id + "'; there is: "
                        + String.join(", ", ALL.stream().map(Method::id).toList())));
    }

    /** The method that a recipe is of. */
    public static Method of(Recipe recipe) {
        return of(recipe.method());
    }
}
