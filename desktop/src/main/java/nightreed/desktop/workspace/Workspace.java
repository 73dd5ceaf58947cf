package nightreed.desktop.workspace;

import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Executor;
import java.util.function.Consumer;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.ReadOnlyIntegerProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleObjectProperty;
import nightreed.device.OutputMixer;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.hearing.JndThresholds;
import nightreed.match.sound.AnalysedSound;
import nightreed.measure.ManualCorrections;
import nightreed.measure.Measurement;
import nightreed.measure.partial.Partial;
import nightreed.project.Imitation;
import nightreed.project.ProjectFile;
import nightreed.project.Snapshot;
import nightreed.project.UnusableProject;
import nightreed.recipe.Patch;
import nightreed.recipe.part.Parameter;
import nightreed.sound.Clip;
import nightreed.sound.UnusableSound;
import nightreed.work.Progress;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * What is on the bench and what can be done with it. All public methods are called on the UI thread and return at once;
 * results come back there as one new {@link WorkspaceState}. Work runs on three executors handed in: {@code worker} for long
 * tasks, {@code scribe} for the project file (one thread), {@code follower} for what follows every moved value (one
 * thread).
 */
public final class Workspace {
    private static final Logger LOG = LoggerFactory.getLogger(Workspace.class);
    private static final long ALWAYS = Long.MAX_VALUE;
    private final Executor ui;
    private final ProjectWriter scribe;
    private final OutputMixer desk;

    private final ReadOnlyObjectWrapper<WorkspaceState> state = new ReadOnlyObjectWrapper<>(WorkspaceState.EMPTY);
    private final ReadOnlyObjectWrapper<String> message = new ReadOnlyObjectWrapper<>();
    private final SimpleObjectProperty<Parameter> asked = new SimpleObjectProperty<>();
    private final SimpleObjectProperty<Partial> selected = new SimpleObjectProperty<>();
    private final Controllers controllers;
    private final Fitting fitting;
    private final SimplerPatches simpler;
    private final RecordingImport intake;
    private final TargetIntake targets = new TargetIntake(this);
    private final SimpleBooleanProperty effectsJudged = new SimpleBooleanProperty(true);
    private final RecipeIntake recipes = new RecipeIntake(this);
    private final LiveUpdater following;
    private final RecipeEditor shaping;
    private final Tasks tasks;
    private final ReadOnlyObjectWrapper<Path> projectPath = new ReadOnlyObjectWrapper<>();
    private volatile JndThresholds hearing = JndThresholds.USUAL;
    private long edits; // FX thread: how many have been made here

    public Workspace(Executor ui, Executor worker, Executor scribe, Executor follower, OutputMixer desk) {
        this.ui = ui;
        this.scribe = new ProjectWriter(ui, scribe, this::tell);
        this.desk = desk;
        this.controllers = new Controllers(this, ui);
        this.fitting = new Fitting(this, ui);
        this.simpler = new SimplerPatches(this);
        this.intake = new RecordingImport(this, ui);
        this.following = new LiveUpdater(this, ui, follower);
        this.shaping = new RecipeEditor(this, following);
        this.tasks = new Tasks(ui, worker, this::tell);
        effectsJudged.addListener((o, was, is) -> following.follow());
    }

    public ReadOnlyObjectProperty<WorkspaceState> stateProperty() {
        return state.getReadOnlyProperty();
    }

    public WorkspaceState state() {
        return state.get();
    }

    /** Work in progress, null if there is none. */
    public ReadOnlyObjectProperty<TaskState> taskProperty() {
        return tasks.taskProperty();
    }

    /** The last thing that went wrong, in words for people; null if it was put away. */
    public ReadOnlyObjectProperty<String> messageProperty() {
        return message.getReadOnlyProperty();
    }

    /** The partial of the recording that all pictures point at, null if none. */
    public SimpleObjectProperty<Partial> selectedProperty() {
        return selected;
    }

    /** A value of which someone wants to see what it does; whoever shows it sets null. */
    public SimpleObjectProperty<Parameter> askedProperty() {
        return asked;
    }

    public OutputMixer desk() {
        return desk;
    }

    /** Controllers of a MIDI device, and what they move. */
    public Controllers controllers() {
        return controllers;
    }

    /** Fits of all kinds. */
    public Fitting fitting() {
        return fitting;
    }

    public SimplerPatches simpler() {
        return simpler;
    }

