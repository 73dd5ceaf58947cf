package nightreed.desktop.shell;

import java.io.File;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.ProgressBar;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.TransferMode;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import nightreed.desktop.bench.Bench;
import nightreed.desktop.bench.BenchState;
import nightreed.desktop.bench.TaskState;
import nightreed.desktop.rail.ListeningRail;
import nightreed.desktop.stage.BriefView;
import nightreed.desktop.stage.BuildView;
import nightreed.desktop.stage.CompareView;
import nightreed.desktop.stage.KeepView;
import nightreed.desktop.stage.MeasureView;
import nightreed.desktop.stage.PlayView;
import nightreed.desktop.stage.Stage6;
import nightreed.desktop.stage.StageView;
import nightreed.device.AudioOutput;
import nightreed.project.Imitation;

/** The whole window. */
public final class Shell extends BorderPane {
    private final Bench bench;
    private final ListeningRail rail;
    private final StagePath path;
    private final Map<Stage6, StageView> views = new EnumMap<>(Stage6.class);
    private final StackPane centre = new StackPane();
    private final ScrollPane margin = new ScrollPane();
    private final KeepView keep;
    private final Label project = new Label();
    private final MenuButton imitation = new MenuButton();
    private final Button undo = new Button("Undo");
    private final Button redo = new Button("Redo");
    private final Button fold = new Button("Notes ›");
    private final HBox task = new HBox(8);
    private final Label taskName = new Label();
    private final ProgressBar taskBar = new ProgressBar(0);
    private final HBox message = new HBox(10);
    private final Label messageText = new Label();
    private Stage6 stage = Stage6.BRIEF;

    public Shell(Bench bench, AudioOutput output) {
        this.bench = bench;
        this.rail = new ListeningRail(bench, output);
        this.path = new StagePath(this::go);
        this.keep = new KeepView(bench);
        getStyleClass().add("shell");
        views.put(Stage6.BRIEF, new BriefView(bench));
        views.put(Stage6.MEASURE, new MeasureView(bench));
        views.put(Stage6.BUILD, new BuildView(bench));
        views.put(Stage6.COMPARE, new CompareView(bench));
        views.put(Stage6.PLAY, new PlayView(bench, rail.keys()));
        views.put(Stage6.KEEP, keep);
        centre.getStyleClass().add("centre");
        margin.setFitToWidth(true);
        margin.setPrefWidth(270);
        margin.setMinWidth(230);
        margin.getStyleClass().add("margin");
        margin.setFocusTraversable(false);
        setTop(new VBox(top(), messageLine()));
        setLeft(path);
        setCenter(centre);
        setRight(margin);
        setBottom(rail);
        bench.stateProperty().addListener((o, before, s) -> show(before, s));
        bench.taskProperty().addListener((o, a, t) -> show(t));
        bench.messageProperty().addListener((o, a, text) -> {
            messageText.setText(text == null ? "" : text);
            message.setVisible(text != null);
            message.setManaged(text != null);
        });
        bench.selectedProperty().addListener((o, a, p) -> views.get(stage).show(bench.state()));
        dropping();
        go(Stage6.BRIEF);
    }

    public KeepView keep() {
        return keep;
    }

    public ListeningRail rail() {
        return rail;
    }

    public Stage6 stage() {
        return stage;
    }

    private HBox top() {
        project.getStyleClass().add("quiet-title");
        imitation.getStyleClass().add("title");
        imitation.setId("imitations");
        imitation.setAccessibleText("Imitation on the bench");
        Label slash = new Label("/");
        slash.getStyleClass().add("quiet-title");
        undo.getStyleClass().add("link");
        undo.setId("undo");
        undo.setOnAction(e -> bench.undo());
        redo.getStyleClass().add("link");
        redo.setId("redo");
        redo.setOnAction(e -> bench.redo());
        fold.getStyleClass().add("link");
        fold.setAccessibleText("Fold the margin notes away or out");
        fold.setOnAction(e -> {
            boolean open = getRight() != null;
            setRight(open ? null : margin);
            fold.setText(open ? "‹ Notes" : "Notes ›");
        });
        taskBar.setPrefWidth(90);
        taskName.getStyleClass().add("quiet");
        Button stop = new Button("stop");
        stop.getStyleClass().add("link");
        stop.setId("stop-task");
        stop.setOnAction(e -> bench.cancel());
        task.getChildren().addAll(taskName, taskBar, stop);
        task.getStyleClass().add("task");
        task.setAlignment(Pos.CENTER_LEFT);
        task.setVisible(false);
        for (Region r : List.of(undo, redo, fold, stop)) {
            r.setMinWidth(Region.USE_PREF_SIZE);
        }
        Region gap = new Region();
        HBox.setHgrow(gap, javafx.scene.layout.Priority.ALWAYS);
        HBox row = new HBox(8, project, slash, imitation, gap, task, undo, redo, fold);
        row.setAlignment(Pos.CENTER_LEFT);
        row.getStyleClass().add("top");
        return row;
    }

    private HBox messageLine() {
        messageText.setWrapText(true);
        messageText.setId("message");
        Button away = new Button("put away");
        away.getStyleClass().add("link");
        away.setMinWidth(Region.USE_PREF_SIZE);
        away.setOnAction(e -> bench.dismissMessage());
        HBox.setHgrow(messageText, javafx.scene.layout.Priority.ALWAYS);
        messageText.setMaxWidth(Double.MAX_VALUE);
        message.getChildren().addAll(messageText, away);
        message.setAlignment(Pos.CENTER_LEFT);
        message.getStyleClass().add("message");
        message.setVisible(false);
        message.setManaged(false);
        return message;
    }

