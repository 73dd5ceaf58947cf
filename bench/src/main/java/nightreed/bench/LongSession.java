package nightreed.bench;

import java.io.IOException;
import java.lang.management.ManagementFactory;
import java.lang.management.ThreadMXBean;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.concurrent.Callable;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.FutureTask;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import javafx.application.Platform;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import nightreed.desktop.Workbench;
import nightreed.desktop.settings.Preferences.Look;
import nightreed.desktop.stage.WorkStage;
import nightreed.desktop.workspace.DemoProject;
import nightreed.desktop.workspace.WorkspaceState;
import nightreed.device.NoDevices;
import nightreed.match.advice.Move;
import nightreed.measure.partial.Partial;
import nightreed.recipe.Recipe;
import nightreed.room.RecordingRoom;
import nightreed.work.Progress;

/**
 * A scripted user at the real window for half an hour, and a watchdog that asks the FX thread every 10 ms how it is: the
 * longest answer, all answers over 100 ms with what was being done, what the FX thread worked itself and how long an idle
 * thread took to answer, and the memory in use after each minute.
 * <pre>xvfb-run -a java -Xmx1500m -Dprism.order=sw -cp 'bench/target/*:desktop/target/*:desktop/target/lib/*' \
 *     nightreed.bench.LongSession 30</pre>
 */
public final class LongSession {
    private final Workbench workbench;
    private final Random chance = new Random(4);
    private volatile String doing = "starting";
    private volatile boolean over;
    private final List<Stall> stalls = new ArrayList<>();
    private long fxThread;
    private final List<Double> waits = new ArrayList<>();

    private LongSession(Workbench workbench) {
        this.workbench = workbench;
    }

    public static void main(String[] args) throws Exception {
        double minutes = args.length > 0 ? Double.parseDouble(args[0]) : 30;
        CountDownLatch started = new CountDownLatch(1);
        Platform.startup(started::countDown);
        started.await();
        Path preferences = Files.createTempDirectory("night-reed-bench").resolve("preferences.json");
        Workbench w = fx(() -> {
            Workbench b = new Workbench(new NoDevices(), preferences);
            b.show(new Stage());
            return b;
        });
        w.bench().open(DemoProject.open(null, Progress.NONE));
        TimeUnit.SECONDS.sleep(5); // the window's own start is measured elsewhere
        LongSession s = new LongSession(w);
        s.fxThread = fx(() -> Thread.currentThread().getId());
        Thread watchdog = new Thread(s::watch);
        watchdog.setDaemon(true);
        watchdog.start();
        s.work(minutes);
        s.over = true;
        watchdog.join(2000);
        s.report();
        Platform.exit();
        System.exit(0);
    }

    private static <T> T fx(Callable<T> work) throws Exception {
        FutureTask<T> task = new FutureTask<>(work);
        Platform.runLater(task);
        return task.get(60, TimeUnit.SECONDS);
    }

    private void watch() {
        ThreadMXBean threads = ManagementFactory.getThreadMXBean();
        ExecutorService idler = Executors.newSingleThreadExecutor(r -> {
            Thread t = new Thread(r, "idler");
            t.setDaemon(true);
            return t;
        });
        while (!over) {
            String during = doing;
            long worked = threads.getThreadCpuTime(fxThread);
            long stolen = stolenTicks();
            long asked = System.nanoTime();
            CountDownLatch answered = new CountDownLatch(1);
            Platform.runLater(answered::countDown);
            Future<Double> idle = idler.submit(() -> (System.nanoTime() - asked) / 1e6);
            try {
                answered.await();
                double ms = (System.nanoTime() - asked) / 1e6;
                waits.add(ms);
                if (ms > 100) {
                    double own = (threads.getThreadCpuTime(fxThread) - worked) / 1e6;
                    stalls.add(new Stall(during, ms, own, idle.get(), 10.0 * (stolenTicks() - stolen)));
                }
                TimeUnit.MILLISECONDS.sleep(10);
            } catch (InterruptedException | ExecutionException e) {
                return;
            }
        }
    }

    /**
     * One answer that took more than 100 ms.
     *
     * @param ms     from question to answer
     * @param own    processor time of the FX thread meanwhile, ms: what it did itself
     * @param idle   time that a thread with nothing to do took for the same answer, ms: what the machine did to everyone
     * @param stolen time that other machines on the same host took from this one's processors meanwhile, ms
     */
    private record Stall(String during, double ms, double own, double idle, double stolen) {
        @Override
        public String toString() {
            return String.format(
                    Locale.ROOT,
                    "%4.0f ms (worked %.0f, idle thread %.0f, stolen %.0f) while %s",
                    ms,
                    own,
                    idle,
                    stolen,
                    during);
        }
    }

    /** Hundredths of a second of all processors given to other machines; 0 where the system does not say. */
    private static long stolenTicks() {
        try (Stream<String> lines = Files.lines(Path.of("/proc/stat"))) {
            return Long.parseLong(lines.findFirst().orElse("").trim().split("\\s+")[8]);
        } catch (IOException | RuntimeException e) {
            return 0;
        }
    }

