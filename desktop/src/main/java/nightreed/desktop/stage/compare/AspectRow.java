package nightreed.desktop.stage.compare;

import java.util.EnumMap;
import java.util.Locale;
import java.util.Map;
import javafx.geometry.Pos;
import javafx.geometry.Side;
import javafx.scene.AccessibleRole;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.Label;
import javafx.scene.control.MenuItem;
import javafx.scene.control.ProgressBar;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import nightreed.desktop.stage.NodeFactory;
import nightreed.desktop.stage.Notes;
import nightreed.desktop.workspace.Workspace;
import nightreed.match.compare.Comparison;
import nightreed.match.hearing.Aspect;
import nightreed.match.hearing.AspectWeights;

/** What would be noticed, aspect by aspect; an ear may overrule each. */
final class AspectRow extends HBox {
    private final Workspace bench;
    private final Map<Aspect, Label> names = new EnumMap<>(Aspect.class);
    private final Map<Aspect, Label> values = new EnumMap<>(Aspect.class);
    private final Map<Aspect, ProgressBar> bars = new EnumMap<>(Aspect.class);
    private final Map<Aspect, Tooltip> tips = new EnumMap<>(Aspect.class);
    private Comparison shown;

    AspectRow(Workspace bench) {
        super(10);
        this.bench = bench;
        for (Aspect a : Aspect.values()) {
            getChildren().add(cell(a));
        }
    }

    private VBox cell(Aspect a) {
        Label name = NodeFactory.quiet(a.id());
        name.setWrapText(false);
        name.setMinWidth(Region.USE_PREF_SIZE);
        Label v = NodeFactory.figures("");
        v.setId("aspect-" + a.id());
        ProgressBar bar = new ProgressBar(0);
        bar.setMaxWidth(Double.MAX_VALUE);
        bar.setAccessibleText(a.title() + " difference");
        names.put(a, name);
        values.put(a, v);
        bars.put(a, bar);
        HBox top = new HBox(2, name, NodeFactory.gap(), v);
        top.setAlignment(Pos.BASELINE_LEFT);
        VBox cell = new VBox(3, top, bar);
        HBox.setHgrow(cell, Priority.ALWAYS);
        cell.setPrefWidth(110);
        cell.setId("aspect-cell-" + a.id());
        cell.getStyleClass().add("aspect-cell");
        cell.setFocusTraversable(true);
        cell.setAccessibleRole(AccessibleRole.BUTTON);
        cell.setAccessibleText(a.title() + ": overrule by ear");
        Tooltip tip = new Tooltip();
        tips.put(a, tip);
        Tooltip.install(cell, tip);
        cell.setOnMouseClicked(e -> {
            if (e.getButton() == MouseButton.PRIMARY || e.getButton() == MouseButton.SECONDARY) {
                overrule(a, cell);
            }
        });
        cell.setOnKeyPressed(e -> {
            if (e.getCode() == KeyCode.ENTER) {
                overrule(a, cell);
                e.consume();
            }
        });
        return cell;
    }

    private void overrule(Aspect a, VBox cell) {
        if (shown == null) {
            return;
        }
        double jnd = shown.jnd(a);
        AspectWeights marks = bench.state().snapshot().marks();
        MenuItem not = item("not-heard", "My ear hears no difference", a, "not heard: ", marks.notHeard(a, jnd));
        MenuItem yes = item("heard", "My ear hears a difference", a, "heard: ", marks.heard(a, jnd));
        MenuItem back = item("unmark", "As the thresholds have it", a, "unmarked: ", marks.without(a));
        new ContextMenu(not, yes, back).show(cell, Side.TOP, 0, 0);
    }

    private MenuItem item(String id, String text, Aspect a, String label, AspectWeights then) {
        MenuItem item = new MenuItem(text);
        item.setId(id + "-" + a.id());
        item.setDisable(then.equals(bench.state().snapshot().marks()));
        item.setOnAction(e -> bench.shaping().mark(label + a.title(), then));
        return item;
    }

    /** @param c null for nothing */
    void show(Comparison c, AspectWeights marks) {
        shown = c;
        for (Aspect a : Aspect.values()) {
            double jnd = c == null ? 0 : c.jnd(a);
            double weight = marks.weight(a);
            Notes.put(values.get(a), c == null ? "" : String.format(Locale.ROOT, "%.1f", jnd));
            Notes.put(names.get(a), weight == 1 ? a.id() : a.id() + " ◂");
            tips.get(a)
                    .setText(
                            weight == 1
                                    ? a.title() + ". Click to overrule it by ear."
                                    : String.format(
                                            Locale.ROOT,
                                            "%s counts %.2f of what thresholds say, by ear. Click to change it.",
                                            a.title(),
                                            weight));
            bars.get(a).setProgress(Math.min(1, jnd / 4));
            values.get(a).getStyleClass().removeAll("audible", "within");
            bars.get(a).getStyleClass().removeAll("audible", "within");
            if (c != null) {
                values.get(a).getStyleClass().add(jnd > 1 ? "audible" : "within");
                bars.get(a).getStyleClass().add(jnd > 1 ? "audible" : "within");
            }
        }
    }
}
