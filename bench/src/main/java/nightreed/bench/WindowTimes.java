package nightreed.bench;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.Callable;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.FutureTask;
import java.util.concurrent.TimeUnit;
import javafx.animation.AnimationTimer;
import javafx.application.Platform;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.stage.Stage;
import nightreed.desktop.Workbench;
import nightreed.desktop.reedbed.Reedbed;
import nightreed.desktop.stage.WorkStage;
import nightreed.desktop.workspace.DemoProject;
import nightreed.device.NoDevices;
import nightreed.device.StandInOutput;
import nightreed.work.Progress;

/**
 * The window at work on the demo project: how long until a moved ruler is heard, how long the reedbed takes to repaint, and how
 * soon the window answers while nothing is under way and while all methods are fitted.
 * Medians and worst of 40 and more, with software rendering. The
 * pulse is set high, so that a frame follows as soon as the one before it is on the screen.
 * <pre>xvfb-run -a java -Dprism.order=sw -Djavafx.animation.pulse=500 -cp 'bench/target/*:desktop/target/*:desktop/target/lib/*' nightreed.bench.WindowTimes</pre>
 */
public final class WindowTimes {
    private static final int RUNS = 40;
    private static final int RATE = 48_000;

    private final Workbench workbench;
    private final StandInOutput output;

    private WindowTimes(Workbench workbench) {
        this.workbench = workbench;
        this.output = (StandInOutput) workbench.output();
    }

    public static void main(String[] args) throws Exception {
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
        while (fx(() -> w.bench().state().moves() == null
                || w.bench().state().tolerances().isEmpty())) {
            TimeUnit.MILLISECONDS.sleep(50);
        }
        WindowTimes t = new WindowTimes(w);
        t.repaint();
        t.heard();
        t.answers();
        Platform.exit();
        System.exit(0);
    }

    private static <T> T fx(Callable<T> work) throws Exception {
        FutureTask<T> task = new FutureTask<>(work);
        Platform.runLater(task);
        return task.get(60, TimeUnit.SECONDS);
    }

    private Node find(String id) throws Exception {
        return fx(() -> {
            workbench.shell().applyCss();
            workbench.shell().layout();
            return find(workbench.shell(), id);
        });
    }

    /** By walking: an id with a point in it is no CSS selector. */
    private static Node find(Node node, String id) {
        if (id.equals(node.getId())) {
            return node;
        }
        if (node instanceof Parent parent) {
            for (Node child : parent.getChildrenUnmodifiable()) {
                Node found = find(child, id);
                if (found != null) {
                    return found;
                }
            }
        }
        return null;
    }

    /** Drawing of a bed with reeds, reflections and ripples, and whole frames of a window in which nothing else moves. */
    private void repaint() throws Exception {
        fx(() -> {
            workbench.shell().go(WorkStage.COMPARE);
            return null;
        });
        Reedbed bed = (Reedbed) find("compare-bed");
        TimeUnit.SECONDS.sleep(1);
        int warmUp = 300;
        double[] drawn = new double[RUNS];
        double[] frames = new double[RUNS];
        CountDownLatch done = new CountDownLatch(1);
        fx(() -> {
            new AnimationTimer() {
                private int frame;
                private long last;

                @Override
                public void handle(long now) {
                    long start = System.nanoTime();
                    int run = frame - warmUp;
                    if (run >= 0 && run < RUNS) {
                        frames[run] = (start - last) / 1e6;
                        drawn[run] = bed.lastDrawNanos() / 1e6;
                    } else if (run >= RUNS) {
                        stop();
                        done.countDown();
                    }
                    last = start;
                    bed.setTime(0.002 * frame++);
                }
            }.start();
            return null;
        });
        done.await();
        say("reedbed: drawing", drawn);
        say("reedbed: whole frame", frames);
    }

    /** From a question to the FX thread to its answer, every 10 ms. */
    private void answers() throws Exception {
        long until = System.nanoTime() + 5_000_000_000L;
        say("answer of the window: idle", asked(() -> System.nanoTime() < until));
        fx(() -> {
            workbench.bench().fitting().matchAll(Double.POSITIVE_INFINITY);
            return null;
        });
        say(
                "answer of the window: all methods fitted",
                asked(() -> fx(() -> workbench.bench().taskProperty().get()) != null));
    }

    private static double[] asked(Callable<Boolean> goesOn) throws Exception {
        List<Double> ms = new ArrayList<>();
        while (goesOn.call()) {
            long t = System.nanoTime();
            fx(() -> null);
            ms.add((System.nanoTime() - t) / 1e6);
            TimeUnit.MILLISECONDS.sleep(10);
        }
        return ms.stream().mapToDouble(Double::doubleValue).toArray();
    }

    /** From a press on a ruler until the sound of a ringing note has changed by a decibel, in the output's own samples. */
    private void heard() throws Exception {
        fx(() -> {
            workbench.shell().go(WorkStage.BUILD);
            workbench.bench().desk().volumeDb(0);
            return null;
        });
        Node line = find("line-mode.1.level");
        double[] took = new double[RUNS];
        int key = fx(() -> workbench.bench().state().recipe().key());
        for (int i = 0; i < RUNS; i++) {
            fx(() -> {
                workbench
                        .bench()
                        .shaping()
                        .set(
                                workbench
                                        .bench()
                                        .state()
                                        .recipe()
                                        .setting("mode.1.level")
                                        .parameter(),
                                0,
                                true);
                workbench.bench().desk().noteOn(key, 0.7);
                return null;
            });
            TimeUnit.MILLISECONDS.sleep(400);
            long[] at = new long[1];
            fx(() -> {
                at[0] = output.played();
                press(line);
                return null;
            });
            TimeUnit.MILLISECONDS.sleep(250);
            took[i] = 1000.0 * changed(at[0]) / RATE;
            fx(() -> {
                workbench.bench().desk().panic();
                return null;
            });
            TimeUnit.MILLISECONDS.sleep(100);
        }
        say("ruler: until it is heard", took);
    }

    /** Far down the line: a step that nobody misses. */
    private static void press(Node line) {
        for (var type : Arrays.asList(MouseEvent.MOUSE_PRESSED, MouseEvent.MOUSE_RELEASED)) {
            line.fireEvent(new MouseEvent(
                    type,
                    40,
                    10,
                    0,
                    0,
                    MouseButton.PRIMARY,
                    1,
                    false,
                    false,
                    false,
                    false,
                    true,
                    false,
                    false,
                    true,
                    false,
                    false,
                    null));
        }
    }

    /** Samples from {@code at} until the level over one period of the lowest note has fallen by a decibel. */
    private long changed(long at) {
        int window = RATE / 100;
        float[] x = output.kept(at - RATE / 5, at + RATE / 5).channel(0);
        double before = power(x, RATE / 5 - window, window);
        for (int i = RATE / 5; i + window < x.length; i += 16) {
            if (10 * Math.log10(power(x, i, window) / before) < -1) {
                return (long) i + window - RATE / 5;
            }
        }
        return Integer.MAX_VALUE; // never
    }

    private static double power(float[] x, int from, int n) {
        double p = 0;
        for (int i = from; i < from + n; i++) {
            p += (double) x[i] * x[i];
        }
        return p;
    }

    private static void say(String what, double[] ms) {
        double[] sorted = ms.clone();
        Arrays.sort(sorted);
        System.out.printf(
                Locale.ROOT,
                "%-40s median %6.2f ms, 99 of 100 within %6.2f ms, worst %6.2f ms%n",
                what,
                sorted[sorted.length / 2],
                sorted[sorted.length * 99 / 100],
                sorted[sorted.length - 1]);
    }
}
