package nightreed.match.start.subtractive;

import java.util.List;
import java.util.Map;
import nightreed.match.start.Anchor;
import nightreed.match.start.Method;
import nightreed.match.start.StartContext;
import nightreed.recipe.Recipe;
import nightreed.recipe.SubtractiveRecipe;

/** Oscillators through a filter. */
public final class SubtractiveMethod extends Method {
    public SubtractiveMethod() {
        super("subtractive", SubtractiveRecipe.class);
    }

    @Override
    public Recipe start(StartContext g) {
        return SubtractiveStart.of(g);
    }

    @Override
    public List<? extends Recipe> starts(StartContext g, boolean brief) {
        return SubtractiveStart.several(g);
    }

    @Override
    public boolean computesStarts(boolean held) {
        return held;
    }

    @Override
    public double costPerSecond(Recipe recipe, double fs) {
        return 1.7;
    }

    @Override
    public Map<String, Anchor> anchors(Recipe recipe) {
        Map<String, Anchor> out = super.anchors(recipe);
        SubtractiveRecipe r = (SubtractiveRecipe) recipe;
        if (r.breath() != null) {
            out.put("breath.level", noise(r.breath().levelDb()));
        }
        return out;
    }
}
