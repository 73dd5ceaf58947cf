package nightreed.recipe.size;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.UnaryOperator;
import nightreed.measure.law.ModelSeries;
import nightreed.recipe.Recipe;
import nightreed.recipe.part.Structure;

/** Values of lists put on laws. */
public final class ListLaws {
    /** Ratios that lie so near those of a body are put there [cents]: makers' tuning first, then what bodies stray. */
    private static final double[] NEAR_CENTS = {5, 15, 50};

    /** Shares of a list that may be left out of a law. */
    private static final double[] LEFT_OUT = {0, 0.15, 0.35};

    private ListLaws() {}

    /**
     * One way to put the values of a column of a list on a law.
     *
     * @param column such as {@code mode.t60}
     * @param title  what the law is called
     * @param whole  whether no element is left out that could follow it
     */
    public record Put(String column, String title, boolean whole, UnaryOperator<Recipe> on) {}

    /** All ways for a recipe. Louder elements count more where a line is laid. */
    public static List<Put> puts(Recipe recipe) {
        Map<String, Double> values = FreeValues.values(recipe);
        List<Put> out = new ArrayList<>();
        for (Structure.Listed l : recipe.lists()) {
            List<Integer> elements = new ArrayList<>();
            for (int k = 1; k <= l.size(); k++) {
                elements.add(k);
            }
            if (elements.size() < ListLaw.LEAST + 1) {
                continue;
            }
            double[] weights = elements.stream()
                    .mapToDouble(k -> weight(values.get(l.id() + "." + k + ".level")))
                    .toArray();
            for (ListLaw law : ListLaw.values()) {
                for (double share : LEFT_OUT) {
                    int left = (int) Math.round(share * elements.size());
                    if (law.isOf(l.id()) && (left > 0 || share == 0)) {
                        out.add(new Put(
                                law.column(),
                                law.title(),
                                left == 0,
                                r -> orSame(law.put(r, values, elements, weights, left), r)));
                    }
                }
            }
            if (l.id().equals("mode")) {
                out.addAll(series(values, elements));
            }
        }
        return out;
    }

    private static List<Put> series(Map<String, Double> values, List<Integer> elements) {
        Map<String, String> bodies = new LinkedHashMap<>(); // null for a stiff string
        ModelSeries.all().forEach(s -> bodies.put(s.name(), s.name()));
        bodies.put(SeriesLaw.STRING, null);
        List<Put> out = new ArrayList<>();
        bodies.forEach((name, body) -> {
            for (double cents : NEAR_CENTS) {
                out.add(new Put(
                        "mode.ratio",
                        "ratios of a " + name,
                        cents == NEAR_CENTS[NEAR_CENTS.length - 1],
                        r -> orSame(SeriesLaw.put(r, values, elements, body, cents), r)));
            }
        });
        return out;
    }

    private static Recipe orSame(Recipe put, Recipe was) {
        return put == null ? was : put;
    }

    private static double weight(Double levelDb) {
        return levelDb == null ? 1 : Math.max(0.02, 1 + levelDb / 50);
    }
}
