package nightreed.desktop;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;
import java.util.concurrent.Callable;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.FutureTask;
import java.util.concurrent.TimeUnit;
import java.util.function.Predicate;
import javafx.application.Platform;
import javafx.embed.swing.SwingFXUtils;
import javafx.scene.control.ButtonBase;
import javafx.scene.image.WritableImage;
import javafx.stage.Stage;
import javax.imageio.ImageIO;
import nightreed.desktop.settings.Preferences.Look;
import nightreed.desktop.stage.WorkStage;
import nightreed.desktop.workspace.DemoProject;
import nightreed.desktop.workspace.WorkspaceState;
import nightreed.device.NoDevices;
import nightreed.files.OutputFile;
import nightreed.machine.Machine;
import nightreed.machine.MachineJson;
import nightreed.recipe.StringRecipe;
import nightreed.room.RecordingRoom;
import nightreed.sound.Clip;
import nightreed.sound.WavFiles;
import nightreed.work.Progress;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(name = "shots", description = "Draws each view of the demo project into PNG files.")
final class ShotsCommand implements Callable<Integer> {
    @Parameters(paramLabel = "DIR", description = "Folder for the pictures.")
    Path folder;

    @Spec
    CommandSpec spec;

    @Option(names = "--size", paramLabel = "WxH", description = "Size of the window, 1280x800 by default.")
    String size = "1280x800";

    @Option(names = "--look", paramLabel = "LOOK", description = "night (default) or day.")
    Look look = Look.NIGHT;

    @Option(names = "--scale", paramLabel = "PERCENT", description = "Size of everything, 100 to 200; 100 by default.")
    int scale = 100;

    @Override
    public Integer call() throws Exception {
        if (!size.matches("[1-9]\\d{2,3}x[1-9]\\d{2,3}")) {
            throw new ParameterException(
                    spec.commandLine(), "--size is a width and a height such as 1280x800, got " + size);
        }
        String[] wh = size.split("x", 2);
        double width = Double.parseDouble(wh[0]);
        double height = Double.parseDouble(wh[1]);
        Path preferences = Files.createTempDirectory("night-reed-shots").resolve("preferences.json");
        CountDownLatch started = new CountDownLatch(1);
        Platform.startup(started::countDown);
        started.await();
        Platform.setImplicitExit(false);
        Workbench[] bench = new Workbench[1];
        Stage[] stage = new Stage[1];
        onFx(() -> {
            bench[0] = new Workbench(new NoDevices(), preferences);
            bench[0].preferences().change(p -> p.asWelcomed().withLook(look));
            stage[0] = new Stage();
            bench[0].show(stage[0]);
            stage[0].setWidth(width);
            stage[0].setHeight(height);
            return null;
        });
        bench[0].bench().open(DemoProject.open(DemoProject.built(), Progress.NONE));
        // everything that follows a recipe has to be there before the picture is taken
        await(bench[0], s -> s.moves() != null && !s.tolerances().isEmpty());
        for (WorkStage view : WorkStage.values()) {
            onFx(() -> {
                bench[0].shell().go(view);
                return null;
            });
            settle();
            WritableImage image = onFx(() -> stage[0].getScene().snapshot(null));
            write(image, folder.resolve(view.title().toLowerCase(Locale.ROOT) + ".png"));
        }
        onFx(
                () -> { // another method, on the string of the demo
                    WorkspaceState s = bench[0].bench().state();
                    bench[0].bench().choose(s.imitations().get(5));
                    bench[0].shell().go(WorkStage.BUILD);
                    return null;
                });
        await(
                bench[0],
                s -> s.recipe() instanceof StringRecipe
                        && s.comparison() != null
                        && s.moves() != null
                        && !s.tolerances().isEmpty());
        page(bench[0], stage[0], "build-string", () -> {});
        page(bench[0], stage[0], "brief-described", () -> {
            bench[0].shell().go(WorkStage.BRIEF);
            ((ButtonBase) stage[0].getScene().lookup("#way-described")).fire();
        });
        page(bench[0], stage[0], "guide", () -> bench[0].shell().openGuide("first-note"));
        page(bench[0], stage[0], "preferences", bench[0].shell()::openPreferences);
        machine(bench[0], stage[0]);
        page(bench[0], stage[0], "about", bench[0].shell()::openAbout);
        page(bench[0], stage[0], "welcome", bench[0].shell()::openWelcome);
        longFile(bench[0], stage[0]);
        onFx(() -> {
            stage[0].close();
            bench[0].close();
            return null;
        });
        Platform.exit();
        return 0;
    }

