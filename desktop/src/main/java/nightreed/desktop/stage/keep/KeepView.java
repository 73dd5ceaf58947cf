package nightreed.desktop.stage.keep;

import java.io.File;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextArea;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.stage.DirectoryChooser;
import nightreed.desktop.stage.Cells;
import nightreed.desktop.stage.NodeFactory;
import nightreed.desktop.stage.Notes;
import nightreed.desktop.stage.StageView;
import nightreed.desktop.workspace.MethodNames;
import nightreed.desktop.workspace.Workspace;
import nightreed.desktop.workspace.WorkspaceState;
import nightreed.match.advice.Tolerances;
import nightreed.project.Take;
import nightreed.recipe.Layer;
import nightreed.recipe.Recipe;
import nightreed.recipe.part.Parameter;
import nightreed.recipe.part.ParameterAccess;
import nightreed.recipe.size.PatchSize;

/** Keep: the logbook of takes, the note, and the files to take away. */
public final class KeepView implements StageView {
    private final Workspace bench;
    private final HBox centre = new HBox(14);
    private final Notes margin = new Notes(6);
    private final TextArea note = new TextArea();
    private final TextField takeNote = new TextField();
    private final Button keep = new Button("Keep this take (Ctrl+T)");
    private final VBox takes = new VBox(6);
    private final Cells sheet = new Cells();
    private List<Take> shownTakes;
    private final Button export = new Button("Write the files…");
    private final Label written = NodeFactory.quiet("");

    public KeepView(Workspace bench) {
        this.bench = bench;
        note.setPromptText("A note for the patch sheet: what it is for, how it is meant.");
        note.setPrefRowCount(4);
        note.setWrapText(true);
        note.setId("sheet-note");
        note.setAccessibleText("Note for the patch sheet");
        note.addEventFilter(KeyEvent.KEY_PRESSED, e -> {
            if (e.getCode() == KeyCode.TAB && !e.isControlDown()) {
                e.consume();
                note.fireEvent(onward(e)); // Tab leads on, as everywhere; a note needs no tabulators
            }
        });
        note.focusedProperty().addListener((o, was, is) -> {
            if (!is) {
                bench.shaping().note(note.getText());
            }
        });
        takeNote.setPromptText("what you hear now");
        takeNote.setAccessibleText("Note for the take");
        takeNote.setId("take-note");
        takeNote.setOnAction(e -> keepTake());
        HBox.setHgrow(takeNote, Priority.ALWAYS);
        keep.setId("keep-take");
        keep.setMinWidth(Region.USE_PREF_SIZE);
        keep.setOnAction(e -> keepTake());
        ScrollPane log = new ScrollPane(takes);
        log.setFitToWidth(true);
        VBox.setVgrow(log, Priority.ALWAYS);
        VBox left = NodeFactory.panel(
                NodeFactory.heading("Logbook"), new HBox(8, takeNote, keep), log, NodeFactory.heading("Note"), note);
        left.setPrefWidth(430);
        HBox.setHgrow(left, Priority.ALWAYS);
        sheet.setHgap(14);
        sheet.setVgap(3);
        ScrollPane values = new ScrollPane(sheet);
        values.setFitToWidth(true);
        VBox.setVgrow(values, Priority.ALWAYS);
        export.setId("export");
        export.getStyleClass().add("accent-button");
        export.setOnAction(e -> chooseFolder());
        HBox head = new HBox(8, NodeFactory.heading("Patch sheet"), NodeFactory.gap(), export);
        head.setAlignment(Pos.CENTER_LEFT);
        written.setId("written");
        VBox right = NodeFactory.panel(head, written, values);
        right.setPrefWidth(450);
        HBox.setHgrow(right, Priority.ALWAYS);
        centre.getChildren().addAll(left, right);
    }

    /** The key that a text area takes for "on to the next control". */
    private static KeyEvent onward(KeyEvent e) {
        return new KeyEvent(e.getEventType(), "", "", KeyCode.TAB, e.isShiftDown(), true, false, false);
    }

    /** Keeps what is on the bench as a take. */
    public void keepTake() {
        bench.keepTake(takeNote.getText().trim());
        takeNote.clear();
    }

    private void chooseFolder() {
        DirectoryChooser chooser = new DirectoryChooser();
        chooser.setTitle("Folder for patch sheet, sound, recipe and partials");
        File folder = chooser.showDialog(centre.getScene().getWindow());
        if (folder != null) {
            export(folder.toPath());
        }
    }

    /** Writes all files into a folder and says which. */
    public void export(Path folder) {
        bench.shaping().note(note.getText());
        bench.export(
                folder,
                files -> written.setText("Written to " + folder + ": "
                        + String.join(
                                ", ",
                                files.stream()
                                        .map(f -> f.getFileName().toString())
                                        .toList())));
    }

    @Override
    public Node centre() {
        return centre;
    }

    @Override
    public Notes margin() {
        return margin;
    }

