package nightreed.desktop.stage;

import java.util.concurrent.CancellationException;
import java.util.function.Consumer;
import java.util.function.Supplier;
import javafx.application.Platform;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** Works out beside the window what a small picture shows. */
public final class BackgroundTask {
    private static final Logger LOG = LoggerFactory.getLogger(BackgroundTask.class);

    private BackgroundTask() {}

    /**
     * @param work   may throw a {@link CancellationException} once nobody waits for it any more
     * @param show   given the result on the FX thread
     * @param failed run there if it could not be worked out
     */
    public static <T> void work(Supplier<T> work, Consumer<T> show, Runnable failed) {
        Thread t = new Thread(
                () -> {
                    try {
                        T result = work.get();
                        Platform.runLater(() -> show.accept(result));
                    } catch (CancellationException e) {
                        LOG.debug("a small picture is not wanted any more");
                    } catch (RuntimeException e) {
                        LOG.error("a small picture could not be worked out", e);
                        Platform.runLater(failed);
                    }
                },
                "small picture");
        t.setDaemon(true);
        t.setPriority(Thread.MIN_PRIORITY);
        t.start();
    }
}
