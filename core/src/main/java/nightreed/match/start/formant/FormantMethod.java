package nightreed.match.start.formant;

import java.util.List;
import nightreed.match.start.Method;
import nightreed.match.start.StartContext;
import nightreed.recipe.FormantRecipe;
import nightreed.recipe.FormantRecipe.Bank;
import nightreed.recipe.Recipe;

/** Pulse and noise through a bank of bands. */
public final class FormantMethod extends Method {
    public FormantMethod() {
        super("formant", FormantRecipe.class);
    }

    @Override
    public boolean needsPitch() {
        return false; // bands of noise need none
    }

    @Override
    public Recipe start(StartContext g) {
        return FormantStart.of(g);
    }

    @Override
    public List<? extends Recipe> starts(StartContext g, boolean brief) {
        return FormantStart.several(g);
    }

    @Override
    public boolean isOpen() {
        return false;
    }

    /** It begins so near that more gains little. */
    @Override
    public double amount(boolean held) {
        return 1650;
    }

    @Override
    public double costPerSecond(Recipe recipe, double fs) {
        return 7.5;
    }

    private static boolean isSideBySide(Recipe recipe) {
        return ((FormantRecipe) recipe).bank() == Bank.SIDE_BY_SIDE;
    }

    /** Levels of bands side by side are set band by band, from what each lacks. */
    @Override
    public List<List<String>> stages(Recipe recipe) {
        return isSideBySide(recipe)
                ? List.of(searched(recipe).stream()
                        .filter(v -> v.endsWith(".noiseShare")
                                || v.endsWith(".amp.attack")
                                || v.endsWith(".amp.decay")
                                || v.startsWith("noise")
                                || v.startsWith("exciter"))
                        .toList())
                : super.stages(recipe);
    }

    /** Not for the places of bands side by side. */
    @Override
    public List<String> advised(Recipe recipe) {
        return isSideBySide(recipe)
                ? searched(recipe).stream()
                        .filter(v -> !v.endsWith(".centre") && !v.endsWith(".width"))
                        .toList()
                : super.advised(recipe);
    }

    @Override
    public String needs(Recipe recipe) {
        FormantRecipe r = (FormantRecipe) recipe;
        long following = r.bands().stream().filter(b -> !b.pathDb().isEmpty()).count();
        return many(r.bands().size(), "band")
                + (following > 0 ? ", " + following + " of them following" : ", " + envelopes(recipe));
    }

    @Override
    public String whyPartials() {
        return "Partials in one band share its level.";
    }

    @Override
    public String whyBrightness() {
        return "It follows from partials and noise: what is left there is left here.";
    }
}
