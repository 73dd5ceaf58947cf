package nightreed.recipe.size;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import nightreed.recipe.Recipe;
import nightreed.recipe.part.Parameter;
import nightreed.recipe.part.Parameter.Group;
import nightreed.recipe.part.SetValues;
import nightreed.recipe.part.SetValues.SetValue;

/**
 * The fewest values that give a recipe. What is neutral or makes no difference needs none; equal values of a list, and equal
 * envelopes, are set once; what lies on a law of its list is set by the law. Level and tuning of the whole belong to the
 * recording, and how it follows key and strength to the keyboard: neither counts.
 */
public final class FreeValues {
    private FreeValues() {}

    /** Each is one value that is set, laws first, then in the order of the recipe. */
    public static List<FreeValue> of(Recipe recipe) {
        List<SetValue> set = SetValues.of((Record) recipe).stream()
                .filter(v -> counts(v.parameter()))
                .toList();
        Map<String, Double> values = values(recipe);
        Map<String, Parameter> parameters = new HashMap<>();
        set.forEach(v -> parameters.put(v.id(), v.parameter()));
        List<FreeValue> out = new ArrayList<>();
        Set<String> told = new HashSet<>();
        for (Map.Entry<String, List<Integer>> c : columns(set).entrySet()) {
            String list = c.getKey().substring(0, c.getKey().indexOf('.'));
            String component = c.getKey().substring(list.length() + 1);
            int single = (int) set.stream()
                    .filter(v -> v.list().equals(list) && v.component().equals(component))
                    .map(SetValue::tie)
                    .distinct()
                    .count();
            List<FreeValue> law = law(list, component, values, c.getValue(), parameters);
            Set<String> ids = new HashSet<>();
            law.forEach(v -> ids.addAll(v.ids()));
            if (!law.isEmpty() && law.size() + c.getValue().size() - ids.size() < single) {
                out.addAll(law);
                told.addAll(ids);
            }
        }
        Map<String, List<SetValue>> ties = new LinkedHashMap<>();
        set.stream()
                .filter(v -> !told.contains(v.id()))
                .forEach(v ->
                        ties.computeIfAbsent(v.tie(), k -> new ArrayList<>()).add(v));
        ties.values()
                .forEach(t -> out.add(new EqualValues(
                        t.get(0).parameter(), t.stream().map(SetValue::id).toList())));
        return List.copyOf(out);
    }

    private static boolean counts(Parameter p) {
        return p.group() != Group.PLAYING && !p.id().equals("level") && !p.id().equals("tune");
    }

    static Map<String, Double> values(Recipe recipe) {
        Map<String, Double> out = new HashMap<>();
        recipe.settings().forEach(s -> out.put(s.parameter().id(), s.value()));
        return out;
    }

    /** Elements of each list with a value that is set, by list and component. */
    private static Map<String, List<Integer>> columns(List<SetValue> set) {
        Map<String, List<Integer>> out = new LinkedHashMap<>();
        for (SetValue v : set) {
            if (v.element() > 0 && v.id().equals(v.list() + "." + v.element() + "." + v.component())) {
                out.computeIfAbsent(v.list() + "." + v.component(), k -> new ArrayList<>())
                        .add(v.element());
            }
        }
        return out;
    }

    private static List<FreeValue> law(
            String list,
            String component,
            Map<String, Double> values,
            List<Integer> elements,
            Map<String, Parameter> parameters) {
        if (list.equals("mode") && component.equals("ratio")) {
            SeriesLaw.Found series = SeriesLaw.found(values, elements);
            return series == null ? List.of() : series.values(parameters);
        }
        ListLaw.Line best = null;
        for (ListLaw l : ListLaw.values()) {
            ListLaw.Line line = l.isOf(list, component) ? l.found(values, elements, parameters) : null;
            best = line != null
                            && (best == null || line.ids().size() > best.ids().size())
                    ? line
                    : best;
        }
        return best == null ? List.of() : best.values(parameters);
    }
}
