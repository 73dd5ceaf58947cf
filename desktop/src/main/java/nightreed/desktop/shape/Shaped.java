package nightreed.desktop.shape;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import nightreed.recipe.Recipe;
import nightreed.recipe.part.Parameter;

/** The values of one part of a recipe, by their last word. */
final class Shaped {
    private final Map<String, Parameter> parameters = new HashMap<>();
    private final ValueMoved changed;

    /** @param prefix id of the part with a point behind it; empty if its values have ids of their own */
    Shaped(List<Recipe.Setting> all, String prefix, ValueMoved changed) {
        this.changed = changed;
        for (Recipe.Setting s : all) {
            String id = s.parameter().id();
            if (id.startsWith(prefix)) {
                parameters.put(id.substring(prefix.length()), s.parameter());
            }
        }
    }

    void set(String word, double value, boolean settled) {
        Parameter p = parameters.get(word);
        if (p != null && Double.isFinite(value)) {
            changed.to(p, p.clamp(value), settled);
        }
    }

    boolean has(String word) {
        return parameters.containsKey(word);
    }

    /** A value in words, such as "attack 0.0020 s". */
    String say(String word, double value) {
        Parameter p = parameters.get(word);
        return p == null ? "" : p.name() + " " + p.formatWithUnit(value);
    }
}