    /** Values moved, locked, heard by themselves and decided by hand. */
    public RecipeEditor shaping() {
        return shaping;
    }

    /** How recordings come here. */
    public RecordingImport intake() {
        return intake;
    }

    /** How a typical sound comes here where there is no recording. */
    public TargetIntake targets() {
        return targets;
    }

    /** How recipes come here that no recording was fitted for. */
    public RecipeIntake recipes() {
        return recipes;
    }

    /** Whether effects are part of what is compared with the recording and told on the sheet; on at first. */
    public BooleanProperty effectsJudgedProperty() {
        return effectsJudged;
    }

    /** What is compared of a patch. */
    Patch judged(Patch patch) {
        return patch == null || effectsJudged.get() || !patch.hasEffects() ? patch : patch.withoutEffects();
    }

    /** Edits that could not be written to the project file yet; 0 as long as all is well. */
    public ReadOnlyIntegerProperty unsavedProperty() {
        return scribe.unsavedProperty();
    }

    /** Edits that are seen, but not yet known to be in the file; 0 most of the time. */
    public ReadOnlyIntegerProperty underWayProperty() {
        return scribe.underWayProperty();
    }

    /** Where the open project is, null while none is open. */
    public ReadOnlyObjectProperty<Path> projectPathProperty() {
        return projectPath.getReadOnlyProperty();
    }

    /** Judges by other thresholds of hearing from now on. */
    public void hearing(JndThresholds now) {
        if (!now.equals(hearing)) {
            hearing = now;
            if (state().recording() != null) {
                state.set(state().withRecording(StateLoader.heard(now, state().recording(), state().snapshot())));
                following.follow();
            }
        }
    }

    public void dismissMessage() {
        message.set(null);
    }

    /** Stops what is under way; nothing is changed then. */
    public void cancel() {
        tasks.cancel();
    }

    /** Lets a search that is under way end with the best it has. */
    public void enough() {
        tasks.enough();
    }

    /** What is asked of the project, or changed in it beside its imitations' histories; runs on the scribe. */
    public interface Asked<T> {
        T of(ProjectFile project) throws UnusableProject;
    }

    /** @param then given the answer on the UI thread; not called if the project cannot give it, which is then told */
    public <T> void ask(Asked<T> asked, Consumer<T> then) {
        scribe.write(() -> {
            T answer = asked.of(scribe.project());
            ui.execute(() -> then.accept(answer));
        });
    }

    /** Puts a project's first imitation on the bench and closes the project before it. */
    public void open(ProjectFile opened) {
        scribe.write(() -> settleIn(opened));
    }

    /** Opens a project file; if that fails, the one that is open stays. */
    public void openProject(Path file) {
        scribe.write(() -> {
            if (!scribe.has(file)) {
                settleIn(ProjectFile.open(file));
            }
        });
    }

    /** Opens a fresh copy of the demo project. */
    public void openDemo() {
        run("opening the demo", progress -> {
            try {
                open(DemoProject.open(DemoProject.built(), progress));
            } catch (UnusableProject e) {
                tell(e.getMessage());
            }
        });
    }

    /** Begins a new project. */
    public void newProject(Path file, String name) {
        scribe.write(() -> settleIn(ProjectFile.create(file, name)));
    }

    /**
     * Scribe: turns to another project. All that will be shown of it is read first; if that fails, the one before stays. The bench
     * turns before the writer does, so that every edit is written into the project that it was made on.
     */
    private void settleIn(ProjectFile opened) throws UnusableProject {
        WorkspaceState next;
        try {
            if (scribe.project() != null) {
                scribe.flush();
            }
            List<Imitation> all = opened.imitations();
            Imitation first = all.isEmpty() ? opened.addImitation("First imitation") : all.get(0);
            Snapshot snapshot = opened.now(first);
            opened.rehearse(snapshot);
            next = new StateLoader(opened, hearing).load(first, snapshot, null);
        } catch (UnusableProject | RuntimeException e) {
            opened.close();
            throw e;
        }
        scribe.announce(opened);
        ui.execute(() -> {
            tasks.cancel(); // what is being computed belongs to the project before
            WorkspaceState before = state();
            Path pathBefore = projectPath.get();
            show(next, before);
            projectPath.set(opened.path());
            scribe.turnTo(opened, () -> {
                projectPath.set(pathBefore);
                show(before, state());
            });
        });
        if (opened.remark() != null) {
            tell(opened.remark());
        }
    }

