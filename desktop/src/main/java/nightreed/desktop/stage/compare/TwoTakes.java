package nightreed.desktop.stage.compare;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.ColumnConstraints;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import nightreed.desktop.stage.BackgroundTask;
import nightreed.desktop.stage.NodeFactory;
import nightreed.desktop.workspace.MethodNames;
import nightreed.desktop.workspace.Workspace;
import nightreed.desktop.workspace.WorkspaceState;
import nightreed.match.compare.Comparison;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.compare.PerceptualComparator;
import nightreed.match.hearing.Aspect;
import nightreed.match.sound.AnalysedSound;
import nightreed.project.Take;
import nightreed.recipe.Patch;
import nightreed.recipe.ValueDifferences;
import nightreed.sound.Clip;
import nightreed.sound.UnusableSound;

/** Two takes side by side: what would be heard of each, which values differ, and how they sound. */
final class TwoTakes extends VBox {
    private static final int MOST_VALUES = 40;

    private final Workspace bench;
    private final Half left = new Half("left");
    private final Half right = new Half("right");
    private final GridPane table = new GridPane();
    private final Label empty =
            NodeFactory.body("There are no two takes yet: fit twice, or keep takes on the Keep stage.");
    private List<Take> takes = List.of();
    private AnalysedSound recording;

    /** One of the two. */
    private final class Half {
        private final ComboBox<Take> choice = new ComboBox<>();
        private final Button hear = new Button("▶");
        private final Button use = new Button("Put on the bench");
        private Take shown;
        private AnalysedSound of;
        private Comparison comparison;
        private Clip sound;

        Half(String side) {
            choice.setId("take-" + side);
            choice.setMaxWidth(Double.MAX_VALUE);
            choice.setButtonCell(new TakeCell());
            choice.setCellFactory(list -> new TakeCell());
            choice.valueProperty().addListener((o, was, is) -> work());
            hear.setId("hear-" + side);
            hear.setAccessibleText("Hear the take at the " + side);
            hear.setOnAction(e -> bench.desk().audition(sound));
            use.setId("use-" + side);
            use.getStyleClass().add("link");
            use.setOnAction(e -> bench.shaping().use(shown.patch(), "back to " + shown.name()));
        }

        /** Renders and compares beside the window. */
        private void work() {
            Take t = choice.getValue();
            if (t == null || t.equals(shown) && of == recording) {
                return;
            }
            shown = t;
            of = recording;
            comparison = null;
            sound = null;
            fill();
            AnalysedSound here = recording;
            BackgroundTask.work(
                    () -> heard(here, t.patch()),
                    h -> {
                        if (t.equals(shown)) {
                            comparison = h.comparison;
                            sound = h.clip;
                            fill();
                        }
                    },
                    () -> {});
        }
    }

    private record Heard(Comparison comparison, Clip clip) {}

    private static Heard heard(AnalysedSound recording, Patch patch) {
        try {
            AnalysedSound imitation = ImitationRenderer.imitation(recording, patch);
            Comparison c = PerceptualComparator.compare(recording, imitation);
            return new Heard(c, louder(imitation.clip(), c.gainDb()));
        } catch (UnusableSound silent) {
            return new Heard(null, null);
        }
    }

    /** As loud as the recording, so that neither wins by being louder. */
    private static Clip louder(Clip clip, double db) {
        return clip.scaled(Math.pow(10, db / 20));
    }

    private static final class TakeCell extends ListCell<Take> {
        @Override
        protected void updateItem(Take t, boolean nothing) {
            super.updateItem(t, nothing);
            setText(nothing || t == null ? "" : t.name() + "  " + t.distance());
        }
    }

    TwoTakes(Workspace bench) {
        super(10);
        this.bench = bench;
        setId("two-takes");
        setPadding(new Insets(8, 0, 0, 0));
        VBox.setVgrow(this, Priority.ALWAYS);
        table.setHgap(18);
        table.setVgap(3);
        for (double share : new double[] {30, 35, 35}) {
            ColumnConstraints c = new ColumnConstraints();
            c.setPercentWidth(share);
            table.getColumnConstraints().add(c);
        }
        ScrollPane scroll = new ScrollPane(table);
        scroll.setFitToWidth(true);
        VBox.setVgrow(scroll, Priority.ALWAYS);
        getChildren().addAll(empty, scroll);
    }

