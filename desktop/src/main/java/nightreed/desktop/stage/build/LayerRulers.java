package nightreed.desktop.stage.build;

import java.util.List;
import java.util.Optional;
import nightreed.desktop.ruler.Ruler;
import nightreed.desktop.workspace.Workspace;
import nightreed.desktop.workspace.WorkspaceState;
import nightreed.recipe.Patch;
import nightreed.recipe.part.Parameter;
import nightreed.recipe.part.ParameterAccess;

/** Rulers for where a layer stands among the others, and for the patch's cross-fade. */
final class LayerRulers {
    private LayerRulers() {}

    /** Values of the layer that is shaped, and those of the patch. */
    static List<ParameterAccess.Reading> of(WorkspaceState s) {
        Patch p = s.snapshot().patch();
        String own = "layer." + (s.snapshot().chosen() + 1) + ".";
        return ParameterAccess.of(p).stream()
                .filter(r -> r.parameter().id().startsWith(own)
                        || !r.parameter().id().startsWith("layer."))
                .filter(r -> !r.parameter().id().endsWith(".muted") // which stand beside the layers' names
                        && !r.parameter().id().endsWith(".solo"))
                .toList();
    }

    static Optional<ParameterAccess.Reading> of(WorkspaceState s, String id) {
        return s.snapshot().patch() == null
                ? Optional.empty()
                : ParameterAccess.of(s.snapshot().patch()).stream()
                        .filter(r -> r.parameter().id().equals(id))
                        .findFirst();
    }

    static Ruler ruler(Parameter p, Workspace bench) {
        return BoundRuler.of(
                p,
                () -> of(bench.state(), p.id())
                        .map(ParameterAccess.Reading::value)
                        .orElse(null),
                (value, settled) -> bench.shaping().setOfPatch(p, value, settled));
    }
}
