package nightreed.desktop.bench;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayDeque;
import java.util.Comparator;
import java.util.Deque;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.concurrent.Executor;
import java.util.function.Consumer;
import javafx.beans.property.ReadOnlyIntegerProperty;
import javafx.beans.property.ReadOnlyIntegerWrapper;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleObjectProperty;
import nightreed.device.Desk;
import nightreed.match.Hearing;
import nightreed.match.Listener;
import nightreed.match.Marks;
import nightreed.match.Matcher;
import nightreed.match.Move;
import nightreed.match.Side;
import nightreed.measure.Hand;
import nightreed.measure.Measurement;
import nightreed.measure.Partial;
import nightreed.measure.Progress;
import nightreed.project.Imitation;
import nightreed.project.ProjectFile;
import nightreed.project.Recording;
import nightreed.project.Snapshot;
import nightreed.project.UnusableProject;
import nightreed.recipe.Emphasis;
import nightreed.recipe.Patch;
import nightreed.recipe.Recipe;
import nightreed.recipe.part.Parameter;
import nightreed.sound.Clip;
import nightreed.sound.UnusableSound;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * What is on the bench and what can be done with it. All public methods are called on the UI thread and return at once;
 * results come back there as one new {@link BenchState}. Work runs on three executors handed in: {@code worker} for long
 * tasks, {@code scribe} for the project file (one thread), {@code follower} for what follows every moved value (one
 * thread).
 */
public final class Bench {
    private static final Logger LOG = LoggerFactory.getLogger(Bench.class);
    private final Executor ui;
    private final Executor scribe;
    private final Desk desk;

    private final ReadOnlyObjectWrapper<BenchState> state = new ReadOnlyObjectWrapper<>(BenchState.EMPTY);
    private final ReadOnlyObjectWrapper<String> message = new ReadOnlyObjectWrapper<>();
    private final SimpleObjectProperty<Emphasis> emphasised = new SimpleObjectProperty<>();
    private final SimpleObjectProperty<Parameter> asked = new SimpleObjectProperty<>();
    private final SimpleObjectProperty<Partial> selected = new SimpleObjectProperty<>();
    private final Controllers controllers;
    private final Fitting fitting;
    private final Intake intake;
    private final Following following;
    private final Tasks tasks;
    private final ReadOnlyIntegerWrapper unsaved = new ReadOnlyIntegerWrapper();
    private final ReadOnlyObjectWrapper<Path> projectPath = new ReadOnlyObjectWrapper<>();
    private final Deque<Edit> waiting = new ArrayDeque<>(); // the scribe's: edits that are not in the file yet
    private volatile Hearing hearing = Hearing.USUAL;
    private static final long ALWAYS = Long.MAX_VALUE;

    private long edits; // FX thread: how many have been made here
    private ProjectFile project; // the scribe's

    /** An edit on its way into the project file. */
    private record Edit(Imitation imitation, String label, Snapshot snapshot) {}

    public Bench(Executor ui, Executor worker, Executor scribe, Executor follower, Desk desk) {
        this.ui = ui;
        this.scribe = scribe;
        this.desk = desk;
        this.controllers = new Controllers(this, ui);
        this.fitting = new Fitting(this, ui);
        this.intake = new Intake(this, ui);
        this.following = new Following(this, ui, follower);
        this.tasks = new Tasks(ui, worker, this::tell);
    }

    public ReadOnlyObjectProperty<BenchState> stateProperty() {
        return state.getReadOnlyProperty();
    }

