package nightreed.desktop.workspace;

import java.nio.file.Path;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.concurrent.Executor;
import java.util.function.Consumer;
import javafx.beans.property.ReadOnlyIntegerProperty;
import javafx.beans.property.ReadOnlyIntegerWrapper;
import nightreed.project.Imitation;
import nightreed.project.ProjectFile;
import nightreed.project.Snapshot;
import nightreed.project.UnusableProject;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * The open project file, and the edits on their way into it. Whatever is done with the file is queued by {@link #write} and runs
 * on one thread; of the other methods only those that say so may be called from elsewhere.
 */
final class ProjectWriter {
    private static final Logger LOG = LoggerFactory.getLogger(ProjectWriter.class);
    private final Executor ui;
    private final Executor thread;
    private final Consumer<String> tell;
    private final ReadOnlyIntegerWrapper unsaved = new ReadOnlyIntegerWrapper();
    private final ReadOnlyIntegerWrapper underWay = new ReadOnlyIntegerWrapper();
    private final Deque<Edit> waiting = new ArrayDeque<>(); // edits that are not in the file yet
    private ProjectFile project;
    private ProjectFile coming; // read already, and turned to as soon as what is queued is written

    /** An edit on its way into the project file. */
    private record Edit(Imitation imitation, String label, Snapshot snapshot) {}

    /** What can be done with a project file. */
    interface Work {
        void run() throws UnusableProject;
    }

    /** @param tell told, on any thread, what went wrong in words for people */
    ProjectWriter(Executor ui, Executor thread, Consumer<String> tell) {
        this.ui = ui;
        this.thread = thread;
        this.tell = tell;
    }

    /** Any thread: queues work on the project file; what goes wrong is told. */
    void write(Work work) {
        thread.execute(() -> {
            try {
                work.run();
            } catch (UnusableProject e) {
                tell.accept(e.getMessage());
            } catch (RuntimeException e) { // the next edit must find this thread at work
                LOG.error("writing into the project", e);
                tell.accept(
                        "Something was not written into the project because of an internal error; what you see is kept in"
                                + " the window. The log has the details.");
            }
        });
    }

    /** UI thread: writes an edit that is seen already; until it is in the file it counts as under way. */
    void writeSeen(Work work) {
        underWay.set(underWay.get() + 1);
        write(() -> {
            try {
                work.run();
            } finally {
                ui.execute(() -> underWay.set(underWay.get() - 1));
            }
        });
    }

    /** UI thread: how many edits are seen, but not yet known to be in the file. */
    ReadOnlyIntegerProperty underWayProperty() {
        return underWay.getReadOnlyProperty();
    }

    /** UI thread: how many edits could not be written yet. */
    ReadOnlyIntegerProperty unsavedProperty() {
        return unsaved.getReadOnlyProperty();
    }

    /** The open project, null if there is none. */
    ProjectFile project() {
        return project;
    }

    /** Writer's thread: a project that {@link #turnTo} will be called for. */
    void announce(ProjectFile next) {
        coming = next;
    }

    /** Writer's thread: whether a file is open here, or about to be. */
    boolean has(Path file) {
        return project != null && project.isAt(file) || coming != null && coming.isAt(file);
    }

    /**
     * UI thread: everything queued from now on is written into another project. What was queued before still goes into the one before,
     * which is then closed.
     *
     * @param back called on the UI thread if edits of the one before cannot be written: it stays open, and the other is closed
     */
    void turnTo(ProjectFile opened, Runnable back) {
        thread.execute(() -> {
            try {
                if (project != null) {
                    flush();
                    project.close();
                }
                project = opened;
            } catch (UnusableProject e) {
                opened.close();
                ui.execute(back);
                tell.accept(e.getMessage());
            } finally {
                coming = coming == opened ? null : coming;
            }
        });
    }

    /** Takes an edit on; {@link #flush} writes it. */
    void add(Imitation imitation, String label, Snapshot snapshot) {
        waiting.add(new Edit(imitation, label, snapshot));
    }

    /** Writes what waits, in order; what cannot be written goes on waiting. */
    void flush() throws UnusableProject {
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

    /** UI thread: tries again to write what could not be written. @param then done once all is written, on the scribe's thread */
    void retry(Work then) {
        if (unsaved.get() > 0) {
            thread.execute(() -> {
                try {
                    flush();
                    tell.accept("All changes are in the project file again.");
                    then.run();
                } catch (UnusableProject still) {
                    LOG.debug("still not writable: {}", still.getMessage());
                }
            });
        }
    }

    /** Any thread: closes the project once everything is written. */
    void close() {
        thread.execute(() -> {
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
