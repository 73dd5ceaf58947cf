package nightreed.desktop.shell;

import java.io.File;
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
import javafx.scene.control.ScrollPane;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.util.Duration;
import nightreed.desktop.drawing.Drawing;
import nightreed.desktop.page.AboutPage;
import nightreed.desktop.page.GuidePage;
import nightreed.desktop.page.MachinePage;
import nightreed.desktop.page.Page;
import nightreed.desktop.page.PreferencesPage;
import nightreed.desktop.page.WelcomePage;
import nightreed.desktop.rail.ListeningRail;
import nightreed.desktop.settings.PreferenceStore;
import nightreed.desktop.settings.Preferences;
import nightreed.desktop.settings.Preferences.Look;
import nightreed.desktop.stage.StageView;
import nightreed.desktop.stage.WorkStage;
import nightreed.desktop.stage.brief.BriefView;
import nightreed.desktop.stage.build.BuildView;
import nightreed.desktop.stage.compare.CompareView;
import nightreed.desktop.stage.keep.KeepView;
import nightreed.desktop.stage.measure.MeasureView;
import nightreed.desktop.stage.play.PlayView;
import nightreed.desktop.workspace.Workspace;
import nightreed.desktop.workspace.WorkspaceState;
import nightreed.device.SoundOut;
import nightreed.device.midi.MidiIn;

/** The whole window. */
public final class Shell extends BorderPane {
    private final Workspace bench;
    private final Supplier<SoundOut> outputs;
    private final Supplier<MidiIn> midi;
    private SoundOut sound; // from complete() on, as are rail, path and side
    private final PreferenceStore preferences;
    private final Looks looks;
    private ListeningRail rail;
    private StagePath path;
    private final Map<WorkStage, StageView> views = new EnumMap<>(WorkStage.class);
    private final StackPane centre = new StackPane();
    private final ScrollPane margin = new ScrollPane();
    private final StackPane allNotes = new StackPane();
    private MarginSide side;
    private ProjectMenu project;
    private final Timeline retry = new Timeline(new KeyFrame(Duration.seconds(3), e -> retry()));
    private TopLine top;
    private final MessageLine message = new MessageLine(this::dismiss, this::openGuide);
    private WorkStage stage = WorkStage.BRIEF;
    private Page page; // in place of the stage, null if none is open
    private GuidePage guide;
    private boolean warm;
    private PreferencesPage preferencesPage;
    private MachinePage machinePage;

    /**
     * Nothing but the ground; the rest comes with {@link #complete}, so that the window is there sooner.
     *
     * @param outputs opens the sound output, which may take a moment
     */
    public Shell(Workspace bench, Supplier<SoundOut> outputs, Supplier<MidiIn> midi, PreferenceStore preferences) {
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
        project = new ProjectMenu(bench, preferences, this);
        top = new TopLine(bench, this, project);
        VBox head = new VBox(top, message);
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
        bench.taskProperty().addListener((o, a, t) -> top.show(t));
        top.show(bench.taskProperty().get());
        bench.messageProperty().addListener((o, a, text) -> message.say(text));
        message.say(bench.messageProperty().get()); // something may have gone wrong before there was a place to say it
        bench.unsavedProperty().addListener((o, a, n) -> top.unsaved(n.intValue()));
        bench.intake().longFileProperty().addListener((o, a, file) -> {
            if (file != null) {
                go(WorkStage.BRIEF);
            }
        });
        bench.selectedProperty().addListener((o, a, p) -> view(stage).show(bench.state()));
        preferences.currentProperty().addListener((o, a, p) -> {
            view(stage).show(bench.state());
        });
        sound.setOnChange(output -> Platform.runLater(() -> rail.show(output)));
        retry.setCycleCount(Animation.INDEFINITE);
        retry.play();
        FileDrop.onto(this, bench);
        go(stage);
        show(WorkspaceState.EMPTY, bench.state());
        if (!preferences.get().welcomed()) {
            openWelcome();
        }
    }