    public BenchState state() {
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

    public Desk desk() {
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

    /** How recordings come here. */
    public Intake intake() {
        return intake;
    }

    /** Edits that could not be written to the project file yet; 0 as long as all is well. */
    public ReadOnlyIntegerProperty unsavedProperty() {
        return unsaved.getReadOnlyProperty();
    }

    /** Where the open project is, null while none is open. */
    public ReadOnlyObjectProperty<Path> projectPathProperty() {
        return projectPath.getReadOnlyProperty();
    }

    /** Judges by other thresholds of hearing from now on. */
    public void hearing(Hearing now) {
        if (!now.equals(hearing)) {
            hearing = now;
            if (state().recording() != null) {
                state.set(state().withRecording(heard(state().recording(), state().snapshot())));
                following.follow();
            }
        }
    }

    public void dismissMessage() {
        message.set(null);
    }

    public void cancel() {
        tasks.cancel();
    }

    /** What can be done with a project file; runs on the scribe. */
    private interface ProjectWork {
        void run() throws UnusableProject;
    }

    /** Queues work on the project file; what goes wrong is told. */
    private void write(ProjectWork work) {
        scribe.execute(() -> {
            try {
                work.run();
            } catch (UnusableProject e) {
                tell(e.getMessage());
            }
        });
    }

    /** What is asked of the project, or changed in it beside its imitations' histories; runs on the scribe. */
    public interface Asked<T> {
        T of(ProjectFile project) throws UnusableProject;
    }

    /** @param then given the answer on the UI thread; not called if the project cannot give it, which is then told */
    public <T> void ask(Asked<T> asked, Consumer<T> then) {
        write(() -> {
            T answer = asked.of(project);
            ui.execute(() -> then.accept(answer));
        });
    }

    /** Puts a project's first imitation on the bench and closes the project before it. */
    public void open(ProjectFile opened) {
        write(() -> settleIn(opened));
    }

    /** Opens a project file; if that fails, the one that is open stays. */
    public void openProject(Path file) {
        write(() -> {
            if (!file.equals(project == null ? null : project.path())) {
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
        write(() -> settleIn(ProjectFile.create(file, name)));
    }

    private void settleIn(ProjectFile opened) throws UnusableProject {
        ProjectFile before = project;
        if (before != null) {
            flush();
        }
        List<Imitation> all = opened.imitations();
        Imitation first = all.isEmpty() ? opened.addImitation("First imitation") : all.get(0);
        project = opened;
        waiting.clear();
        ui.execute(() -> {
            unsaved.set(0);
            projectPath.set(opened.path());
        });
        opened.rehearse(opened.now(first));
        bring(first);
        if (before != null) {
            before.close();
        }
    }

    /** Writes a copy of the project, with everything that is on the bench. */
    public void saveCopy(Path target) {
        write(() -> {
            try {
                flush();
            } catch (UnusableProject notHere) {
                LOG.info("the copy has the edits up to the last that could be written");
            }
            project.saveCopy(target);
            tell("A copy of the project was written to " + target + ".");
        });
    }

    /** Makes the project file as small as it can be. */
    public void compact() {
        write(() -> {
            flush();
            long freed = project.compact();
            tell(String.format(
                    java.util.Locale.ROOT, "The project file is %.1f MB smaller.", Math.max(0, freed) / 1e6));
        });
    }

    /** Tries again to write what could not be written. */
    public void retry() {
        if (unsaved.get() > 0) {
            scribe.execute(() -> {
                try {
                    flush();
                    tell("All changes are in the project file again.");
                    history(state().current());
                } catch (UnusableProject still) {
                    LOG.debug("still not writable: {}", still.getMessage());
                }
            });
        }
    }

    /** Scribe: writes what waits, in order; what cannot be written goes on waiting. */
    private void flush() throws UnusableProject {
        try {
            while (!waiting.isEmpty()) {
                Edit e = waiting.peek();
                project.commit(e.imitation, e.label, e.snapshot);
                waiting.remove();
            }
        } finally {
            int left = waiting.size();
            ui.execute(() -> unsaved.set(left));
        }
    }

    public void choose(Imitation imitation) {
        if (!imitation.equals(state().current())) {
            write(() -> bring(imitation));
        }
    }

    public void addImitation(String name) {
        write(() -> bring(project.addImitation(name)));
    }

    /** Scribe: loads an imitation and shows it. */
    private void bring(Imitation imitation) throws UnusableProject {
        show(imitation, project.now(imitation), null);
    }

    private static Partial strongest(BenchState s) {
        return s.recording() == null ? null : s.recording().measurement().strongest();
    }

    /** The partial that another has become, or lies where it was. */
    private static Partial closest(Measurement m, Partial before) {
        return before == null
                ? m.strongest()
                : m.partials().stream()
                        .min(Comparator.comparingDouble(p -> Math.abs(p.frequencyHz() - before.frequencyHz())))
                        .orElse(null);
    }

    /** Scribe: shows an imitation as a snapshot says; a recording that is on the bench already is not read again. */
    private void show(Imitation imitation, Snapshot snapshot, BenchState known) throws UnusableProject {
        show(imitation, snapshot, known, ALWAYS);
    }

    private Side heard(Side side, Snapshot snapshot) {
        return side.heardBy(new Listener(hearing, snapshot.marks()));
    }

    /** @param unlessAfter number of edits beyond which what is on the bench is newer than the snapshot, and stays */
    private void show(Imitation imitation, Snapshot snapshot, BenchState known, long unlessAfter)
            throws UnusableProject {
        Side side = null;
        String name = null;
        if (snapshot.recordingId() != null) {
            if (known != null
                    && known.recording() != null
                    && Objects.equals(known.snapshot().recordingId(), snapshot.recordingId())) {
                side = known.snapshot().hand().equals(snapshot.hand())
                        ? known.recording()
                        : known.recording().byHand(snapshot.hand());
                side = known.snapshot().marks().equals(snapshot.marks()) ? side : heard(side, snapshot);
                name = known.recordingName();
            } else {
                Recording r = project.recording(snapshot.recordingId());
                side = heard(new Side(r.clip(), r.measurement()), snapshot);
                side = snapshot.hand().equals(Hand.NONE) ? side : side.byHand(snapshot.hand());
                name = r.name();
            }
        }
        BenchState next = new BenchState(
                project.name(),
                project.imitations(),
                imitation,
                name,
                side,
                snapshot,
                null,
                null,
                null,
                Map.of(),
                project.takes(imitation),
                project.undoLabel(imitation).orElse(null),
                project.redoLabel(imitation).orElse(null));
        ui.execute(() -> {
            if (edits > unlessAfter) {
                state.set(state().withHistory(next.imitations(), next.takes(), next.undoLabel(), next.redoLabel()));
                return;
            }
            boolean other = state().recording() != next.recording();
            BenchState before = state();
            state.set(
                    next.recipe() != null && !other && before.imitation() != null
                            ? new BenchState(
                                    next.projectName(),
                                    next.imitations(),
                                    next.current(),
                                    next.recordingName(),
                                    next.recording(),
                                    next.snapshot(),
                                    before.imitation(),
                                    before.comparison(),
                                    null,
                                    before.tolerances(),
                                    next.takes(),
                                    next.undoLabel(),
                                    next.redoLabel())
                            : next);
            if (other) {
                boolean same = before.recording() != null
                        && next.recording() != null
                        && before.recording().clip() == next.recording().clip();
                selected.set(same ? closest(next.recording().measurement(), selected.get()) : strongest(next));
            }
            following.follow();
        });
    }

    // ---- bringing sound in ----

    /** Worker: measures a clip and makes it the recording; an imitation that has one already is left alone. */
    void take(String imitationName, String source, Clip clip, Progress progress) throws UnusableSound {
        Side side = Matcher.side(clip, progress);
        BenchState at = state();
        write(() -> {
            flush();
            long row = project.addRecording(source, clip, side.measurement());
            boolean free = at.current() != null && at.snapshot().recordingId() == null;
            Imitation target = free ? project.rename(at.current(), imitationName) : project.addImitation(imitationName);
            Snapshot next = new Snapshot(row, null, null, "");
            project.commit(target, "recording " + source, next);
            show(target, next, null);
        });
    }

    // ---- shaping ----

    /** Locks a value, so that no fit and no advice moves it, or sets it free. */
    public void lock(Parameter p, boolean locked) {
        BenchState at = state();
        if (at.recipe() != null) {
            Snapshot next = at.snapshot().withLocked(p.id(), locked);
            state.set(at.withSnapshot(next));
            following.follow(); // advice may not name it any more
            commit((locked ? "lock " : "unlock ") + p.name(), next);
        }
    }

    /**
     * Puts a new state of an imitation on the bench and into its history.
     *
     * @param at   the bench as it was when the work began
     * @param then further work on the project, done on the scribe
     */
    void arrive(BenchState at, String label, Snapshot next, ProjectChange then) {
        write(() -> {
            waiting.add(new Edit(at.current(), label, next));
            show(at.current(), next, at);
            flush();
            then.in(project);
            history(at.current());
        });
    }

    /** Changes something in the project that no history has. */
    void change(ProjectChange change) {
        write(() -> change.in(project));
    }

    /** Adds to the project beside the histories of its imitations; runs on the scribe. */
    interface ProjectChange {
        void in(ProjectFile project) throws UnusableProject;
    }

    /** Overrules the thresholds of hearing for the sound on the bench. */
    public void mark(String label, Marks marks) {
        BenchState at = state();
        if (at.recording() != null && !marks.equals(at.snapshot().marks())) {
            arrive(at, label, at.snapshot().withMarks(marks), project -> {});
        }
    }

    /**
     * Lets an element be heard by itself, without or more than it is; the recipe stays as it is. What is listened to ends when
     * another recipe comes on the bench.
     *
     * @param emphasis null for everything as it is
     */
    public void listen(Emphasis emphasis) {
        BenchState at = state();
        if (at.recipe() == null || at.recording() == null) {
            return;
        }
        emphasised.set(emphasis);
        Recipe first = emphasis == null ? at.recipe() : emphasis.of(at.recipe());
        boolean alone = emphasis != null && emphasis.way() == Emphasis.Way.ALONE;
        Patch heard = alone ? Patch.of(first) : at.snapshot().patch().withFirst(first);
        desk.patch(heard);
        following.hear(at, heard);
    }

    /** Nothing is listened to by itself any more. */
    void hearAll() {
        emphasised.set(null);
    }

    /** What is listened to by itself; null for everything as it is. */
    public ReadOnlyObjectProperty<Emphasis> emphasisedProperty() {
        return emphasised;
    }

    /** Adds a part to the recipe in its usual form, such as a reverb. */
    public void addPart(String id, String name) {
        if (state().recipe() != null) {
            use(state().recipe().withPart(id), "add " + name);
        }
    }

    /** Takes a part out of the recipe. */
    public void removePart(String id, String name) {
        if (state().recipe() != null) {
            use(state().recipe().withoutPart(id), "take out " + name);
        }
    }

    /**
     * Moves a value. It is heard at once; it becomes part of the history when the hand lets go.
     *
     * @param settled whether this is where the value stays
     */
    public void set(Parameter parameter, double value, boolean settled) {
        Recipe recipe = state().recipe();
        if (recipe == null) {
            return;
        }
        Recipe moved = recipe.with(parameter.id(), value);
        Snapshot next = state().snapshot().withRecipe(moved);
        desk.patch(next.patch());
        state.set(state().withSnapshot(next));
        following.follow();
        if (settled) {
            commit(parameter.name() + " " + parameter.formatWithUnit(moved.value(parameter.id())), next);
        }
    }

    /**
     * Puts another form of the recipe in its place, as {@link #set} does with one value.
     *
     * @param settled whether it stays
     */
    public void shape(Recipe moved, String label, boolean settled) {
        Snapshot next = state().snapshot().withRecipe(moved);
        desk.patch(next.patch());
        state.set(state().withSnapshot(next));
        following.follow();
        if (settled) {
            commit(label, next);
        }
    }

    public void apply(Move move) {
        set(move.parameter(), move.to(), true);
    }

    /** Puts a kept patch of one or two layers back on the bench. */
    public void use(Patch patch, String label) {
        Recipe under = patch.layers().size() < 2 ? null : patch.layers().get(1).recipe();
        use(state().snapshot().withRecipe(patch.first()).withUnder(under), label);
    }

    /** Lets what sounds under the recipe be the one that is shaped, and the recipe sound under it. */
    public void exchangeLayers() {
        Snapshot now = state().snapshot();
        if (now.under() != null) {
            Set<String> nothing = Set.of(); // locks are of the recipe that is shaped
            use(now.withRecipe(now.under()).withUnder(now.recipe()).withLocked(nothing), "exchange the layers");
        }
    }

    /** Takes away what sounds under the recipe. */
    public void dropUnder() {
        Snapshot now = state().snapshot();
        if (now.under() != null) {
            use(now.withUnder(null), "take the layer under it away");
        }
    }

    /** Puts another recipe in the place of the one that is shaped; what sounds under it stays. */
    public void use(Recipe recipe, String label) {
        use(state().snapshot().withRecipe(recipe), label);
    }

    private void use(Snapshot next, String label) {
        state.set(state().withSnapshot(next));
        following.follow();
        commit(label, next);
    }

    /**
     * Decides something about the measurement by hand.
     *
     * @param label what it is called in the history
     */
    public void decide(String label, Hand hand) {
        BenchState at = state();
        if (at.recording() == null || hand.equals(at.snapshot().hand())) {
            return;
        }
        arrive(at, label, at.snapshot().withHand(hand), project -> {});
    }

    /** Work with a file that may fail. */
    public interface FileWork<T> {
        T get() throws IOException;
    }

    /**
     * Does something short with files beside the window; it does not keep other work from starting.
     *
     * @param then given the result on the UI thread; not called if the work fails, which is then told
     * @param ever called on the UI thread at the end, whatever became of it
     */
    public <T> void beside(FileWork<T> work, Consumer<T> then, Runnable ever) {
        Thread t = new Thread(
                () -> { // the worker may be at something long
                    try {
                        T result = work.get();
                        ui.execute(() -> then.accept(result));
                    } catch (IOException e) {
                        tell(e.getMessage());
                    } finally {
                        ui.execute(ever);
                    }
                });
        t.setDaemon(true);
        t.start();
    }

    /** Plays something that is not on the desk, once. @param sound made beside the window */
    public void audition(String what, java.util.function.Supplier<Clip> sound) {
        run("making " + what, progress -> {
            Clip clip = sound.get();
            progress.report(1, "");
            desk.audition(clip);
        });
    }

    public void note(String text) {
        if (!text.equals(state().snapshot().note())) {
            Snapshot next = state().snapshot().withNote(text);
            state.set(state().withSnapshot(next));
            commit("note", next);
        }
    }

    private void commit(String label, Snapshot next) {
        Imitation imitation = state().current();
        edits++;
        write(() -> {
            waiting.add(new Edit(imitation, label, next));
            flush();
            history(imitation);
        });
    }

    /** Keeps the recipe as a take, with a note. */
    public void keepTake(String note) {
        BenchState at = state();
        if (at.recipe() == null || at.comparison() == null) {
            return;
        }
        write(() -> {
            flush();
            String name = "take " + (project.takes(at.current()).size() + 1);
            project.addTake(
                    at.current(), name, note, at.comparison(), at.snapshot().patch());
            history(at.current());
        });
    }

    private void history(Imitation imitation) throws UnusableProject {
        var imitations = project.imitations();
        var takes = project.takes(imitation);
        String undo = project.undoLabel(imitation).orElse(null);
        String redo = project.redoLabel(imitation).orElse(null);
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
        BenchState at = state();
        if (at.current() == null) {
            return;
        }
        long done = edits;
        write(() -> {
            flush();
            Snapshot s = back ? project.undo(at.current()) : project.redo(at.current());
            show(at.current(), s, at, done);
        });
    }

    /** Writes patch sheet, sound, recipe and partial table into a folder. */
    public void export(Path folder, Consumer<List<Path>> done) {
        BenchState at = state();
        if (at.recording() == null || at.recipe() == null) {
            tell("There is nothing to take away yet: fit an imitation first.");
            return;
        }
        run("writing files", progress -> {
            List<Path> files = Exports.write(at, folder, progress);
            ui.execute(() -> done.accept(files));
        });
    }

    /** Begins long work, unless there is some under way; what goes wrong is told. */
    void run(String name, Tasks.Work work) {
        tasks.run(name, work);
    }

    /** UI thread: what is shown from now on. */
    void show(BenchState next) {
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
        scribe.execute(() -> {
            if (project != null) {
                try {
                    flush();
                } catch (UnusableProject e) {
                    LOG.warn("closing with {} edits that could not be written", waiting.size(), e);
                }
                project.close();
            }
        });
    }
}
