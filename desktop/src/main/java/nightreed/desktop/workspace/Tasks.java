package nightreed.desktop.workspace;

import java.io.IOException;
import java.util.concurrent.CancellationException;
import java.util.concurrent.Executor;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.Consumer;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import nightreed.sound.UnusableSound;
import nightreed.work.Progress;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** Long work, one at a time: told how far it is, stopped when asked, and never the end of the program. */
final class Tasks {
    private static final Logger LOG = LoggerFactory.getLogger(Tasks.class);
    private static final long SHOWN_EVERY_NANOS = 50_000_000;
    private final Executor ui;
    private final Executor worker;
    private final Consumer<String> tell;
    private final ReadOnlyObjectWrapper<TaskState> task = new ReadOnlyObjectWrapper<>();
    private volatile AtomicBoolean cancelled = new AtomicBoolean();
    private volatile AtomicBoolean enough = new AtomicBoolean();

    /** @param tell told in words for people what went wrong */
    Tasks(Executor ui, Executor worker, Consumer<String> tell) {
        this.ui = ui;
        this.worker = worker;
        this.tell = tell;
    }

    /** Work in progress, null if there is none. */
    ReadOnlyObjectProperty<TaskState> taskProperty() {
        return task.getReadOnlyProperty();
    }

    /** Stops what is under way. */
    void cancel() {
        cancelled.set(true);
    }

    /** Lets a search that is under way end with the best it has. */
    void enough() {
        enough.set(true);
    }

    /** Runs on the worker. */
    interface Work {
        void run(Progress progress) throws UnusableSound, IOException;
    }

    /** Begins long work, unless there is some under way; what goes wrong is told. */
    void run(String name, Work work) {
        run(name, false, work);
    }

    /** The same with work that looks for something better and better. */
    void search(String name, Work work) {
        run(name, true, work);
    }

    private void run(String name, boolean search, Work work) {
        if (task.get() != null) {
            tell.accept("'" + task.get().name() + "' is still under way: wait for it or stop it first.");
            return;
        }
        AtomicBoolean stop = new AtomicBoolean();
        AtomicBoolean end = new AtomicBoolean();
        cancelled = stop;
        enough = end;
        task.set(new TaskState(name, "", 0, search));
        Progress progress = progress(new TaskState(name, "", 0, search), stop, end);
        worker.execute(() -> {
            try {
                work.run(progress);
            } catch (CancellationException e) {
                LOG.info("{} was stopped", name);
            } catch (UnusableSound | IOException e) {
                tell.accept(e.getMessage());
            } catch (RuntimeException | OutOfMemoryError e) {
                LOG.error(name, e);
                tell.accept("'" + name
                        + "' stopped on an internal error; what you had is unchanged. The log has the details.");
            } finally {
                ui.execute(() -> task.set(null));
            }
        });
    }

    /** Shows now and then how far a task is: a search reports each of its renders. */
    private Progress progress(TaskState of, AtomicBoolean stop, AtomicBoolean end) {
        AtomicLong shown = new AtomicLong(System.nanoTime());
        return new Progress() {
            @Override
            public void report(double fraction, String doing) {
                if (stop.get()) {
                    throw new CancellationException();
                }
                long last = shown.get();
                boolean due = System.nanoTime() - last > SHOWN_EVERY_NANOS;
                if (!due || !shown.compareAndSet(last, System.nanoTime())) {
                    return;
                }
                TaskState now = new TaskState(of.name(), doing, fraction, of.search());
                ui.execute(() -> {
                    if (task.get() != null) {
                        task.set(now);
                    }
                });
            }

            @Override
            public boolean isEnough() {
                return end.get();
            }
        };
    }

    /** Something short on a thread of its own, as the worker may be at something long. */
    <T> void beside(FileWork<T> work, Consumer<T> then, Runnable ever) {
        Thread t = new Thread(() -> {
            try {
                T result = work.get();
                ui.execute(() -> then.accept(result));
            } catch (IOException e) {
                tell.accept(e.getMessage());
            } finally {
                ui.execute(ever);
            }
        });
        t.setDaemon(true);
        t.start();
    }
}
