package nightreed.bench;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.FutureTask;
import java.util.concurrent.TimeUnit;
import javafx.application.Platform;
import javafx.stage.Stage;
import nightreed.desktop.Workbench;
import nightreed.desktop.settings.Preferences.Midi;
import nightreed.desktop.stage.WorkStage;
import nightreed.desktop.workspace.DemoProject;
import nightreed.device.NoDevices;
import nightreed.device.OutputMixer;
import nightreed.device.StandInOutput;
import nightreed.device.midi.ScriptedPlayer;
import nightreed.recipe.Recipe;
import nightreed.recipe.part.Parameter;
import nightreed.work.Progress;

/**
 * Playing live on the stand-ins at 128 samples a block: how long from a key to its sound, and how many blocks come too late
 * while the scripted player plays each imitation of the demo in turn and the window is kept busy with changing stages and
 * moving values.
 * <pre>xvfb-run -a java -Dprism.order=sw -cp 'bench/target/*:desktop/target/*:desktop/target/lib/*' nightreed.bench.LivePlaying MINUTES</pre>
 */
public final class LivePlaying {
    private static final int BLOCK = 128;
    private static final int RATE = 48_000;
    private static final int STRIKES = 200;

    private LivePlaying() {}

    public static void main(String[] args) throws Exception {
        double minutes = args.length > 0 ? Double.parseDouble(args[0]) : 1;
        CountDownLatch started = new CountDownLatch(1);
        Platform.startup(started::countDown);
        started.await();
        Path preferences = Files.createTempDirectory("night-reed-bench").resolve("preferences.json");
        Workbench w = fx(() -> {
            Workbench b = new Workbench(new NoDevices(), preferences);
            b.preferences().change(p -> p.asWelcomed().withOutput(null, BLOCK));
            b.show(new Stage());
            return b;
        });
        w.bench().open(DemoProject.open(DemoProject.built(), Progress.NONE));
        while (fx(() -> w.bench().state().recipe()) == null) {
            TimeUnit.MILLISECONDS.sleep(50);
        }
        keyToSound(fx(() -> w.bench().state().recipe()));
        longPlaying(w, minutes);
        System.exit(0);
    }

    /** From the call of a key to the sample that a card would let out, a whole block of waiting in the card included. */
    private static void keyToSound(Recipe recipe) throws InterruptedException {
        OutputMixer desk = new OutputMixer(RATE);
        desk.volumeDb(0);
        desk.instrument(recipe);
        double[] ms = new double[STRIKES];
        try (StandInOutput out = new StandInOutput(desk, RATE, BLOCK)) {
            TimeUnit.SECONDS.sleep(2);
            for (int i = 0; i < STRIKES; i++) {
                desk.panic();
                TimeUnit.MILLISECONDS.sleep(60 + i % 7);
                long before = out.played();
                desk.noteOn(recipe.key(), 0.9);
                TimeUnit.MILLISECONDS.sleep(60);
                float[] x = out.kept(before, before + RATE / 20).channel(0);
                int first = 0;
                while (first < x.length && Math.abs(x[first]) < 1e-4) {
                    first++;
                }
                ms[i] = 1000.0 * (first + BLOCK) / RATE;
            }
        }
        Arrays.sort(ms);
        System.out.printf(
                Locale.ROOT,
                "key to sound, blocks of %d: median %.1f ms, worst of %d %.1f ms%n",
                BLOCK,
                ms[STRIKES / 2],
                STRIKES,
                ms[STRIKES - 1]);
    }

    private static void longPlaying(Workbench w, double minutes) throws Exception {
        int imitations = fx(() -> w.bench().state().imitations().size());
        fx(() -> {
            w.preferences().change(p -> p.withMidi(new Midi(ScriptedPlayer.NAME, Map.of())));
            w.bench().desk().volumeDb(-12);
            return null;
        });
        TimeUnit.SECONDS.sleep(5); // what is compiled and loaded once is no part of it
        Process metronome = new ProcessBuilder(
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                        "-cp",
                        System.getProperty("java.class.path"),
                        Metronome.class.getName(),
                        String.valueOf(60 * minutes))
                .inheritIO()
                .start();
        long end = System.nanoTime() + (long) (minutes * 60e9);
        long lostBefore = fx(() -> w.output().dropOuts());
        long began = fx(() -> w.output().played());
        List<WorkStage> stages = List.of(WorkStage.values());
        double load = 0;
        long lostHere = lostBefore;
        int turns = (int) (minutes * 60 / imitations / 0.5); // each imitation has its share of the time
        for (int i = 0; System.nanoTime() < end; i++) {
            int turn = i;
            fx(() -> {
                if (turn % turns == 0) {
                    w.bench().choose(w.bench().state().imitations().get(turn / turns % imitations));
                }
                w.shell().go(stages.get(turn / 2 % stages.size()));
                Recipe r = w.bench().state().recipe();
                if (r != null) {
                    Parameter level = r.setting("level").parameter();
                    w.bench().shaping().set(level, r.levelDb() + (turn % 2 == 0 ? 0.5 : -0.5), false);
                }
                return null;
            });
            load = Math.max(load, w.bench().desk().takeLoad());
            TimeUnit.MILLISECONDS.sleep(500);
            if (turn % turns == turns - 1) {
                long now = fx(() -> w.output().dropOuts());
                String name = fx(() -> w.bench().state().current().name());
                System.out.printf(Locale.ROOT, "  %-24s %d too late%n", name, now - lostHere);
                lostHere = now;
            }
        }
        metronome.waitFor(10, TimeUnit.SECONDS);
        long lost = fx(() -> w.output().dropOuts()) - lostBefore;
        System.out.printf(
                Locale.ROOT,
                "%.1f s played by the scripted player, the window at work: %d blocks of %d too late, largest load seen %.0f %%%n",
                (fx(() -> w.output().played()) - began) / (double) RATE,
                lost,
                BLOCK,
                100 * load);
    }

    private static <T> T fx(Callable<T> work) throws Exception {
        FutureTask<T> task = new FutureTask<>(work);
        Platform.runLater(task);
        return task.get(60, TimeUnit.SECONDS);
    }
}
