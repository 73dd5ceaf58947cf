package nightreed.desktop.shell;

import java.io.File;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Supplier;
import javafx.animation.Animation;
import javafx.animation.KeyFrame;
import javafx.animation.Timeline;
import javafx.application.Platform;
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
import javafx.stage.Window;
import javafx.util.Duration;
import nightreed.desktop.bench.Bench;
import nightreed.desktop.bench.BenchState;
import nightreed.desktop.bench.TaskState;
import nightreed.desktop.drawing.Drawing;
import nightreed.desktop.page.AboutPage;
import nightreed.desktop.page.GuidePage;
import nightreed.desktop.page.Page;
import nightreed.desktop.page.PreferencesPage;
import nightreed.desktop.page.WelcomePage;
import nightreed.desktop.rail.ListeningRail;
import nightreed.desktop.settings.PreferenceStore;
import nightreed.desktop.settings.Preferences;
import nightreed.desktop.settings.Preferences.Look;
import nightreed.desktop.stage.BriefView;
import nightreed.desktop.stage.BuildView;
import nightreed.desktop.stage.CompareView;
import nightreed.desktop.stage.KeepView;
import nightreed.desktop.stage.MeasureView;
import nightreed.desktop.stage.PlayView;
import nightreed.desktop.stage.Stage6;
import nightreed.desktop.stage.StageView;
import nightreed.device.SoundOut;
import nightreed.device.midi.MidiIn;
import nightreed.project.Imitation;
import nightreed.project.ProjectFile;

/** The whole window. */
public final class Shell extends BorderPane {
    private final Bench bench;
    private final Supplier<SoundOut> outputs;
    private final Supplier<MidiIn> midi;
    private SoundOut sound; // from complete() on, as are rail, path and side
    private final PreferenceStore preferences;
    private final Looks looks;
    private ListeningRail rail;
    private StagePath path;
    private final Map<Stage6, StageView> views = new EnumMap<>(Stage6.class);
    private final StackPane centre = new StackPane();
    private final ScrollPane margin = new ScrollPane();
    private final StackPane allNotes = new StackPane();
    private MarginSide side;
    private ProjectMenu project;
    private final Button unsaved = new Button();
    private final Button readMore = new Button("Read more");
    private final Timeline retry = new Timeline(new KeyFrame(Duration.seconds(3), e -> retry()));
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
    private Page page; // in place of the stage, null if none is open
    private GuidePage guide;
    private boolean warm;
    private PreferencesPage preferencesPage;
    private String helpTarget = "index";

    /**
     * Nothing but the ground; the rest comes with {@link #complete}, so that the window is there sooner.
     *
     * @param outputs opens the sound output, which may take a moment
     */
    public Shell(Bench bench, Supplier<SoundOut> outputs, Supplier<MidiIn> midi, PreferenceStore preferences) {
        this.midi = midi;
        this.bench = bench;
        this.outputs = outputs;
        this.preferences = preferences;
        looks = new Looks(preferences.get().look());
        setBottom(ground("rail"));
        setTop(ground("top"));
        setLeft(ground("stage-path"));
    }

    private Region ground(String style) {
        Region r = new Region();
        r.getStyleClass().add(style);
        looks.add(r);
        return r;
    }

    /** Puts everything into the window and begins to follow the bench. Once; later calls do nothing. */
    public void complete() {
        if (rail != null) {
            return;
        }
        sound = outputs.get();
        path = new StagePath(this::go);
        side = new MarginSide(margin);
        Help.chapter(path, "index");
        centre.getStyleClass().add("centre");
        margin.setFitToWidth(true);
        margin.setContent(allNotes);
        allNotes.setAlignment(Pos.TOP_LEFT);
        margin.setMinWidth(230);
        margin.getStyleClass().add("margin");
        margin.setFocusTraversable(false);
        VBox head = new VBox(top(), messageLine());
        Help.chapter(head, "projects");
        setTop(head);
        setLeft(path);
        side.setWidthShare(1 - preferences.get().place().dividerShare());
        setCenter(centre);
        setRight(side);
        notes(preferences.get().place().notes());
        rail = new ListeningRail(bench, sound);
        Help.chapter(rail, "listening");
        setBottom(rail);
        List.of(head, path, side, rail).forEach(looks::add);
        bench.stateProperty().addListener((o, before, s) -> show(before, s));
        bench.taskProperty().addListener((o, a, t) -> show(t));
        show(bench.taskProperty().get());
        bench.messageProperty().addListener((o, a, text) -> say(text, false));
        say(bench.messageProperty().get(), false); // something may have gone wrong before there was a place to say it
        bench.unsavedProperty().addListener((o, a, n) -> {
            unsaved.setText(n.intValue() == 1 ? "1 change is not in the file" : n + " changes are not in the file");
            unsaved.setVisible(n.intValue() > 0);
            unsaved.setManaged(n.intValue() > 0);
        });
        bench.intake().longFileProperty().addListener((o, a, file) -> {
            if (file != null) {
                go(Stage6.BRIEF);
            }
        });
        bench.selectedProperty().addListener((o, a, p) -> view(stage).show(bench.state()));
        preferences.currentProperty().addListener((o, a, p) -> {
            view(stage).show(bench.state());
        });
        sound.setOnChange(output -> Platform.runLater(() -> rail.show(output)));
        retry.setCycleCount(Animation.INDEFINITE);
        retry.play();
        dropping();
        go(stage);
        show(BenchState.EMPTY, bench.state());
        if (!preferences.get().welcomed()) {
            openWelcome();
        }
    }

