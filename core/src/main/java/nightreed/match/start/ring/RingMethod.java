package nightreed.match.start.ring;

import java.util.List;
import nightreed.match.start.Method;
import nightreed.match.start.StartContext;
import nightreed.recipe.Recipe;
import nightreed.recipe.RingRecipe;

/** Two oscillators multiplied. */
public final class RingMethod extends Method {
    public RingMethod() {
        super("ring", RingRecipe.class);
    }

    /** Recipes that a search begins with; chosen. */
    private static final int STARTS = 10;

    @Override
    public Recipe start(StartContext g) {
        return RingStart.of(g);
    }

    @Override
    public List<? extends Recipe> starts(StartContext g, boolean brief) {
        return RingStart.several(g, STARTS);
    }

    @Override
    public double costPerSecond(Recipe recipe, double fs) {
        return 2.5;
    }

    @Override
    public String whyPartials() {
        return "A product has sums and differences only, in equal pairs.";
    }
}
