package nightreed.desktop.stage.build;

import java.util.function.Supplier;
import nightreed.desktop.ruler.Ruler;
import nightreed.desktop.workspace.Workspace;
import nightreed.recipe.MacroValues;
import nightreed.recipe.Recipe;
import nightreed.recipe.part.Parameter;

/** Rulers of values that are not a recipe's own, such as the ends of a macro. */
final class BoundRuler {
    private BoundRuler() {}

    /** What a moved ruler does. */
    interface Setter {
        /** @param settled whether this is where the value stays */
        void set(double value, boolean settled);
    }

    /** @param now value that the bench has, null if it is gone */
    static Ruler of(Parameter p, Supplier<Double> now, Setter setter) {
        Ruler ruler = new Ruler(p);
        ruler.valueProperty().addListener((o, was, v) -> {
            Double there = now.get();
            if (there != null && there != ruler.getValue()) {
                setter.set(ruler.getValue(), !ruler.isValueChanging());
            }
        });
        ruler.valueChangingProperty().addListener((o, was, changing) -> {
            if (!changing) {
                setter.set(ruler.getValue(), true);
            }
        });
        return ruler;
    }

    /** An end or a bend of a macro of the recipe that is shaped. */
    static Ruler ofMacro(Parameter p, Workspace bench) {
        return of(p, () -> macroValue(bench.state().recipe(), p.id()), (value, settled) -> {
            Recipe moved = MacroValues.with(bench.state().recipe(), p.id(), value);
            bench.shaping().shape(moved, p.name() + " " + p.formatWithUnit(value), settled);
        });
    }

    private static Double macroValue(Recipe recipe, String id) {
        int macro = Integer.parseInt(id.split("\\.")[1]);
        return recipe == null || recipe.common().macros().size() < macro
                ? null
                : MacroValues.of(recipe, macro).stream()
                        .filter(s -> s.parameter().id().equals(id))
                        .map(Recipe.Setting::value)
                        .findFirst()
                        .orElse(null);
    }
}
