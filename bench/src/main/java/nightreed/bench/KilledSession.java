package nightreed.bench;

import java.io.BufferedReader;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.DriverManager;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.concurrent.Callable;
import java.util.concurrent.ConcurrentSkipListMap;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.FutureTask;
import java.util.concurrent.TimeUnit;
import javafx.application.Platform;
import javafx.stage.Stage;
import nightreed.desktop.Workbench;
import nightreed.desktop.stage.WorkStage;
import nightreed.desktop.workspace.DemoProject;
import nightreed.device.NoDevices;
import nightreed.project.Imitation;
import nightreed.project.ProjectFile;
import nightreed.project.Snapshot;
import nightreed.recipe.Recipe;
import nightreed.work.Progress;

/**
 * A scripted user edits in the real window, which says when an edit no longer bears the mark of waiting; the process is killed at a
 * random moment, and the file is looked at: again and again on the same file, with so many threads busy beside it.
 * <pre>xvfb-run -a java -cp 'bench/target/*:desktop/target/*:desktop/target/lib/*' nightreed.bench.KilledSession 200 8</pre>
 */
public final class KilledSession {
    private KilledSession() {}

    public static void main(String[] args) throws Exception {
        if (args.length == 3) {
            edit(Path.of(args[1]), Long.parseLong(args[2]));
            return;
        }
        int kills = args.length > 0 ? Integer.parseInt(args[0]) : 200;
        load(args.length > 1 ? Integer.parseInt(args[1]) : 0);
        Path folder = Files.createTempDirectory("night-reed-kills");
        Path file = folder.resolve("killed" + ProjectFile.ENDING);
        DemoProject.build(file, Progress.NONE).close();
        Random chance = new Random(29);
        long known = 0;
        int none = 0;
        for (int kill = 1; kill <= kills; kill++) {
            long acknowledged = editUntilKilled(file, known, chance);
            none += acknowledged == known ? 1 : 0;
            try (var c = DriverManager.getConnection("jdbc:sqlite:" + file);
                    var s = c.createStatement();
                    var answer = s.executeQuery("pragma integrity_check")) {
                if (!answer.getString(1).equals("ok")) {
                    throw new IllegalStateException("kill " + kill + ": " + answer.getString(1));
                }
            }
            long there = there(file);
            if (there < acknowledged) {
                throw new IllegalStateException("kill " + kill + ": edit " + acknowledged + " is lost, " + there);
            }
            known = there;
            if (kill % 20 == 0 || kill == kills) {
                System.out.printf(
                        Locale.ROOT,
                        "%d kills, %d edits, %d kills before the first edit: nothing lost%n",
                        kill,
                        known,
                        none);
            }
        }
    }

    /** Keeps threads busy until the end. */
    private static void load(int threads) {
        for (int i = 0; i < threads; i++) {
            Thread t = new Thread(() -> {
                while (true) {
                    Thread.onSpinWait();
                }
            });
            t.setDaemon(true);
            t.start();
        }
    }

    /** The note of the imitation on the bench is the number of the last edit. */
    private static long there(Path file) throws Exception {
        try (ProjectFile p = ProjectFile.open(file)) {
            Imitation i = p.imitations().get(0);
            Snapshot now = p.now(i);
            while (p.redoLabel(i).isPresent()) { // killed between undo and redo
                now = p.redo(i);
            }
            return now.note().matches("edit \\d+") ? Long.parseLong(now.note().substring(5)) : 0;
        }
    }

    /** @return the last edit that was shown as kept before the end */
    private static long editUntilKilled(Path file, long from, Random chance) throws Exception {
        Process editor = new ProcessBuilder(
                        ProcessHandle.current().info().command().orElseThrow(),
                        "-Dprism.order=sw",
                        "-cp",
                        System.getProperty("java.class.path"),
                        KilledSession.class.getName(),
                        "edit",
                        file.toString(),
                        String.valueOf(from))
                .redirectErrorStream(true)
                .start();
        ConcurrentSkipListMap<Long, Long> heard = new ConcurrentSkipListMap<>(); // nanoseconds to edit
        CountDownLatch begun = new CountDownLatch(1);
        Thread reader = new Thread(() -> {
            try (var in = new BufferedReader(new InputStreamReader(editor.getInputStream(), StandardCharsets.UTF_8))) {
                for (String line = in.readLine(); line != null; line = in.readLine()) {
                    if (line.matches("done \\d+")) {
                        heard.put(System.nanoTime(), Long.parseLong(line.substring(5)));
                        begun.countDown();
                    }
                }
            } catch (java.io.IOException killed) {
                return; // how the stream of one who is killed may end
            }
        });
        reader.start();
        begun.await(120, TimeUnit.SECONDS);
        TimeUnit.MILLISECONDS.sleep(chance.nextInt(1500));
        editor.destroyForcibly().waitFor();
        reader.join();
        var last = heard.lastEntry(); // a line that arrived was said before the end
        return last == null ? from : last.getValue();
    }

    // ---- the process that is killed ----

    private static void edit(Path file, long from) throws Exception {
        CountDownLatch started = new CountDownLatch(1);
        Platform.startup(started::countDown);
        started.await();
        Path preferences = Files.createTempDirectory("night-reed-kills").resolve("preferences.json");
        Workbench w = fx(() -> {
            Workbench b = new Workbench(new NoDevices(), preferences);
            b.show(new Stage());
            return b;
        });
        w.bench().open(ProjectFile.open(file));
        while (fx(() -> w.bench().state().recipe() == null)) {
            TimeUnit.MILLISECONDS.sleep(20); // it is opened beside the window
        }
        Random chance = new Random(from);
        for (long n = from + 1; true; n++) {
            String note = "edit " + n;
            fx(() -> {
                List<Recipe.Setting> all = w.bench().state().recipe().settings();
                var p = all.get(chance.nextInt(all.size())).parameter();
                w.bench().shaping().set(p, p.at(chance.nextDouble()), true);
                if (chance.nextInt(5) == 0) {
                    w.bench().undo();
                    w.bench().redo();
                }
                if (chance.nextInt(9) == 0) {
                    w.shell().go(List.of(WorkStage.values()).get(chance.nextInt(6)));
                }
                w.bench().shaping().note(note);
                return null;
            });
            while (fx(() -> w.bench().underWayProperty().get()
                            + w.bench().unsavedProperty().get()
                    > 0)) {
                TimeUnit.MILLISECONDS.sleep(1);
            }
            System.out.println("done " + n); // it is shown as kept
            TimeUnit.MILLISECONDS.sleep(60 + chance.nextInt(140)); // a quick hand
        }
    }

    private static <T> T fx(Callable<T> work) throws Exception {
        FutureTask<T> task = new FutureTask<>(work);
        Platform.runLater(task);
        return task.get(60, TimeUnit.SECONDS);
    }
}