    /** A stage's view, made when it is first asked for: the window is there sooner with one than with six. */
    StageView view(WorkStage s) {
        StageView there = views.get(s);
        if (there != null) {
            return there;
        }
        StageView view = switch (s) {
            case BRIEF -> new BriefView(bench, preferences);
            case MEASURE -> new MeasureView(bench, preferences);
            case BUILD -> new BuildView(bench, this::openMachine);
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

    void show(Node n, boolean on) {
        n.setVisible(on);
        n.setManaged(on);
        if (on) {
            looks.ready(n);
            Drawing.freshen(n);
        }
    }

    /** Whether a node that is styled and laid out is kept from eye and mouse. */
    static void unseen(Node n, boolean yes) {
        n.setOpacity(yes ? 0 : 1);
        n.setMouseTransparent(yes);
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
            if (page != guide && page != preferencesPage && page != machinePage) { // made anew each time
                centre.getChildren().remove(page);
                looks.remove(page);
            }
            page = null;
            preferences.change(Preferences::asWelcomed);
        }
    }

    void leavePage() {
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

    /** Opens what the machine can do that has to play what is fitted. */
    public void openMachine() {
        if (machinePage == null) {
            machinePage = new MachinePage(bench, this::leavePage);
            Help.chapter(machinePage, "build");
        }
        open(machinePage);
    }

    GuidePage guide() {
        if (guide == null) {
            guide = new GuidePage(this::leavePage);
            putAway(guide);
        }
        return guide;
    }

    PreferencesPage preferencesPage() {
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
        open(new WelcomePage(new Beginnings(this, bench), this::leavePage));
    }

    public void openAbout() {
        open(new AboutPage(this::leavePage));
    }

    void help() {
        message.answer(Help.about(getScene().getFocusOwner()));
    }

    private void dismiss() {
        bench.dismissMessage();
        message.clear();
    }

    /** Ends what is open before anything else: learning of a controller, a message, a page. */
    boolean escape() {
        if (bench.controllers().learningProperty().get() != null) {
            bench.controllers().learn(null);
            dismiss();
        } else if (message.isVisible()) {
            dismiss();
        } else if (page != null) {
            leavePage();
        } else {
            return false;
        }
        return true;
    }

    // ---- margin ----

    private void notes(boolean open) {
        show(side, open && page == null);
        top.notes(open);
    }

    public boolean notesOpen() {
        return preferences.get().place().notes();
    }

    /** Share of the width that the stage has. */
    public double dividerShare() {
        return 1 - side.widthShare();
    }

    void foldNotes() {
        Preferences.Place p = preferences.get().place();
        boolean open = !p.notes();
        double share = dividerShare();
        preferences.change(q ->
                q.withPlace(new Preferences.Place(p.x(), p.y(), p.width(), p.height(), p.maximized(), share, open)));
        notes(open);
    }

    public KeepView keep() {
        return (KeepView) view(WorkStage.KEEP);
    }

    public ListeningRail rail() {
        complete();
        return rail;
    }

    public WorkStage stage() {
        return stage;
    }

    /** Brings a stage to the front, in place of any page. */
    public void go(WorkStage next) {
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

    private void show(WorkspaceState before, WorkspaceState s) {
        if (!warm && s.current() != null) {
            warm = true;
            new WarmUp(this, bench).begin();
        }
        project.setText(s.projectName().isEmpty() ? "no project" : s.projectName());
        top.show(before, s);
        boolean arrived = s.recording() != null
                && before.recording() != s.recording()
                && s.recipe() == null
                && before.current() != null;
        if (arrived) {
            go(WorkStage.MEASURE);
        } else if (page == null) {
            view(stage).show(s);
            path.show(stage, s);
        }
    }

    /** Takes dropped files in: the first is measured, and a second is refused with a word. */
    public void drop(List<File> files) {
        FileDrop.take(bench, files);
    }

    /** Has the window change to a look, a part of it at a time. */
    public void wear(Look look) {
        looks.change(getScene(), look);
    }

    /** Looks and keys of the whole window. */
    public void enter(Scene scene) {
        looks.begin(scene, preferences.get().look());
        new WindowKeys(bench, this).enter(scene);
    }

    /** Whether the stage that is shown did something with a key. */
    boolean stageTakes(KeyEvent e) {
        return page == null && view(stage).key(e);
    }

    ProjectMenu projects() {
        complete();
        return project;
    }

    boolean isComplete() {
        return rail != null;
    }
}