    @Override
    public void fill(WorkspaceState s) {
        if (!note.isFocused()) {
            note.setText(s.snapshot().note());
        }
        boolean ready = s.recipe() != null;
        export.setDisable(!ready);
        keep.setDisable(!ready);
        if (!s.takes().equals(shownTakes)) {
            shownTakes = s.takes();
            log();
        }
        values(s);
        margin.add(Notes.heading("To take away"));
        margin.add(
                Notes.body("The patch sheet is one page that opens anywhere and prints: every value with its"
                        + " unit, how far it may move before anyone hears it, and where it comes from."),
                Notes.quiet(
                        "With it go the imitation as WAV (24 bit), the recipe as JSON and the partials as" + " CSV."),
                Notes.space(4),
                Notes.quiet("Nothing needs saving: every change is written as it is made."));
    }

    private void log() {
        takes.getChildren().clear();
        if (shownTakes.isEmpty()) {
            takes.getChildren()
                    .add(NodeFactory.quiet("No take yet. A take keeps the recipe as it is, with what you hear."));
        }
        for (int i = shownTakes.size() - 1; i >= 0; i--) {
            takes.getChildren().add(take(shownTakes.get(i)));
        }
    }

    private Node take(Take t) {
        Label name = NodeFactory.body(t.name());
        Label jnd = NodeFactory.figures(t.distance());
        Button back = new Button("Use");
        back.getStyleClass().add("link");
        back.setMinWidth(Region.USE_PREF_SIZE);
        jnd.setMinWidth(Region.USE_PREF_SIZE);
        back.setAccessibleText("Use " + t.name());
        back.setOnAction(e -> bench.shaping().use(t.patch(), "back to " + t.name()));
        String when = t.at().length() >= 16 ? t.at().substring(5, 16).replace('T', ' ') : t.at();
        HBox line = new HBox(8, name, NodeFactory.gap(), jnd, back);
        line.setAlignment(Pos.BASELINE_LEFT);
        String stood = t.worstJnd() == null || t.worstJnd() <= 1
                ? ""
                : String.format(Locale.ROOT, "  ·  %s %.1f", t.worst(), t.worstJnd());
        VBox words = new VBox(1, line, NodeFactory.quiet(when + "  ·  " + size(t) + stood));
        if (!t.note().isEmpty()) {
            words.getChildren().add(NodeFactory.quiet(t.note()));
        }
        HBox.setHgrow(words, Priority.ALWAYS);
        HBox box = new HBox(12, words);
        if (t.picture() != null) {
            box.getChildren().add(0, new TakePictureView(t.picture()));
        }
        box.setAlignment(Pos.CENTER_LEFT);
        box.getStyleClass().add("take");
        return box;
    }

    private static String size(Take t) {
        return PatchSize.followsRecording(t.patch()) ? "follows the recording" : PatchSize.of(t.patch()) + " values";
    }

    /** Figures that are never cut off. */
    private static Label whole(String text) {
        Label l = NodeFactory.figures(text);
        l.setMinWidth(Region.USE_PREF_SIZE);
        return l;
    }

    private void values(WorkspaceState s) {
        sheet.begin();
        if (s.recipe() == null) {
            sheet.put(0, sheet.row(), "quiet", "Fit an imitation first.", NodeFactory::quiet);
            sheet.end();
            return;
        }
        List<Layer> layers = s.snapshot().patch().layers();
        for (int i = 0; i < layers.size(); i++) {
            Recipe r = layers.get(i).recipe();
            if (layers.size() > 1) {
                String title = "Layer " + (i + 1) + ": " + MethodNames.of(r.method());
                sheet.put(0, sheet.row(), "layer", title, NodeFactory::heading);
                ofLayer(layers.get(i));
            }
            values(r, i == s.snapshot().chosen() ? s.tolerances() : Map.of());
        }
        sheet.end();
    }

    /** What the layer does with its recipe, where that is not as usual. */
    private void ofLayer(Layer layer) {
        Layer usual = Layer.of(layer.recipe());
        List<ParameterAccess.Reading> of = ParameterAccess.of(layer);
        for (int i = 0; i < of.size(); i++) {
            Parameter p = of.get(i).parameter();
            if (of.get(i).value() != ParameterAccess.of(usual).get(i).value()) {
                int row = sheet.row();
                sheet.put(0, row, "name", p.name(), t -> NodeFactory.styled(t, "body"));
                sheet.put(1, row, "value", p.formatWithUnit(of.get(i).value()), KeepView::whole);
            }
        }
    }

    private void values(Recipe recipe, Map<String, Tolerances.Span> tolerances) {
        Parameter.Group group = null;
        for (Recipe.Setting v : recipe.settings()) {
            Parameter p = v.parameter();
            if (p.group() != group) {
                group = p.group();
                sheet.put(0, sheet.row(), "group", group.title(), t -> NodeFactory.styled(t, "sheet-group"));
            }
            Tolerances.Span span = tolerances.get(p.id());
            int row = sheet.row();
            sheet.put(0, row, "name", p.name(), t -> NodeFactory.styled(t, "body"));
            sheet.put(1, row, "value", p.formatWithUnit(v.value()), KeepView::whole);
            String room = span == null ? "" : p.format(span.low()) + " to " + p.format(span.high());
            sheet.put(2, row, "room", room, NodeFactory::quiet);
        }
    }
}