    private void work(double minutes) throws Exception {
        long start = System.nanoTime();
        int minute = 0;
        while ((System.nanoTime() - start) / 60e9 < minutes) {
            step();
            TimeUnit.MILLISECONDS.sleep(100 + chance.nextInt(500));
            int now = (int) ((System.nanoTime() - start) / 60e9);
            if (now > minute) {
                minute = now;
                doing = "collecting garbage";
                System.gc();
                Runtime r = Runtime.getRuntime();
                System.out.printf(
                        Locale.ROOT,
                        "minute %d: %.1f MB in use, %d edits back%n",
                        minute,
                        (r.totalMemory() - r.freeMemory()) / 1e6,
                        edits);
            }
        }
    }

    private int edits;

    private void step() throws Exception {
        int what = chance.nextInt(100);
        WorkspaceState s = fx(() -> workbench.bench().state());
        if (what < 22) {
            WorkStage to = List.of(WorkStage.values()).get(chance.nextInt(6));
            act("going to " + to.title(), () -> workbench.shell().go(to));
        } else if (what < 60 && s.recipe() != null) {
            List<Recipe.Setting> all = s.recipe().settings();
            Recipe.Setting v = all.get(chance.nextInt(all.size()));
            double from = v.parameter().position(v.value());
            for (int i = 0; i < 12; i++) { // a drag
                double at = Math.max(0, Math.min(1, from + 0.01 * i));
                boolean last = i == 11;
                act(
                        "moving " + v.parameter().name(),
                        () -> workbench
                                .bench()
                                .shaping()
                                .set(v.parameter(), v.parameter().at(at), last));
                TimeUnit.MILLISECONDS.sleep(25);
            }
            edits++;
        } else if (what < 68) {
            act("undoing", () -> workbench.bench().undo());
        } else if (what < 72) {
            act("redoing", () -> workbench.bench().redo());
        } else if (what < 80) {
            act("playing", () -> {
                workbench.shell().rail().playOrStop();
                workbench.shell().rail().swap();
            });
        } else if (what < 86) {
            KeyCode[] letters = {KeyCode.Z, KeyCode.C, KeyCode.B, KeyCode.M};
            KeyCode k = letters[chance.nextInt(letters.length)];
            act("striking a key", () -> workbench.shell().rail().keys().letterDown(k));
            TimeUnit.MILLISECONDS.sleep(150);
            act("letting a key go", () -> workbench.shell().rail().keys().letterUp(k));
        } else if (what < 90 && s.recording() != null) {
            List<Partial> all = s.recording().measurement().reliablePartials();
            Partial p = all.get(chance.nextInt(all.size()));
            act("choosing a reed", () -> workbench.bench().selectedProperty().set(p));
        } else if (what < 92) {
            act("opening the guide", () -> workbench.shell().openGuide("compare"));
        } else if (what < 94) {
            act("opening the preferences", () -> workbench.shell().openPreferences());
        } else if (what < 95) {
            act(
                    "changing the look",
                    () -> workbench
                            .preferences()
                            .change(p -> p.withLook(p.look() == Look.DAY ? Look.NIGHT : Look.DAY)));
        } else if (what < 96) {
            act("keeping a take", () -> workbench.bench().keepTake("in passing"));
        } else if (what < 97) {
            act("fitting", () -> workbench.bench().fitting().fit());
        } else if (what < 98 && s.imitations().size() < 12) {
            RecordingRoom.Instrument i = RecordingRoom.instruments().get(chance.nextInt(2));
            act(
                    "recording",
                    () -> workbench
                            .bench()
                            .intake()
                            .record(i, i.usualKey() + chance.nextInt(6), 0.7, chance.nextInt(50)));
        } else if (what < 99 && !s.imitations().isEmpty()) {
            act(
                    "choosing an imitation",
                    () -> workbench
                            .bench()
                            .choose(s.imitations()
                                    .get(chance.nextInt(s.imitations().size()))));
        } else if (s.moves() != null && !s.moves().isEmpty()) {
            Move m = s.moves().get(0);
            act("applying a move", () -> workbench.bench().shaping().apply(m));
        }
    }

    private void act(String name, Runnable work) throws Exception {
        doing = name;
        fx(() -> {
            work.run();
            return null;
        });
    }

    private void report() {
        double[] sorted = waits.stream().mapToDouble(d -> d).sorted().toArray();
        System.out.printf(
                Locale.ROOT,
                "the FX thread answered %d times: median %.1f ms, 99.9 %% within %.1f ms, longest %.1f ms%n",
                sorted.length,
                sorted[sorted.length / 2],
                sorted[(int) (0.999 * (sorted.length - 1))],
                sorted[sorted.length - 1]);
        System.out.printf(
                "%d answers over 100 ms; %d of them while less than a tenth of the time was stolen; in %d the FX thread"
                        + " worked for more than 100 ms itself%n",
                stalls.size(),
                stalls.stream().filter(x -> x.stolen() < 0.1 * x.ms()).count(),
                stalls.stream().filter(x -> x.own() > 100).count());
        stalls.forEach(System.out::println);
    }
}
