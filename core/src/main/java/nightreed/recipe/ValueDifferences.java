package nightreed.recipe;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import nightreed.recipe.part.Parameter;

/** What differs between two recipes, value by value as people read them. */
public final class ValueDifferences {
    private static final String NOT_THERE = "–";

    private ValueDifferences() {}

    /**
     * A value that differs.
     *
     * @param name   what people call it
     * @param before with its unit; a dash where the one does not have it
     * @param after  likewise in the other
     */
    public record Difference(String name, String before, String after) {}

    private record Far(Difference difference, double distance) {}

    /** Those that differ most on their rulers first, those that only one has last. */
    public static List<Difference> of(Recipe a, Recipe b) {
        Map<String, Recipe.Setting> there = new TreeMap<>();
        b.settings().forEach(s -> there.put(s.parameter().id(), s));
        List<Far> both = new ArrayList<>();
        List<Difference> one = new ArrayList<>();
        for (Recipe.Setting s : a.settings()) {
            Parameter p = s.parameter();
            String value = p.formatWithUnit(s.value());
            Recipe.Setting other = there.remove(p.id());
            if (other == null) {
                one.add(new Difference(p.name(), value, NOT_THERE));
            } else if (!value.equals(p.formatWithUnit(other.value()))) {
                both.add(new Far(
                        new Difference(p.name(), value, p.formatWithUnit(other.value())),
                        Math.abs(p.position(s.value()) - p.position(other.value()))));
            }
        }
        both.sort(Comparator.comparingDouble(v -> -v.distance));
        List<Difference> out =
                new ArrayList<>(both.stream().map(Far::difference).toList());
        out.addAll(one);
        there.values()
                .forEach(s -> out.add(new Difference(
                        s.parameter().name(), NOT_THERE, s.parameter().formatWithUnit(s.value()))));
        return out;
    }
}