    /** A stage's view, made when it is first asked for: the window is there sooner with one than with six. */
    private StageView view(Stage6 s) {
        StageView there = views.get(s);
        if (there != null) {
            return there;
        }
        StageView view = switch (s) {
            case BRIEF -> new BriefView(bench);
            case MEASURE -> new MeasureView(bench, preferences);
            case BUILD -> new BuildView(bench);
            case COMPARE -> new CompareView(bench, preferences);
            case PLAY -> new PlayView(bench, rail.keys(), midi.get(), preferences);
            case KEEP -> new KeepView(bench);
        };
        views.put(s, view);
        String chapter = s.title().toLowerCase(Locale.ROOT);
        Help.chapter(view.centre(), chapter);
        Help.chapter(view.margin(), chapter);
        show(view.centre(), false);
        show(view.margin(), false);
        // all stay in the window: putting one in anew would have everything in it styled again, at every change of
        // stage
        looks.add(view.centre());
        centre.getChildren().add(view.centre());
        allNotes.getChildren().add(view.margin());
        return view;
    }

    private void show(Node n, boolean on) {
        n.setVisible(on);
        n.setManaged(on);
        if (on) {
            looks.ready(n);
            Drawing.freshen(n);
        }
    }

    /**
     * Styles and lays out what has not been seen yet, a piece at a time while nothing else happens, so that the first visit
     * is as quick as every other.
     */
    private void warmUp() {
        List<Runnable> pieces = new ArrayList<>();
        for (Stage6 s : Stage6.values()) {
            pieces.add(() -> glimpse(s, view(s).centre(), true));
            pieces.add(() -> glimpse(s, view(s).centre(), false));
            pieces.add(() -> glimpse(s, view(s).margin(), true));
            pieces.add(() -> glimpse(s, view(s).margin(), false));
        }
        pieces.add(this::guide);
        pieces.add(this::preferencesPage);
        Timeline quietly = new Timeline();
        for (int i = 0; i < pieces.size(); i++) {
            Runnable piece = pieces.get(i);
            quietly.getKeyFrames().add(new KeyFrame(Duration.millis(600 + 120 * i), e -> piece.run()));
        }
        quietly.play();
    }

    private void glimpse(Stage6 s, Node n, boolean on) {
        if (page != null || s != stage) {
            if (on) {
                view(s).show(bench.state());
            }
            unseen(n, on);
            show(n, on);
        } else {
            unseen(n, false);
        }
    }

    /** Whether a node that is styled and laid out is kept from eye and mouse. */
    private static void unseen(Node n, boolean yes) {
        n.setOpacity(yes ? 0 : 1);
        n.setMouseTransparent(yes);
    }

    /** What the welcome page leads to. */
    private final class Beginnings implements WelcomePage.Ways {
        @Override
        public void recording() {
            leavePage();
            go(Stage6.BRIEF);
        }

        @Override
        public void room() {
            leavePage();
            go(Stage6.BRIEF);
            ((BriefView) view(Stage6.BRIEF)).focusRoom();
        }

        @Override
        public void demo() {
            leavePage();
            bench.openDemo();
        }
    }

    /** Stops what ticks; the shell is not used after this. */
    public void close() {
        complete(); // all that ticks is there to be stopped
        retry.stop();
        rail.close();
        views.values().forEach(StageView::close);
    }