    /** Brings a stage to the front. */
    public void go(Stage6 next) {
        stage = next;
        StageView v = views.get(next);
        v.show(bench.state());
        Node content = v.centre();
        centre.getChildren().setAll(content);
        margin.setContent(v.margin());
        v.margin().getStyleClass().add("margin-notes");
        path.show(stage, bench.state());
    }

    private void show(BenchState before, BenchState s) {
        project.setText(s.projectName());
        imitation.setText(s.current() == null ? "" : s.current().name());
        if (!s.imitations().equals(before.imitations()) || imitation.getItems().isEmpty()) {
            imitation.getItems().clear();
            for (Imitation i : s.imitations()) {
                MenuItem item = new MenuItem(i.name());
                item.setOnAction(e -> bench.choose(i));
                imitation.getItems().add(item);
            }
            MenuItem fresh = new MenuItem("New imitation");
            fresh.setOnAction(e -> {
                bench.addImitation("Imitation " + (s.imitations().size() + 1));
                go(Stage6.BRIEF);
            });
            imitation.getItems().add(fresh);
        }
        undo.setText(s.undoLabel() == null ? "Undo" : "Undo: " + s.undoLabel());
        undo.setDisable(s.undoLabel() == null);
        redo.setText(s.redoLabel() == null ? "Redo" : "Redo: " + s.redoLabel());
        redo.setDisable(s.redoLabel() == null);
        boolean arrived = s.recording() != null
                && before.recording() != s.recording()
                && s.recipe() == null
                && before.current() != null;
        if (arrived) {
            go(Stage6.MEASURE);
        } else {
            views.get(stage).show(s);
            path.show(stage, s);
        }
    }

    private void show(TaskState t) {
        task.setVisible(t != null);
        if (t != null) {
            String doing = t.doing().isEmpty() ? "" : ": " + t.doing();
            taskName.setText(t.name() + doing);
            taskBar.setProgress(t.fraction());
        }
    }

    private void dropping() {
        setOnDragOver(e -> {
            if (e.getDragboard().hasFiles()) {
                e.acceptTransferModes(TransferMode.COPY);
            }
            e.consume();
        });
        setOnDragDropped(e -> {
            drop(e.getDragboard().getFiles());
            e.setDropCompleted(true);
            e.consume();
        });
    }

    /** Takes dropped files in: the first is measured, and a second is refused with a word. */
    public void drop(List<File> files) {
        if (files.size() > 1) {
            bench.say("One recording at a time: the first of the " + files.size() + " files is taken in.");
        }
        if (!files.isEmpty()) {
            bench.importFile(files.get(0).toPath());
        }
    }

    /** Keys of the whole window. Letters play unless text is being typed. */
    public void listen(Scene scene) {
        scene.addEventFilter(KeyEvent.KEY_PRESSED, this::pressed);
        scene.addEventFilter(KeyEvent.KEY_RELEASED, e -> {
            if (!typing(scene)) {
                rail.keys().letterUp(e.getCode());
            }
        });
        scene.windowProperty().addListener((o, a, w) -> {
            if (w != null) {
                // a key that is let go elsewhere would sound for ever
                w.focusedProperty().addListener((f, was, is) -> {
                    if (!is) {
                        rail.keys().releaseAll();
                    }
                });
            }
        });
    }

    private static boolean typing(Scene scene) {
        return scene.getFocusOwner() instanceof TextInputControl;
    }

    private void pressed(KeyEvent e) {
        boolean typing = typing(getScene());
        KeyCode code = e.getCode();
        boolean used = true;
        if (e.isControlDown() && code.isDigitKey() && digit(code) >= 1 && digit(code) <= 6) {
            go(List.of(Stage6.values()).get(digit(code) - 1));
        } else if (e.isControlDown() && code == KeyCode.Z && !typing) {
            if (e.isShiftDown()) {
                bench.redo();
            } else {
                bench.undo();
            }
        } else if (e.isControlDown() && code == KeyCode.ENTER) {
            if (bench.state().moves() != null && !bench.state().moves().isEmpty()) {
                bench.apply(bench.state().moves().get(0));
            }
        } else if (e.isControlDown() && code == KeyCode.PERIOD) {
            rail.keys().releaseAll();
            bench.desk().panic();
        } else if (e.isControlDown() && code == KeyCode.T) {
            keep.keepTake();
        } else if (code == KeyCode.SPACE && !typing && !onButton()) {
            if (e.isShiftDown()) {
                rail.swap();
            } else {
                rail.playOrStop();
            }
        } else if (!typing && code == KeyCode.PAGE_UP) {
            rail.keys().octave(1);
        } else if (!typing && code == KeyCode.PAGE_DOWN) {
            rail.keys().octave(-1);
        } else if (!typing && !e.isControlDown() && !e.isAltDown() && !e.isMetaDown()) {
            used = rail.keys().letterDown(code);
        } else {
            used = false;
        }
        if (used) {
            e.consume();
        }
    }

    /** Space presses a button that was reached with Tab; a button that was clicked gives Space back to the player. */
    private boolean onButton() {
        Node owner = getScene().getFocusOwner();
        return owner instanceof javafx.scene.control.ButtonBase && owner.isFocusVisible();
    }

    private static int digit(KeyCode code) {
        String name = code.getName().toLowerCase(Locale.ROOT);
        char last = name.charAt(name.length() - 1);
        return Character.isDigit(last) ? last - '0' : -1;
    }
}
