package nightreed.desktop.bench;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.CancellationException;
import java.util.concurrent.Executor;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicLong;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleObjectProperty;
import nightreed.device.Desk;
import nightreed.match.Comparison;
import nightreed.match.Listener;
import nightreed.match.Matcher;
import nightreed.match.Move;
import nightreed.match.NextMoves;
import nightreed.match.Side;
import nightreed.match.Tolerances;
import nightreed.measure.Partial;
import nightreed.measure.Progress;
import nightreed.project.Imitation;
import nightreed.project.ProjectFile;
import nightreed.project.Recording;
import nightreed.project.Snapshot;
import nightreed.project.UnusableProject;
import nightreed.recipe.Parameter;
import nightreed.recipe.ResonatorRecipe;
import nightreed.room.RecordingRoom;
import nightreed.sound.Clip;
import nightreed.sound.UnusableSound;
import nightreed.sound.file.SoundFiles;
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
    private final Executor worker;
    private final Executor scribe;
    private final Executor follower;
    private final Desk desk;

    private final ReadOnlyObjectWrapper<BenchState> state = new ReadOnlyObjectWrapper<>(BenchState.EMPTY);
    private final ReadOnlyObjectWrapper<TaskState> task = new ReadOnlyObjectWrapper<>();
    private final ReadOnlyObjectWrapper<String> message = new ReadOnlyObjectWrapper<>();
    private final SimpleObjectProperty<Partial> selected = new SimpleObjectProperty<>();
    private final AtomicLong version = new AtomicLong();
    private volatile AtomicBoolean cancelled = new AtomicBoolean();
    private ProjectFile project; // touched by the scribe only, after open

    public Bench(Executor ui, Executor worker, Executor scribe, Executor follower, Desk desk) {
        this.ui = ui;
        this.worker = worker;
        this.scribe = scribe;
        this.follower = follower;
        this.desk = desk;
    }

    public ReadOnlyObjectProperty<BenchState> stateProperty() {
        return state.getReadOnlyProperty();
    }

    public BenchState state() {
        return state.get();
    }

    /** Work in progress, null if there is none. */
    public ReadOnlyObjectProperty<TaskState> taskProperty() {
        return task.getReadOnlyProperty();
    }

    /** The last thing that went wrong, in words for people; null if it was put away. */
    public ReadOnlyObjectProperty<String> messageProperty() {
        return message.getReadOnlyProperty();
    }

    /** The partial of the recording that all pictures point at, null if none. */
    public SimpleObjectProperty<Partial> selectedProperty() {
        return selected;
    }

    public Desk desk() {
        return desk;
    }

    public void dismissMessage() {
        message.set(null);
    }

    public void cancel() {
        cancelled.set(true);
    }

    /** Opens a project and puts its first imitation on the bench. */
    public void open(ProjectFile opened) {
        scribe.execute(() -> {
            try {
                project = opened;
                List<Imitation> all = project.imitations();
                Imitation first = all.isEmpty() ? project.addImitation("First imitation") : all.get(0);
                bring(first);
            } catch (UnusableProject e) {
                tell(e.getMessage());
            }
        });
    }

    public void choose(Imitation imitation) {
        if (!imitation.equals(state().current())) {
            scribe.execute(() -> {
                try {
                    bring(imitation);
                } catch (UnusableProject e) {
                    tell(e.getMessage());
                }
            });
        }
    }

    public void addImitation(String name) {
        scribe.execute(() -> {
            try {
                bring(project.addImitation(name));
            } catch (UnusableProject e) {
                tell(e.getMessage());
            }
        });
    }

    /** Scribe: loads an imitation and shows it. */
    private void bring(Imitation imitation) throws UnusableProject {
        show(imitation, project.now(imitation), null);
    }

    /** Scribe: shows an imitation as a snapshot says; a recording that is on the bench already is not read again. */
    private void show(Imitation imitation, Snapshot snapshot, BenchState known) throws UnusableProject {
        Side side = null;
        String name = null;
        if (snapshot.recordingId() != null) {
            if (known != null
                    && known.recording() != null
                    && Objects.equals(known.snapshot().recordingId(), snapshot.recordingId())) {
                side = known.recording();
                name = known.recordingName();
            } else {
                Recording r = project.recording(snapshot.recordingId());
                side = new Side(r.clip(), r.measurement());
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
                selected.set(
                        next.recording() == null
                                ? null
                                : next.recording().measurement().strongest());
            }
            follow();
        });
    }

    // ---- bringing sound in ----

    /** Measures a WAV file and makes it the recording; an imitation that has one already is left alone. */
    public void importFile(Path file) {
        String name = String.valueOf(file.getFileName());
        run("measuring " + name, progress -> {
            SoundFiles.Loaded loaded = SoundFiles.read(file);
            if (loaded.warning() != null) {
                tell(loaded.warning());
            }
            take(name.replaceFirst("\\.[Ww][Aa][Vv]$", ""), name, loaded.clip(), progress);
        });
    }

    /** Has the recording room play a note and makes it the recording. */
    public void record(RecordingRoom.Instrument instrument, int key, double velocity, long seed) {
        String name = String.format(
                java.util.Locale.ROOT,
                "%s %s, strength %.1f",
                instrument.title(),
                nightreed.music.Pitch.name(key),
                velocity);
        run("recording " + name, progress -> {
            progress.report(0, "playing");
            Clip clip = RecordingRoom.record(instrument, key, velocity, seed);
            take(name, "recording room: " + name, clip, progress);
        });
    }

    private void take(String imitationName, String source, Clip clip, Progress progress) throws UnusableSound {
        Side side = Matcher.side(clip, progress);
        BenchState at = state();
        scribe.execute(() -> {
            try {
                long row = project.addRecording(source, clip, side.measurement());
                boolean free = at.current() != null && at.snapshot().recordingId() == null;
                Imitation target =
                        free ? project.rename(at.current(), imitationName) : project.addImitation(imitationName);
                Snapshot next = new Snapshot(row, null, null, "");
                project.commit(target, "recording " + source, next);
                show(target, next, null);
            } catch (UnusableProject e) {
                tell(e.getMessage());
            }
        });
    }

    // ---- shaping ----

    /** Fits resonators to the recording, from the measurement. */
    public void fit() {
        BenchState at = state();
        if (at.recording() == null) {
            tell("There is no recording to fit yet: bring one in on the Brief stage.");
            return;
        }
        run("fitting resonators", progress -> {
            ResonatorRecipe recipe = Matcher.fit(at.recording(), progress);
            double total = Matcher.predict(at.recording(), recipe).totalJnd();
            Snapshot next = new Snapshot(
                    at.snapshot().recordingId(), recipe, recipe, at.snapshot().note());
            scribe.execute(() -> {
                try {
                    project.commit(at.current(), "fit resonators", next);
                    project.addTake(at.current(), "fit, " + recipe.modes().size() + " modes", "", total, recipe);
                    show(at.current(), next, at);
                } catch (UnusableProject e) {
                    tell(e.getMessage());
                }
            });
        });
    }

    /**
     * Moves a value. It is heard at once; it becomes part of the history when the hand lets go.
     *
     * @param settled whether this is where the value stays
     */
    public void set(Parameter parameter, double value, boolean settled) {
        ResonatorRecipe recipe = state().recipe();
        if (recipe == null) {
            return;
        }
        ResonatorRecipe moved = recipe.with(parameter.id(), value);
        desk.instrument(moved);
        Snapshot next = state().snapshot().withRecipe(moved);
        state.set(state().withSnapshot(next));
        follow();
        if (settled) {
            commit(parameter.name() + " " + parameter.formatWithUnit(moved.value(parameter.id())), next);
        }
    }

    public void apply(Move move) {
        set(move.parameter(), move.to(), true);
    }

    /** Puts a kept recipe back on the bench. */
    public void use(ResonatorRecipe recipe, String label) {
        Snapshot next = state().snapshot().withRecipe(recipe);
        state.set(state().withSnapshot(next));
        follow();
        commit(label, next);
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
        scribe.execute(() -> {
            try {
                project.commit(imitation, label, next);
                history(imitation);
            } catch (UnusableProject e) {
                tell(e.getMessage());
            }
        });
    }

    /** Keeps the recipe as a take, with a note. */
    public void keepTake(String note) {
        BenchState at = state();
        if (at.recipe() == null || at.comparison() == null) {
            return;
        }
        scribe.execute(() -> {
            try {
                String name = "take " + (project.takes(at.current()).size() + 1);
                project.addTake(at.current(), name, note, at.comparison().totalJnd(), at.recipe());
                history(at.current());
            } catch (UnusableProject e) {
                tell(e.getMessage());
            }
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
        scribe.execute(() -> {
            try {
                Snapshot s = back ? project.undo(at.current()) : project.redo(at.current());
                show(at.current(), s, at);
            } catch (UnusableProject e) {
                tell(e.getMessage());
            }
        });
    }

    /** Writes patch sheet, sound, recipe and partial table into a folder. */
    public void export(Path folder, java.util.function.Consumer<List<Path>> done) {
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

    // ---- what follows a changed recipe ----

    /** Renders, compares and advises for the recipe as it is now; what has been overtaken is dropped. */
    private void follow() {
        BenchState at = state();
        long mine = version.incrementAndGet();
        if (at.recipe() == null || at.recording() == null) {
            desk.instrument(null);
            Clip recording = at.recording() == null ? null : at.recording().clip();
            follower.execute(() -> desk.load(recording, null, 0));
            return;
        }
        desk.instrument(at.recipe());
        follower.execute(() -> {
            if (version.get() != mine) {
                return;
            }
            Side imitation = Matcher.predictedSide(at.recording(), at.recipe());
            Comparison comparison = Listener.compare(at.recording(), imitation);
            desk.load(at.recording().clip(), imitation.clip(), comparison.gainDb());
            onlyIf(mine, () -> state.set(state().withSound(imitation, comparison)));
            follower.execute(() -> advise(mine, at, comparison));
        });
    }

    private void advise(long mine, BenchState at, Comparison comparison) {
        if (version.get() != mine) {
            return;
        }
        Progress unlessOvertaken = (fraction, doing) -> {
            if (version.get() != mine) {
                throw new CancellationException();
            }
        };
        try {
            List<Move> moves = NextMoves.of(at.recording(), at.recipe(), comparison, unlessOvertaken);
            onlyIf(mine, () -> state.set(state().withAdvice(moves, state().tolerances())));
            unlessOvertaken.report(0, "");
            Map<String, Tolerances.Span> spans = Tolerances.of(at.recording(), at.recipe(), unlessOvertaken);
            onlyIf(mine, () -> state.set(state().withAdvice(moves, spans)));
        } catch (CancellationException overtaken) {
            LOG.debug("advice overtaken by a newer value");
        }
    }

    private void onlyIf(long mine, Runnable change) {
        ui.execute(() -> {
            if (version.get() == mine) {
                change.run();
            }
        });
    }

    // ---- long work ----

    private interface Work {
        void run(Progress progress) throws UnusableSound, IOException;
    }

    private void run(String name, Work work) {
        if (task.get() != null) {
            tell("'" + task.get().name() + "' is still under way: wait for it or stop it first.");
            return;
        }
        AtomicBoolean stop = new AtomicBoolean();
        cancelled = stop;
        task.set(new TaskState(name, "", 0));
        worker.execute(() -> {
            try {
                work.run((fraction, doing) -> {
                    if (stop.get()) {
                        throw new CancellationException();
                    }
                    TaskState now = new TaskState(name, doing, fraction);
                    ui.execute(() -> {
                        if (task.get() != null) {
                            task.set(now);
                        }
                    });
                });
            } catch (CancellationException e) {
                LOG.info("{} was stopped", name);
            } catch (UnusableSound | IOException e) {
                tell(e.getMessage());
            } catch (RuntimeException | OutOfMemoryError e) {
                LOG.error(name, e);
                tell("'" + name
                        + "' stopped on an internal error; what you had is unchanged. The log has the details.");
            } finally {
                ui.execute(() -> task.set(null));
            }
        });
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
                project.close();
            }
        });
    }
}