    private void retry() {
        bench.retry();
    }

    // ---- pages ----

    private void open(Page next) {
        complete();
        closePage();
        show(view(stage).centre(), false);
        if (!centre.getChildren().contains(next)) {
            looks.add(next);
            centre.getChildren().add(next);
        }
        unseen(next, false);
        show(next, true);
        page = next;
        show(side, false);
        next.arrive();
    }

    /** The page in place of the stage, null if there is none. */
    public Page page() {
        return page;
    }

    private void closePage() {
        if (page != null) {
            show(page, false);
            if (page != guide && page != preferencesPage) { // made anew each time
                centre.getChildren().remove(page);
                looks.remove(page);
            }
            page = null;
            preferences.change(Preferences::asWelcomed);
        }
    }

    private void leavePage() {
        go(stage);
    }

    /** Opens the guide at a chapter, such as "compare" or "preferences#sound". */
    public void openGuide(String target) {
        guide().open(target);
        open(guide);
    }

    public void openPreferences() {
        open(preferencesPage());
    }

    private GuidePage guide() {
        if (guide == null) {
            guide = new GuidePage(this::leavePage);
            putAway(guide);
        }
        return guide;
    }

    private PreferencesPage preferencesPage() {
        if (preferencesPage == null) {
            preferencesPage = new PreferencesPage(preferences, sound, this::leavePage);
            Help.chapter(preferencesPage, "preferences");
            putAway(preferencesPage);
        }
        return preferencesPage;
    }

    /** Has a page styled once, unseen. */
    private void putAway(Page p) {
        looks.add(p);
        centre.getChildren().add(p);
        unseen(p, true);
        Platform.runLater(() -> show(p, p == page));
    }

    /** What is shown when the program is started for the first time. */
    public void openWelcome() {
        open(new WelcomePage(new Beginnings(), this::leavePage));
    }

    public void openAbout() {
        open(new AboutPage(this::leavePage));
    }

    private void help() {
        Help.Answer a = Help.about(getScene().getFocusOwner());
        helpTarget = a.target();
        say(a.words(), true);
    }

    // ---- margin ----

    private void notes(boolean open) {
        show(side, open && page == null);
        fold.setText(open ? "Notes ›" : "‹ Notes");
    }

    public boolean notesOpen() {
        return preferences.get().place().notes();
    }

    /** Share of the width that the stage has. */
    public double dividerShare() {
        return 1 - side.widthShare();
    }

    private void foldNotes() {
        Preferences.Place p = preferences.get().place();
        boolean open = !p.notes();
        double share = dividerShare();
        preferences.change(q ->
                q.withPlace(new Preferences.Place(p.x(), p.y(), p.width(), p.height(), p.maximized(), share, open)));
        notes(open);
    }

    public KeepView keep() {
        return (KeepView) view(Stage6.KEEP);
    }

    public ListeningRail rail() {
        complete();
        return rail;
    }

    public Stage6 stage() {
        return stage;
    }

    private HBox top() {
        project = new ProjectMenu(bench, preferences, this);
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
        fold.setId("fold-notes");
        fold.setAccessibleText("Fold the margin notes away or out");
        fold.setOnAction(e -> foldNotes());
        unsaved.getStyleClass().addAll("link", "unsaved");
        unsaved.setId("unsaved");
        unsaved.setAccessibleHelp(
                "They are kept in the window and written as soon as it can be done. Press to save a copy.");
        unsaved.setOnAction(e -> project.chooseCopy());
        unsaved.setVisible(false);
        unsaved.setManaged(false);
        taskBar.setPrefWidth(90);
        taskName.getStyleClass().add("quiet");
        Button stop = new Button("stop");
        stop.getStyleClass().add("link");
        stop.setId("stop-task");
        stop.setAccessibleText("Stop the task");
        taskBar.setAccessibleText("Progress of the task");
        stop.setOnAction(e -> bench.cancel());
        task.getChildren().addAll(taskName, taskBar, stop);
        task.getStyleClass().add("task");
        task.setAlignment(Pos.CENTER_LEFT);
        task.setVisible(false);
        task.setManaged(false); // it leaves its place to the names
        for (Region r : List.of(undo, redo, fold, stop, unsaved)) {
            r.setMinWidth(Region.USE_PREF_SIZE);
        }
        Region gap = new Region();
        HBox.setHgrow(gap, javafx.scene.layout.Priority.ALWAYS);
        HBox row = new HBox(8, project, slash, imitation, gap, task, unsaved, undo, redo, fold);
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
        away.setId("dismiss-message");
        away.setOnAction(e -> dismiss());
        HBox.setHgrow(messageText, javafx.scene.layout.Priority.ALWAYS);
        messageText.setMaxWidth(Double.MAX_VALUE);
        readMore.getStyleClass().add("link");
        readMore.setId("read-more");
        readMore.setMinWidth(Region.USE_PREF_SIZE);
        readMore.setOnAction(e -> {
            say(null, false);
            openGuide(helpTarget);
        });
        message.getChildren().addAll(messageText, readMore, away);
        message.setAlignment(Pos.CENTER_LEFT);
        message.getStyleClass().add("message");
        message.setVisible(false);
        message.setManaged(false);
        return message;
    }

