package nightreed.match.fit;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import nightreed.match.compare.Comparison;
import nightreed.match.compare.PartialDifference;
import nightreed.match.hearing.Aspect;
import nightreed.recipe.FmRecipe;
import nightreed.recipe.FormantRecipe;
import nightreed.recipe.Recipe;
import nightreed.recipe.ResonatorRecipe;
import nightreed.recipe.RingRecipe;
import nightreed.recipe.StringRecipe;

/** Why an imitation comes no closer: what is left, and what of it the method has no means for. */
public final class ResidualExplanation {
    private static final double HEARD = 1;

    private ResidualExplanation() {}

    /** Plain sentences with numbers, the most audible thing first; never empty. */
    public static List<String> of(Recipe recipe, Comparison c) {
        List<String> out = new ArrayList<>();
        if (c.withinHearing()) {
            return List.of("Nothing that a listener would notice.");
        }
        for (Aspect a : c.worstFirst()) {
            if (c.jnd(a) > HEARD && out.size() < 3) {
                out.add(sentence(a, recipe, c));
            }
        }
        return List.copyOf(out);
    }

    private static String sentence(Aspect a, Recipe recipe, Comparison c) {
        String left = String.format(Locale.ROOT, "%.1f JND left in the %s. ", c.jnd(a), a.title());
        return left
                + switch (a) {
                    case PARTIALS -> partials(recipe, c);
                    case DECAYS -> decays(recipe);
                    case NOISE -> "Noise here has one colour and one decay; the recording's is more uneven.";
                    case ATTACK -> "The rise has one bend; the recording comes in by stages.";
                    case BRIGHTNESS ->
                        recipe instanceof ResonatorRecipe || recipe instanceof FormantRecipe
                                ? "It follows from partials and noise: what is left there is left here."
                                : "One envelope moves the brightness; the recording's path has more turns.";
                    case LOUDNESS -> "The level follows one course; the recording's has more turns.";
                    case MOVEMENT -> "LFOs swing evenly; a player does not.";
                    case PITCH -> "The partials do not agree on the recording's pitch.";
                };
    }

    private static String partials(Recipe recipe, Comparison c) {
        long wrong = c.partials().stream().filter(d -> d.heardJnd() > HEARD).count();
        PartialDifference worst = c.partials().stream()
                .max((x, y) -> Double.compare(x.heardJnd(), y.heardJnd()))
                .orElse(null);
        String where = worst == null
                ? ""
                : String.format(
                        Locale.ROOT,
                        "%d partials are heard to differ, most the one at %.0f Hz (%.1f dB). ",
                        wrong,
                        worst.either().frequencyHz(),
                        worst.levelDb());
        if (recipe instanceof FmRecipe) {
            return where + "Levels of sidebands are tied to each other by the index.";
        }
        if (recipe instanceof RingRecipe) {
            return where + "A product has sums and differences only, in equal pairs.";
        }
        if (recipe instanceof StringRecipe) {
            return where + "A loop's partials follow from pluck point and strike, not one by one.";
        }
        if (recipe instanceof FormantRecipe) {
            return where + "Partials in one band share its level.";
        }
        return recipe instanceof ResonatorRecipe
                ? where + "More modes, or levels nearer to them, would carry these."
                : where + "One wave and one filter set all of them.";
    }

    private static String decays(Recipe recipe) {
        if (recipe instanceof ResonatorRecipe) {
            return "Each mode dies by one law; some of the recording's partials die in two stages.";
        }
        return recipe instanceof StringRecipe
                ? "One law, falling with frequency, holds for all partials of a loop."
                : "Partials share envelopes here; the recording's each die at their own pace.";
    }
}
