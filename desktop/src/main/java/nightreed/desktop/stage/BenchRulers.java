package nightreed.desktop.stage;

import java.util.Map;
import javafx.beans.value.ChangeListener;
import javafx.beans.value.WeakChangeListener;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.MenuItem;
import nightreed.desktop.bench.Bench;
import nightreed.desktop.bench.Controllers;
import nightreed.desktop.ruler.Ruler;
import nightreed.recipe.part.Parameter;

/** Rulers of the bench's recipe, which a controller can be taught. */
final class BenchRulers {
    private BenchRulers() {}

    static Ruler ruler(Parameter p, Bench bench) {
        Ruler ruler = new Ruler(p, bench::set);
        Controllers controllers = bench.controllers();
        ruler.setOnContextMenuRequested(e -> {
            menu(p, controllers).show(ruler, e.getScreenX(), e.getScreenY());
            e.consume();
        });
        ChangeListener<Map<Integer, String>> follow = (o, a, b) -> ruler.setTag(tag(controllers.of(p.id())));
        ruler.getProperties().put(BenchRulers.class, follow); // lives as long as the ruler, and no longer
        controllers.taughtProperty().addListener(new WeakChangeListener<>(follow));
        ruler.setTag(tag(controllers.of(p.id())));
        return ruler;
    }

    private static String tag(Integer controller) {
        return controller == null ? null : "knob " + controller;
    }

    private static ContextMenu menu(Parameter p, Controllers controllers) {
        MenuItem learn = new MenuItem("Move it by a controller …");
        learn.setId("learn-" + p.id());
        learn.setOnAction(e -> controllers.learn(p));
        ContextMenu menu = new ContextMenu(learn);
        Integer now = controllers.of(p.id());
        if (now != null) {
            MenuItem forget = new MenuItem("Let controller " + now + " go");
            forget.setOnAction(e -> controllers.forget(p.id()));
            menu.getItems().add(forget);
        }
        return menu;
    }
}
