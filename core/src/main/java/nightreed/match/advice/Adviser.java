package nightreed.match.advice;

import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import nightreed.match.compare.Comparison;
import nightreed.match.fit.Fitted;
import nightreed.match.hearing.Use;
import nightreed.match.method.Methods;
import nightreed.recipe.Recipe;

/** Which method came how near, what it is good enough for, and what it takes. */
public final class Adviser {
    private Adviser() {}

    /**
     * A result among others.
     *
     * @param fitted what came out
     * @param why    how good it is and what it takes, in plain words
     */
    public record Ranked(Fitted fitted, String why) {}

    /** Results by rising distance. */
    public static List<Ranked> after(List<Fitted> results) {
        return results.stream()
                .sorted(Comparator.comparingDouble((Fitted f) -> f.comparison().totalJnd()))
                .map(f -> new Ranked(f, why(f)))
                .toList();
    }

    private static String why(Fitted f) {
        Comparison c = f.comparison();
        String left = c.withinHearing()
                ? "no aspect would be noticed"
                : String.format(
                        Locale.ROOT, "%s is heard first (%.1f JND)", c.worst().title(), c.worstJnd());
        return use(c) + ": " + left + "; " + cost(f.recipe());
    }

    /** For which use a match is good enough. */
    public static String use(Comparison c) {
        if (c.withinHearing()) {
            return "good enough alone";
        }
        if (c.totalJnd() <= Use.ALONE.mostJnd()) {
            return "good enough in an exposed part";
        }
        if (c.totalJnd() <= Use.AMONG_OTHERS.mostJnd()) {
            return "good enough among other instruments";
        }
        return c.totalJnd() <= Use.BACKGROUND.mostJnd() ? "good enough in the background" : "heard as another sound";
    }

    /** What a machine needs for a recipe. Envelopes that are alike count once. */
    public static String cost(Recipe recipe) {
        return Methods.of(recipe).needs(recipe);
    }
}
