package nightreed.desktop.stage.build;

import nightreed.desktop.ruler.Ruler;
import nightreed.desktop.workspace.Workspace;
import nightreed.recipe.Recipe;
import nightreed.recipe.part.Parameter;
import nightreed.recipe.size.FreeValue;
import nightreed.recipe.size.FreeValues;

/** A ruler of a value that may stand for several: it moves them all, and leaves them as they are to each other. */
final class FreeRuler {
    private FreeRuler() {}

    static Ruler of(FreeValue free, Workspace bench) {
        Parameter p = free.parameter().withName(free.name());
        return BoundRuler.of(p, () -> now(free, bench.state().recipe()), (value, settled) -> {
            Recipe r = bench.state().recipe();
            if (now(free, r) != null) {
                bench.shaping()
                        .attempt(() -> bench.shaping()
                                .shape(free.with(r, value), free.name() + " " + p.formatWithUnit(value), settled));
            }
        });
    }

    /** Null where the recipe has no such value any more. */
    private static Double now(FreeValue free, Recipe r) {
        return r == null
                ? null
                : FreeValues.of(r).stream()
                        .filter(v -> v.id().equals(free.id()) && v.ids().equals(free.ids()))
                        .map(v -> v.value(r))
                        .findFirst()
                        .orElse(null);
    }
}