    private void dismiss() {
        bench.dismissMessage();
        say(null, false);
    }

    /** @param help whether it is an answer to F1 and not something that went wrong */
    private void say(String text, boolean help) {
        messageText.setText(text == null ? "" : text);
        readMore.setVisible(help);
        readMore.setManaged(help);
        message.getStyleClass().setAll(help ? "info" : "message");
        message.setVisible(text != null);
        message.setManaged(text != null);
    }

    /** Brings a stage to the front, in place of any page. */
    public void go(Stage6 next) {
        complete();
        if (page != null) {
            closePage();
            notes(notesOpen());
        }
        StageView before = view(stage);
        show(before.centre(), false);
        show(before.margin(), false);
        stage = next;
        StageView v = view(next);
        v.show(bench.state());
        unseen(v.centre(), false);
        unseen(v.margin(), false);
        show(v.centre(), true);
        show(v.margin(), true);
        margin.setVvalue(0);
        path.show(stage, bench.state());
    }

    private void show(BenchState before, BenchState s) {
        if (!warm && s.current() != null) {
            warm = true;
            warmUp();
        }
        project.setText(s.projectName().isEmpty() ? "no project" : s.projectName());
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
        } else if (page == null) {
            view(stage).show(s);
            path.show(stage, s);
        }
    }

    private void show(TaskState t) {
        task.setVisible(t != null);
        task.setManaged(t != null);
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
            Path first = files.get(0).toPath();
            if (first.toString().endsWith(ProjectFile.ENDING)) {
                bench.openProject(first);
            } else {
                bench.intake().file(first);
            }
        }
    }

    /** Has the window change to a look, a part of it at a time. */
    public void wear(Look look) {
        looks.change(getScene(), look);
    }

    /** Looks and keys of the whole window. Letters play unless text is being typed. */
    public void enter(Scene scene) {
        looks.begin(scene, preferences.get().look());
        scene.addEventFilter(KeyEvent.KEY_PRESSED, this::pressed);
        scene.addEventFilter(KeyEvent.KEY_RELEASED, e -> {
            if (!typing(scene) && rail != null) {
                rail.keys().letterUp(e.getCode());
            }
        });
        // a key that is let go elsewhere would sound for ever
        scene.windowProperty().flatMap(Window::focusedProperty).orElse(false).addListener((o, was, is) -> {
            if (!is && rail != null) {
                rail.keys().releaseAll();
            }
        });
    }

    private static boolean typing(Scene scene) {
        return scene.getFocusOwner() instanceof TextInputControl;
    }

    private void pressed(KeyEvent e) {
        complete();
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
            keep().keepTake();
        } else if (e.isControlDown() && code == KeyCode.N) {
            project.chooseNew();
        } else if (e.isControlDown() && code == KeyCode.O) {
            project.chooseOpen();
        } else if (e.isControlDown() && e.isShiftDown() && code == KeyCode.S) {
            project.chooseCopy();
        } else if (e.isControlDown() && code == KeyCode.COMMA) {
            openPreferences();
        } else if (code == KeyCode.F1 && e.isShiftDown()) {
            openGuide("index");
        } else if (code == KeyCode.F1) {
            help();
        } else if (code == KeyCode.ESCAPE
                && bench.controllers().learningProperty().get() != null) {
            bench.controllers().learn(null);
            dismiss();
        } else if (code == KeyCode.ESCAPE && message.isVisible()) {
            dismiss();
        } else if (code == KeyCode.ESCAPE && page != null) {
            leavePage();
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
            used = rail.keys().letterDown(code) || page == null && view(stage).key(e);
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
