package nightreed.desktop.stage.build;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Menu;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.HBox;
import nightreed.desktop.stage.LateMenu;
import nightreed.desktop.stage.NodeFactory;
import nightreed.desktop.stage.Notes;
import nightreed.desktop.workspace.MethodNames;
import nightreed.desktop.workspace.Workspace;
import nightreed.desktop.workspace.WorkspaceState;
import nightreed.match.fit.Layers.Layered;
import nightreed.project.Snapshot;
import nightreed.project.Take;
import nightreed.recipe.FirstRecipe;
import nightreed.recipe.Layer;
import nightreed.recipe.Patch;

/** The layers that sound together: which one is shaped, which are heard, and what can be put beside them. */
final class LayerNotes {
    private final Workspace bench;
    private final List<Node> rows = new ArrayList<>();
    private final HBox menus = new HBox(4);
    private final HBox actions = new HBox(12);
    private String rowsOf = "";
    private Set<String> actionsOf;
    private int actionsFor;
    private final LateMenu add = new LateMenu("add a layer", "add-layer", this::fill);

    /** @param others menus that stand beside its own */
    LayerNotes(Workspace bench, Node... others) {
        this.bench = bench;
        menus.getChildren().add(add);
        menus.getChildren().addAll(others);
        menus.setAlignment(Pos.CENTER_LEFT);
    }

    void notes(WorkspaceState s, Notes margin) {
        Snapshot now = s.snapshot();
        if (now.patch() == null) {
            return;
        }
        List<Layer> layers = now.patch().layers();
        margin.add(Notes.heading(layers.size() == 1 ? "One layer" : "Layers"));
        if (layers.size() > 1) {
            rows(now);
            rows.forEach(row -> margin.add(Notes.of(row)));
            found(now.patch(), margin);
            margin.add(
                    Notes.quiet("Rulers, moves and fits are of the layer that is marked; all are heard and compared."));
        }
        add.setDisable(layers.size() >= Patch.MOST_LAYERS);
        if (!now.locks().equals(actionsOf) || layers.size() != actionsFor) {
            actionsOf = now.locks();
            actionsFor = layers.size();
            actions(now);
        }
        margin.add(Notes.of(menus));
        if (layers.size() > 1) {
            margin.add(Notes.of(actions));
        }
        margin.add(Notes.space(4));
    }

    /** Made anew only where something is seen of it. */
    private void rows(Snapshot now) {
        StringBuilder as = new StringBuilder().append(now.chosen());
        now.patch()
                .layers()
                .forEach(l -> as.append(l.recipe().method()).append(l.muted()).append(l.solo()));
        if (as.toString().equals(rowsOf)) {
            return;
        }
        rowsOf = as.toString();
        rows.clear();
        ToggleGroup shaped = new ToggleGroup();
        for (int i = 0; i < now.patch().layers().size(); i++) {
            rows.add(row(now, i, shaped));
        }
    }

    private Node row(Snapshot now, int layer, ToggleGroup shaped) {
        Layer l = now.patch().layers().get(layer);
        ToggleButton which =
                new ToggleButton((layer + 1) + "  " + MethodNames.of(l.recipe().method()));
        which.setId("layer-" + (layer + 1));
        which.getStyleClass().add("plain-toggle");
        which.setToggleGroup(shaped);
        which.setSelected(layer == now.chosen());
        which.setOnAction(e -> {
            which.setSelected(true);
            bench.shaping().chooseLayer(layer);
        });
        ToggleButton mute = toggle("mute", layer, l.muted());
        ToggleButton solo = toggle("solo", layer, l.solo());
        HBox row = new HBox(4, which, NodeFactory.gap(), mute, solo);
        row.setAlignment(Pos.CENTER_LEFT);
        return row;
    }

    private ToggleButton toggle(String what, int layer, boolean on) {
        ToggleButton b = new ToggleButton(what);
        b.setId(what + "-layer-" + (layer + 1));
        b.getStyleClass().add("plain-toggle");
        b.setSelected(on);
        String id = "layer." + (layer + 1) + "." + (what.equals("mute") ? "muted" : "solo");
        b.setOnAction(e -> LayerRulers.of(bench.state(), id)
                .ifPresent(r -> bench.shaping().setOfPatch(r.parameter(), b.isSelected() ? 1 : 0, true)));
        return b;
    }

    /** What a search for a second layer said, as long as its patch is on the bench. */
    private void found(Patch patch, Notes margin) {
        Layered found = bench.fitting().layeredProperty().get();
        if (found != null && found.patch().equals(patch)) {
            found.carries().forEach(c -> margin.add(Notes.quiet("As found, " + c + ".")));
        }
    }

    private void actions(Snapshot now) {
        HBox row = actions;
        row.getChildren().clear();
        row.setAlignment(Pos.CENTER_LEFT);
        if (now.patch().layers().size() > 1) {
            row.getChildren().add(NodeFactory.link("remove-layer", "take out", bench.shaping()::removeLayer));
            boolean locked = now.isLayerLocked();
            row.getChildren()
                    .add(NodeFactory.link(
                            "lock-layer",
                            locked ? "set free" : "lock",
                            () -> bench.shaping().lockLayer(!locked)));
        }
    }

    /** New of a method, what a take holds, a search for one, or the keyboard split. */
    private void fill() {
        WorkspaceState s = bench.state();
        Menu made = new Menu("new, of a method");
        for (String m : FirstRecipe.METHODS) {
            made.getItems()
                    .add(NodeFactory.item(
                            "add-layer-" + m,
                            MethodNames.of(m),
                            () -> bench.shaping().addLayer(Layer.of(FirstRecipe.of(m)), "add a layer, " + m)));
        }
        Menu kept = new Menu("of a take");
        List<Take> takes = s.takes();
        for (Take t : takes.subList(Math.max(0, takes.size() - 12), takes.size())) {
            kept.getItems()
                    .add(NodeFactory.item(
                            "add-layer-take-" + t.id(),
                            t.name(),
                            () -> bench.shaping().addLayer(Layer.of(t.recipe()), "add a layer, " + t.name())));
        }
        kept.setDisable(takes.isEmpty());
        add.getItems()
                .addAll(
                        made,
                        kept,
                        NodeFactory.item(
                                "double-layer",
                                "this one again",
                                () -> bench.shaping()
                                        .addLayer(
                                                s.snapshot()
                                                        .patch()
                                                        .layers()
                                                        .get(s.snapshot().chosen()),
                                                "double the layer")));
        if (s.recording() != null) {
            add.getItems()
                    .add(NodeFactory.item(
                            "find-layer",
                            "search for what is left over",
                            () -> bench.fitting().fitUnder()));
        }
        if (s.snapshot().patch().isOne()) {
            add.getItems()
                    .add(NodeFactory.item(
                            "split-keyboard",
                            "two manuals: under C4 an octave up",
                            () -> bench.shaping().split(60)));
        }
    }
}
