package nightreed.desktop;

import atlantafx.base.theme.PrimerDark;
import java.util.Objects;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.ThreadPoolExecutor;
import java.util.concurrent.TimeUnit;
import javafx.application.Application;
import javafx.application.Platform;
import javafx.scene.Scene;
import javafx.scene.text.Font;
import javafx.stage.Stage;
import nightreed.desktop.bench.Bench;
import nightreed.desktop.shell.Shell;
import nightreed.device.AudioOutput;
import nightreed.device.AudioOutputs;
import nightreed.device.AudioSource;
import nightreed.device.Desk;

/** One open window with everything that belongs to it: bench, desk, output, threads. */
public final class Workbench {
    private final ExecutorService worker = oneThread("night-reed work");
    private final ExecutorService scribe = oneThread("night-reed project");
    private final ExecutorService follower = oneThread("night-reed follow");
    private final Desk desk = new Desk(AudioOutputs.SAMPLE_RATE_HZ);
    private final Bench bench = new Bench(Platform::runLater, worker, scribe, follower, desk);
    private final AudioOutput output;
    private final Shell shell;

    /** Opens the default output. FX thread. */
    public Workbench() {
        this(AudioOutputs::open);
    }

    /** @param outputs opens an output for the desk */
    public Workbench(java.util.function.Function<AudioSource, AudioOutput> outputs) {
        output = outputs.apply(desk);
        for (String font : new String[] {
            "IBMPlexSans_400Regular",
            "IBMPlexSans_500Medium",
            "IBMPlexSans_600SemiBold",
            "JetBrainsMono_400Regular",
            "JetBrainsMono_500Medium"
        }) {
            Font.loadFont(Workbench.class.getResourceAsStream("fonts/" + font + ".ttf"), 13);
        }
        Application.setUserAgentStylesheet(new PrimerDark().getUserAgentStylesheet());
        shell = new Shell(bench, output);
    }

    /** One thread for work in order; what comes after the window is closed is dropped. */
    private static ExecutorService oneThread(String name) {
        return new ThreadPoolExecutor(
                1,
                1,
                0,
                TimeUnit.SECONDS,
                new LinkedBlockingQueue<>(),
                r -> {
                    Thread t = new Thread(r, name);
                    t.setDaemon(true);
                    t.setPriority(Thread.NORM_PRIORITY - 1); // the window and the sound come first
                    return t;
                },
                new ThreadPoolExecutor.DiscardPolicy());
    }

    public Bench bench() {
        return bench;
    }

    public Shell shell() {
        return shell;
    }

    public AudioOutput output() {
        return output;
    }

    /** Shows the window. FX thread. */
    public void show(Stage stage) {
        Scene scene = new Scene(shell, 1280, 800);
        scene.getStylesheets()
                .add(Objects.requireNonNull(Workbench.class.getResource("night.css"))
                        .toExternalForm());
        shell.listen(scene);
        stage.setTitle("Night Reed");
        stage.setMinWidth(1000);
        stage.setMinHeight(680);
        stage.setScene(scene);
        stage.show();
    }

    /** Ends all work; what has been edited is in the project file before this returns. */
    public void close() {
        bench.cancel();
        bench.close();
        output.close();
        follower.shutdownNow();
        worker.shutdownNow();
        scribe.shutdown();
        try {
            scribe.awaitTermination(5, TimeUnit.SECONDS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