    /** What a machine can do, of one that ships with the application. */
    private void machine(Workbench bench, Stage stage) throws Exception {
        Machine before = bench.bench().fitting().machineProperty().get();
        page(bench, stage, "machine", () -> {
            bench.bench().fitting().on(MachineJson.examples().get(0));
            bench.shell().openMachine();
        });
        onFx(() -> {
            bench.bench().fitting().on(before);
            return null;
        });
    }

    /** A file too long to be measured whole, made of nothing but notes of the recording room. */
    private void longFile(Workbench bench, Stage stage) throws Exception {
        RecordingRoom.Instrument bars = RecordingRoom.instrument("slate-bars");
        float[] all = new float[48_000 * 60 * 11];
        for (int i = 0; i < 40; i++) {
            float[] note =
                    RecordingRoom.record(bars, 57 + i % 12, 0.4 + 0.015 * i, i).channel(0);
            System.arraycopy(note, 0, all, 48_000 * 16 * i, Math.min(note.length, 48_000 * 16));
        }
        Path file = Files.createTempDirectory("night-reed-shots").resolve("an afternoon of slate bars.wav");
        WavFiles.write(Clip.mono(all, 48_000), WavFiles.Format.PCM16, file);
        page(bench, stage, "long-file", () -> bench.bench().intake().file(file));
        TimeUnit.SECONDS.sleep(2);
        page(bench, stage, "long-file", () -> bench.shell().go(WorkStage.BRIEF));
    }

    private void page(Workbench bench, Stage stage, String name, Runnable open) throws Exception {
        onFx(() -> {
            open.run();
            return bench;
        });
        settle();
        write(onFx(() -> stage.getScene().snapshot(null)), folder.resolve(name + ".png"));
    }

    private static void await(Workbench workbench, Predicate<WorkspaceState> ready) throws Exception {
        long end = System.nanoTime() + TimeUnit.SECONDS.toNanos(60);
        while (!onFx(() -> ready.test(workbench.bench().state()))) {
            if (System.nanoTime() > end) {
                throw new IOException("The demo project did not open within a minute: see the log.");
            }
            TimeUnit.MILLISECONDS.sleep(50);
        }
    }

    /** Lets layout and drawing happen. */
    private static void settle() throws Exception {
        for (int i = 0; i < 4; i++) {
            TimeUnit.MILLISECONDS.sleep(60);
            onFx(() -> null);
        }
    }

    private static <T> T onFx(Callable<T> work) throws Exception {
        FutureTask<T> task = new FutureTask<>(work);
        Platform.runLater(task);
        try {
            return task.get(60, TimeUnit.SECONDS);
        } catch (ExecutionException e) {
            throw e.getCause() instanceof Exception inner ? inner : e;
        }
    }

    private static void write(WritableImage image, Path file) throws IOException {
        BufferedImage rgb =
                new BufferedImage((int) image.getWidth(), (int) image.getHeight(), BufferedImage.TYPE_INT_RGB);
        rgb.getGraphics().drawImage(SwingFXUtils.fromFXImage(image, null), 0, 0, null);
        ByteArrayOutputStream png = new ByteArrayOutputStream();
        ImageIO.write(rgb, "png", png);
        OutputFile.write(file, png.toByteArray());
    }
}
