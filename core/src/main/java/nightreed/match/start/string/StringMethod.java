package nightreed.match.start.string;

import java.util.List;
import java.util.Map;
import nightreed.match.start.Anchor;
import nightreed.match.start.Method;
import nightreed.match.start.StartContext;
import nightreed.recipe.Recipe;
import nightreed.recipe.StringRecipe;
import nightreed.recipe.StringRecipe.Drive;

/** A tuned delay loop, plucked, struck or bowed. */
public final class StringMethod extends Method {
    public StringMethod() {
        super("string", StringRecipe.class);
    }

    /** What a search may spend on a bow, whose values all work on each other. */
    private static final double AMOUNT_BOWED = 4300;

    @Override
    public Recipe start(StartContext g) {
        return StringStart.of(g);
    }

    @Override
    public List<? extends Recipe> starts(StartContext g, boolean brief) {
        return StringStart.several(g);
    }

    /** Other strikes are among its starts. */
    @Override
    public boolean triesStrikeNoise() {
        return false;
    }

    @Override
    public double amount(boolean held) {
        return held ? AMOUNT_BOWED : super.amount(false);
    }

    @Override
    public double costPerSecond(Recipe recipe, double fs) {
        return ((StringRecipe) recipe).bow() != null ? 3.4 : 1.9;
    }

    @Override
    protected boolean believesStrikeNoise() {
        return false;
    }

    @Override
    public Map<String, Anchor> anchors(Recipe recipe) {
        Map<String, Anchor> out = super.anchors(recipe);
        StringRecipe r = (StringRecipe) recipe;
        if (r.drive() == Drive.FRICTION && r.bow() != null) {
            out.put("bow.noise", noise(r.bow().noiseDb()));
        }
        return out;
    }

    @Override
    public String needs(Recipe recipe) {
        return ((StringRecipe) recipe).second() == null ? "one loop" : "two loops";
    }

    @Override
    public String whyPartials() {
        return "A loop's partials follow from pluck point and strike, not one by one.";
    }

    @Override
    public String whyDecays() {
        return "One law, falling with frequency, holds for all partials of a loop.";
    }
}
