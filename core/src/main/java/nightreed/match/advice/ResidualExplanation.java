package nightreed.match.advice;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import nightreed.match.compare.Comparison;
import nightreed.match.compare.PartialDifference;
import nightreed.match.hearing.Aspect;
import nightreed.match.method.Methods;
import nightreed.recipe.Recipe;

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
                    case DECAYS -> Methods.of(recipe).whyDecays();
                    case NOISE -> "Noise here has one colour and one decay; the recording's is more uneven.";
                    case ATTACK -> "The rise has one bend; the recording comes in by stages.";
                    case BRIGHTNESS -> Methods.of(recipe).whyBrightness();
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
        return where + Methods.of(recipe).whyPartials();
    }
}
