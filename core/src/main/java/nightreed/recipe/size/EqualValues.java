package nightreed.recipe.size;

import java.util.List;
import nightreed.recipe.Recipe;
import nightreed.recipe.part.Parameter;

/** One value, or several that are equal and stay so. */
public record EqualValues(Parameter parameter, List<String> ids) implements FreeValue {
    public EqualValues {
        ids = List.copyOf(ids);
    }

    public static EqualValues one(Parameter parameter) {
        return new EqualValues(parameter, List.of(parameter.id()));
    }

    @Override
    public double value(Recipe recipe) {
        return recipe.value(ids.get(0));
    }

    @Override
    public Recipe with(Recipe recipe, double value) {
        Recipe r = recipe;
        for (String id : ids) {
            r = r.with(id, value);
        }
        return r;
    }
}