    /** Shows the takes of the imitation on the bench; the last two, unless others are chosen. */
    void show(WorkspaceState s) {
        boolean other = s.recording() != recording;
        recording = s.recording();
        if (!s.takes().equals(takes) || other) {
            takes = s.takes();
            offer(left, takes.size() - 2);
            offer(right, takes.size() - 1);
        }
        boolean two = takes.size() >= 2;
        empty.setVisible(!two);
        empty.setManaged(!two);
        table.setVisible(two);
        if (two) {
            left.work();
            right.work();
        }
        fill();
    }

    private void offer(Half half, int usual) {
        Take before = half.choice.getValue();
        half.choice.getItems().setAll(takes);
        if (usual < 0) {
            half.choice.setValue(null);
            half.shown = null;
        } else {
            half.choice.setValue(before != null && takes.contains(before) ? before : takes.get(usual));
        }
    }

    private void fill() {
        table.getChildren().clear();
        if (left.shown == null || right.shown == null) {
            return;
        }
        int row = 0;
        table.add(NodeFactory.heading("Two takes"), 0, row);
        table.add(head(left), 1, row);
        table.add(head(right), 2, row++);
        table.add(NodeFactory.quiet("all together"), 0, row);
        table.add(jnd(left.comparison == null ? null : left.comparison.totalJnd()), 1, row);
        table.add(jnd(right.comparison == null ? null : right.comparison.totalJnd()), 2, row++);
        for (Aspect a : Aspect.values()) {
            table.add(NodeFactory.quiet(a.title()), 0, row);
            table.add(jnd(left.comparison == null ? null : left.comparison.jnd(a)), 1, row);
            table.add(jnd(right.comparison == null ? null : right.comparison.jnd(a)), 2, row++);
        }
        table.add(NodeFactory.space(6), 0, row++);
        List<String[]> values = differences(left.shown.patch(), right.shown.patch());
        table.add(NodeFactory.heading(values.isEmpty() ? "All values are the same" : "Values that differ"), 0, row++);
        for (String[] v : values.subList(0, Math.min(MOST_VALUES, values.size()))) {
            table.add(NodeFactory.quiet(v[0]), 0, row);
            table.add(NodeFactory.figures(v[1]), 1, row);
            table.add(NodeFactory.figures(v[2]), 2, row++);
        }
        if (values.size() > MOST_VALUES) {
            table.add(NodeFactory.quiet("and " + (values.size() - MOST_VALUES) + " more"), 0, row);
        }
    }

    private static Node head(Half h) {
        h.hear.setDisable(h.sound == null);
        h.use.setMinWidth(USE_PREF_SIZE);
        HBox row = new HBox(8, h.hear, h.use);
        row.setAlignment(Pos.CENTER_LEFT);
        return new VBox(4, h.choice, row);
    }

    private static Label jnd(Double v) {
        Label l = NodeFactory.figures(v == null ? "…" : String.format(Locale.ROOT, "%.2f", v));
        if (v != null) {
            l.getStyleClass().add(v > 1 ? "audible" : "within");
        }
        return l;
    }

    /** Name and both values as text; those that differ most on their rulers first, those that only one has last. */
    static List<String[]> differences(Patch a, Patch b) {
        List<String[]> out = new ArrayList<>();
        for (ValueDifferences.Difference d : ValueDifferences.of(a.first(), b.first())) {
            out.add(new String[] {d.name(), d.before(), d.after()});
        }
        for (int i = Math.max(a.layers().size(), b.layers().size()); i > 1; i--) {
            String left = layer(a, i);
            String right = layer(b, i);
            if (!left.equals(right)) {
                out.add(0, new String[] {"layer " + i, left, right});
            }
        }
        return out;
    }

    private static String layer(Patch p, int number) {
        return p.layers().size() < number
                ? "nothing"
                : MethodNames.of(p.layers().get(number - 1).recipe().method());
    }
}
