package nightreed.desktop.stage.build;

import java.util.List;
import java.util.Map;
import javafx.beans.value.ChangeListener;
import javafx.beans.value.WeakChangeListener;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.MenuItem;
import javafx.scene.control.SeparatorMenuItem;
import nightreed.desktop.ruler.Ruler;
import nightreed.desktop.workspace.Controllers;
import nightreed.desktop.workspace.Workspace;
import nightreed.desktop.workspace.WorkspaceState;
import nightreed.recipe.ListChange;
import nightreed.recipe.Recipe;
import nightreed.recipe.part.Parameter;
import nightreed.recipe.part.Structure;

/** Rulers of the bench's recipe, which a controller can be taught. */
public final class WorkspaceRulers {
    private WorkspaceRulers() {}

    /** For a stage without reeds. */
    public static Ruler ruler(Parameter p, Workspace bench) {
        return ruler(p, bench, false);
    }

    /** @param reeds whether there are reeds to show what a value does */
    public static Ruler ruler(Parameter p, Workspace bench, boolean reeds) {
        Ruler ruler = new Ruler(p);
        ruler.valueProperty().addListener((o, was, v) -> {
            if (isMoved(ruler, bench.state())) {
                bench.shaping().set(p, ruler.getValue(), !ruler.isValueChanging());
            }
        });
        ruler.valueChangingProperty().addListener((o, was, changing) -> {
            if (!changing) {
                bench.shaping().set(p, ruler.getValue(), true);
            }
        });
        Controllers controllers = bench.controllers();
        ruler.setOnContextMenuRequested(e -> {
            menu(p, bench, reeds).show(ruler, e.getScreenX(), e.getScreenY());
            e.consume();
        });
        ChangeListener<Map<Integer, String>> follow =
                (o, a, b) -> ruler.tagProperty().set(tag(p, bench));
        ChangeListener<WorkspaceState> locked = (o, a, b) -> ruler.tagProperty().set(tag(p, bench));
        ruler.getProperties()
                .put(WorkspaceRulers.class, List.of(follow, locked)); // live as long as the ruler, no longer
        controllers.taughtProperty().addListener(new WeakChangeListener<>(follow));
        bench.stateProperty().addListener(new WeakChangeListener<>(locked));
        ruler.tagProperty().set(tag(p, bench));
        return ruler;
    }

    /** Whether a hand has moved a ruler away from the recipe, which has not followed yet. */
    private static boolean isMoved(Ruler ruler, WorkspaceState s) {
        return s.recipe() != null && s.recipe().value(ruler.parameter().id()) != ruler.getValue();
    }

    private static String tag(Parameter p, Workspace bench) {
        Integer controller = bench.controllers().of(p.id());
        String knob = controller == null ? null : "knob " + controller;
        if (!bench.state().snapshot().locked().contains(p.id())) {
            return knob;
        }
        return knob == null ? "locked" : "locked, " + knob;
    }

    private static ContextMenu menu(Parameter p, Workspace bench, boolean reeds) {
        Controllers controllers = bench.controllers();
        boolean locked = bench.state().snapshot().locked().contains(p.id());
        MenuItem lock = new MenuItem(locked ? "Let fits move it again" : "Lock: no fit moves it");
        lock.setId("lock-" + p.id());
        lock.setOnAction(e -> bench.shaping().lock(p, !locked));
        MenuItem learn = new MenuItem("Move it by a controller …");
        learn.setId("learn-" + p.id());
        learn.setOnAction(e -> controllers.learn(p));
        MenuItem does = new MenuItem("What does this do to the partials?");
        does.setId("does-" + p.id());
        does.setOnAction(e -> bench.askedProperty().set(p));
        ContextMenu menu = new ContextMenu(lock, learn);
        if (reeds) {
            menu.getItems().add(0, does);
        }
        elements(p, bench, menu);
        Integer now = controllers.of(p.id());
        if (now != null) {
            MenuItem forget = new MenuItem("Let controller " + now + " go");
            forget.setOnAction(e -> controllers.forget(p.id()));
            menu.getItems().add(forget);
        }
        return menu;
    }

    /** What can be done with the mode, pair or route that a value belongs to. */
    private static void elements(Parameter p, Workspace bench, ContextMenu menu) {
        String[] id = p.id().split("\\.");
        Structure.Listed list = id.length < 3 || !id[1].matches("\\d{1,3}")
                ? null
                : Structure.list((Record) bench.state().recipe(), id[0]);
        if (list == null) {
            return;
        }
        int at = Integer.parseInt(id[1]);
        String name = list.name() + " " + at;
        MenuItem twice = new MenuItem("Double " + name);
        twice.setId("double-" + id[0] + "-" + at);
        twice.setDisable(!list.hasRoom());
        twice.setOnAction(e -> bench.shaping().change(ListChange.twice(id[0], at)));
        MenuItem out = new MenuItem("Take out " + name);
        out.setId("take-out-" + id[0] + "-" + at);
        out.setDisable(!list.canLose());
        out.setOnAction(e -> bench.shaping().change(ListChange.remove(id[0], at)));
        MenuItem more = new MenuItem("Add a " + list.name());
        more.setId("add-" + id[0]);
        more.setDisable(!list.hasRoom());
        more.setOnAction(
                e -> bench.shaping().change(ListChange.add(bench.state().recipe(), id[0])));
        menu.getItems().addAll(new SeparatorMenuItem(), twice, more, out);
    }

    /** What a fit gave a value; null if there was none, or none of the same method and size. */
    public static Double fitted(WorkspaceState s, Parameter p) {
        Recipe f = s.snapshot().fitted();
        boolean ofElement = p.id().matches("[a-z]+\\.\\d+\\..*");
        if (f == null
                || !f.method().equals(s.recipe().method())
                || ofElement && !f.lists().equals(s.recipe().lists())) {
            return null;
        }
        for (Recipe.Setting v : f.settings()) {
            if (v.parameter().id().equals(p.id())) {
                return v.value();
            }
        }
        return null;
    }
}
