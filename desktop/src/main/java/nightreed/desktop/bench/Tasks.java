package nightreed.desktop.bench;

import java.io.IOException;
import java.util.concurrent.CancellationException;
import java.util.concurrent.Executor;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.Consumer;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import nightreed.measure.Progress;
import nightreed.sound.UnusableSound;
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

    /** Runs on the worker. */
    interface Work {
        void run(Progress progress) throws UnusableSound, IOException;
    }

    /** Begins long work, unless there is some under way; what goes wrong is told. */
    void run(String name, Work work) {
        if (task.get() != null) {
            tell.accept("'" + task.get().name() + "' is still under way: wait for it or stop it first.");
            return;
        }
        AtomicBoolean stop = new AtomicBoolean();
        AtomicLong shown = new AtomicLong(System.nanoTime());
        cancelled = stop;
        task.set(new TaskState(name, "", 0));
        worker.execute(() -> {
            try {
                work.run((fraction, doing) -> {
                    if (stop.get()) {
                        throw new CancellationException();
                    }
                    long last = shown.get();
                    boolean due = System.nanoTime() - last > SHOWN_EVERY_NANOS;
                    if (!due || !shown.compareAndSet(last, System.nanoTime())) {
                        return; // a search reports each of its renders
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
}
