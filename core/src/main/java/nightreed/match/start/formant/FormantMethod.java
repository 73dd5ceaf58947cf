package nightreed.match.start.formant;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import nightreed.match.start.Method;
import nightreed.match.start.StartContext;
import nightreed.recipe.FormantRecipe;
import nightreed.recipe.FormantRecipe.Bank;
import nightreed.recipe.Recipe;
import nightreed.recipe.size.EqualValues;
import nightreed.recipe.size.FreeValue;
import nightreed.recipe.size.FreeValues;

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

    /** A second of it costs as much as several of others, and it begins near. */
    @Override
    public double amount(boolean held) {
        return 4000;
    }

    @Override
    public double costPerSecond(Recipe recipe, double fs) {
        return 7.5;
    }

    private static boolean isSideBySide(Recipe recipe) {
        return ((FormantRecipe) recipe).bank() == Bank.SIDE_BY_SIDE;
    }

    /** Bands side by side stay where they are. Levels of those that follow are set band by band, from what each lacks. */
    @Override
    public List<List<String>> stages(Recipe recipe) {
        if (!isSideBySide(recipe)) {
            return super.stages(recipe);
        }
        List<String> moved = searched(recipe).stream()
                .filter(v -> v.endsWith(".noiseShare")
                        || v.endsWith(".amp.attack")
                        || v.endsWith(".amp.decay")
                        || v.endsWith(".amp.sustain")
                        || v.startsWith("noise")
                        || v.startsWith("exciter"))
                .toList();
        return List.of(moved);
    }

    /** Bands that share an envelope go on sharing it. */
    @Override
    public List<FreeValue> together(Recipe recipe, List<String> ids) {
        List<FreeValue> out = new ArrayList<>();
        Set<String> tied = new HashSet<>();
        for (FreeValue v : FreeValues.of(recipe)) {
            if (v instanceof EqualValues && v.ids().size() > 1 && v.id().contains(".amp.") && ids.contains(v.id())) {
                out.add(v);
                tied.addAll(v.ids());
            }
        }
        List<String> rest = ids.stream().filter(id -> !tied.contains(id)).toList();
        out.addAll(super.together(recipe, rest));
        return out;
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