    /** UI thread: puts another sound or another project on the bench. */
    private void show(WorkspaceState next, WorkspaceState before) {
        state.set(StateLoader.keepingComparison(next, before));
        if (before.recording() != next.recording()) {
            selected.set(StateLoader.selection(next, before, selected.get()));
        }
        following.follow();
    }

    /** Writes a copy of the project, with everything that is on the bench. */
    public void saveCopy(Path target) {
        scribe.write(() -> {
            try {
                scribe.flush();
            } catch (UnusableProject notHere) {
                LOG.info("the copy has the edits up to the last that could be written");
            }
            scribe.project().saveCopy(target);
            tell("A copy of the project was written to " + target + ".");
        });
    }

    /** Makes the project file as small as it can be. */
    public void compact() {
        scribe.write(() -> {
            scribe.flush();
            long freed = scribe.project().compact();
            tell(String.format(
                    java.util.Locale.ROOT, "The project file is %.1f MB smaller.", Math.max(0, freed) / 1e6));
        });
    }

    /** Tries again to write what could not be written. */
    public void retry() {
        scribe.retry(() -> history(state().current()));
    }

    public void choose(Imitation imitation) {
        if (!imitation.equals(state().current())) {
            scribe.write(() -> bring(imitation));
        }
    }

    public void addImitation(String name) {
        scribe.write(() -> bring(scribe.project().addImitation(name)));
    }

    /** Scribe: loads an imitation and shows it. */
    private void bring(Imitation imitation) throws UnusableProject {
        show(imitation, scribe.project().now(imitation), null);
    }

    /** Scribe: shows an imitation as a snapshot says; a recording that is on the bench already is not read again. */
    private void show(Imitation imitation, Snapshot snapshot, WorkspaceState known) throws UnusableProject {
        show(imitation, snapshot, known, ALWAYS);
    }

    /** @param unlessAfter number of edits beyond which what is on the bench is newer than the snapshot, and stays */
    private void show(Imitation imitation, Snapshot snapshot, WorkspaceState known, long unlessAfter)
            throws UnusableProject {
        WorkspaceState next = new StateLoader(scribe.project(), hearing).load(imitation, snapshot, known);
        ui.execute(() -> {
            if (edits > unlessAfter) {
                state.set(state().withHistory(next.imitations(), next.takes(), next.undoLabel(), next.redoLabel()));
                return;
            }
            show(next, state());
        });
    }

    // ---- bringing sound in ----

    /** Worker: measures a clip and makes it the recording; an imitation that has one already is left alone. */
    void take(String imitationName, String source, Clip clip, Progress progress) throws UnusableSound {
        AnalysedSound side = ImitationRenderer.side(clip, progress);
        WorkspaceState at = state();
        take(
                imitationName,
                source,
                clip,
                at.isTypical() ? TargetIntake.inPlaceOf(at, side.measurement()) : side.measurement());
    }

    /** Makes a measured sound the recording, in the place of a typical one or where there is none; otherwise of an imitation of its own. */
    void take(String imitationName, String source, Clip clip, Measurement measurement) {
        WorkspaceState at = state();
        scribe.write(() -> {
            scribe.flush();
            long row = scribe.project().addRecording(source, clip, measurement);
            boolean free = at.current() != null && (at.snapshot().recordingId() == null || at.isTypical());
            boolean named = at.recipe() != null && !at.isTypical();
            // what was built by hand keeps its name, and is held against the recording from now on
            Imitation target = !free
                    ? scribe.project().addImitation(imitationName)
                    : named ? at.current() : scribe.project().rename(at.current(), imitationName);
            Snapshot next = free
                    ? scribe.project().now(target).withRecordingId(row).withHand(ManualCorrections.NONE)
                    : new Snapshot(row, null, null, "");
            String what = measurement.typical() == null
                    ? "recording " + source
                    : "target " + measurement.typical().words();
            scribe.project().commit(target, what, next);
            show(target, next, null);
        });
    }

    /** Begins an imitation with something other than a recording; one on the bench that is still empty takes it. */
    void begin(String imitationName, String label, Snapshot first) {
        WorkspaceState at = state();
        scribe.write(() -> {
            scribe.flush();
            boolean free = at.current() != null && at.snapshot().recordingId() == null && at.recipe() == null;
            Imitation target = free
                    ? scribe.project().rename(at.current(), imitationName)
                    : scribe.project().addImitation(imitationName);
            scribe.project().commit(target, label, first);
            show(target, first, null);
        });
    }

    /**
     * Puts a new state of an imitation on the bench and into its history.
     *
     * @param at   the bench as it was when the work began
     * @param then further work on the project, done on the scribe
     */
    void arrive(WorkspaceState at, String label, Snapshot next, ProjectChange then) {
        scribe.write(() -> {
            scribe.add(at.current(), label, next);
            try {
                scribe.flush();
            } finally { // what the disk did not take stays on the bench, and is said to wait
                show(at.current(), next, at);
            }
            then.in(scribe.project());
            history(at.current());
        });
    }

    /** Changes something in the project that no history has. */
    void change(ProjectChange change) {
        scribe.write(() -> change.in(scribe.project()));
    }

    /** Adds to the project beside the histories of its imitations; runs on the scribe. */
    interface ProjectChange {
        void in(ProjectFile project) throws UnusableProject;
    }

    /**
     * Does something short with files beside the window; it does not keep other work from starting.
     *
     * @param then given the result on the UI thread; not called if the work fails, which is then told
     * @param ever called on the UI thread at the end, whatever became of it
     */
    public <T> void beside(FileWork<T> work, Consumer<T> then, Runnable ever) {
        tasks.beside(work, then, ever);
    }

    /** Plays something that is not on the desk, once. @param sound made beside the window */
    public void audition(String what, java.util.function.Supplier<Clip> sound) {
        run("making " + what, progress -> {
            Clip clip = sound.get();
            progress.report(1, "");
            desk.audition(clip);
        });
    }

    /** Has what is on the bench written down as an edit. */
    void commit(String label, Snapshot next) {
        Imitation imitation = state().current();
        edits++;
        scribe.writeSeen(() -> {
            scribe.add(imitation, label, next);
            scribe.flush();
            history(imitation);
        });
    }

    /** Keeps the recipe as a take, with a note. */
    public void keepTake(String note) {
        WorkspaceState at = state();
        if (at.recipe() == null || at.recording() != null && at.comparison() == null) {
            return;
        }
        scribe.write(() -> {
            scribe.flush();
            String name = "take " + (scribe.project().takes(at.current()).size() + 1);
            scribe.project()
                    .addTake(
                            at.current(),
                            name,
                            note,
                            at.comparison(),
                            at.snapshot().patch());
            history(at.current());
        });
    }

    private void history(Imitation imitation) throws UnusableProject {
        var imitations = scribe.project().imitations();
        var takes = scribe.project().takes(imitation);
        String undo = scribe.project().undoLabel(imitation).orElse(null);
        String redo = scribe.project().redoLabel(imitation).orElse(null);
        ui.execute(() -> {
            if (imitation.equals(state().current())) {
                state.set(state().withHistory(imitations, takes, undo, redo));
            }
        });
    }

    public void undo() {
        step(true);
    }

    public void redo() {
        step(false);
    }

    private void step(boolean back) {
        WorkspaceState at = state();
        if (at.current() == null) {
            return;
        }
        long done = edits;
        scribe.write(() -> {
            scribe.flush();
            Snapshot s = back
                    ? scribe.project().undo(at.current())
                    : scribe.project().redo(at.current());
            show(at.current(), s, at, done);
        });
    }

    /** Writes patch sheet, sound, recipe and partial table into a folder. */
    public void export(Path folder, Consumer<List<Path>> done) {
        WorkspaceState at = state();
        if (at.recipe() == null) {
            tell("There is nothing to take away yet: fit an imitation first.");
            return;
        }
        run("writing files", progress -> {
            List<Path> files = Exports.write(at, judged(at.snapshot().patch()), folder, progress, this::tell);
            ui.execute(() -> done.accept(files));
        });
    }

    /** Begins long work, unless there is some under way; what goes wrong is told. */
    void run(String name, Tasks.Work work) {
        tasks.run(name, work);
    }

    /** The same with work that looks for something better and better, and can end with what there is. */
    void search(String name, Tasks.Work work) {
        tasks.search(name, work);
    }

    /** UI thread: what is shown from now on. */
    void show(WorkspaceState next) {
        state.set(next);
    }

    private void tell(String text) {
        ui.execute(() -> message.set(text));
    }

    /** Shows a message from outside, such as from a dropped file of the wrong kind. */
    public void say(String text) {
        tell(text);
    }

    /** Closes the project once everything is written. */
    public void close() {
        scribe.close();
    }
}
