package nightreed.project;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.BufferedReader;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.sql.DriverManager;
import java.util.Random;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;
import nightreed.recipe.RecipeTest;
import nightreed.recipe.ResonatorRecipe;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * A process that edits without a pause and says when each edit has been committed is killed at a random moment, again and
 * again on the same file. {@code -Dkills=200} for a long look.
 */
class KilledWhileEditingTest {
    @TempDir
    Path folder;

    /** The editing process: raises the tuning by edits, and every now and then takes a few back or keeps a take. */
    public static final class Editor {
        private Editor() {}

        public static void main(String[] args) throws Exception {
            ProjectFile p = ProjectFile.open(Path.of(args[0]));
            Imitation i = p.imitations().get(0);
            ResonatorRecipe recipe = RecipeTest.bar();
            long n = Long.parseLong(args[1]);
            while (true) {
                n++;
                p.commit(
                        i,
                        "edit " + n,
                        new Snapshot(null, recipe.with("tune", (double) (n % 100)), recipe, "note " + n));
                System.out.println(n); // acknowledged
                if (n % 7 == 0) {
                    p.undo(i);
                    p.redo(i);
                }
            }
        }
    }

    @Test
    void whatWasAcknowledgedIsThereAndTheFileIsWhole() throws Exception {
        Path file = folder.resolve("killed.nightreed");
        try (ProjectFile p = ProjectFile.create(file, "Killed")) {
            p.addImitation("bar");
        }
        Random r = new Random(17);
        long known = 0;
        int kills = Integer.getInteger("kills", 4);
        for (int kill = 0; kill < kills; kill++) {
            long acknowledged = editUntilKilled(file, known, 20 + r.nextInt(900));
            try (var c = DriverManager.getConnection("jdbc:sqlite:" + file);
                    var s = c.createStatement();
                    var answer = s.executeQuery("pragma integrity_check")) {
                assertThat(answer.getString(1)).isEqualTo("ok");
            }
            try (ProjectFile p = ProjectFile.open(file)) {
                Imitation i = p.imitations().get(0);
                Snapshot now = p.now(i);
                while (p.redoLabel(i).isPresent()) { // killed between undo and redo
                    now = p.redo(i);
                }
                long last = now.note().isEmpty() ? 0 : Long.parseLong(now.note().substring(5));
                // more may be there than was heard: what a killed process had said last is lost with its pipe
                assertThat(last).as("kill %d", kill).isGreaterThanOrEqualTo(acknowledged);
                known = last;
            }
        }
        assertThat(known).isGreaterThan(10);
    }

    /**
     * @param millis time from its first edit to its end: how long a process takes to start says nothing of edits
     * @return the last edit that the process said it had committed
     */
    private static long editUntilKilled(Path file, long from, long millis) throws Exception {
        Process editor = new ProcessBuilder(
                        ProcessHandle.current().info().command().orElseThrow(),
                        "-XX:TieredStopAtLevel=1",
                        "-cp",
                        System.getProperty("java.class.path"),
                        Editor.class.getName(),
                        file.toString(),
                        String.valueOf(from))
                .redirectErrorStream(true)
                .start();
        AtomicLong last = new AtomicLong(from);
        CountDownLatch begun = new CountDownLatch(1);
        Thread reader = new Thread(() -> {
            try (var in = new BufferedReader(new InputStreamReader(editor.getInputStream(), StandardCharsets.UTF_8))) {
                for (String line = in.readLine(); line != null; line = in.readLine()) {
                    if (line.matches("\\d+")) {
                        last.accumulateAndGet(Long.parseLong(line), Math::max); // a line may be cut off
                        begun.countDown();
                    }
                }
            } catch (java.io.IOException killed) {
                return; // how the stream of one who is killed may end
            }
        });
        reader.start();
        assertThat(begun.await(60, TimeUnit.SECONDS)).as("it edits").isTrue();
        editor.waitFor(millis, TimeUnit.MILLISECONDS);
        editor.destroyForcibly().waitFor();
        reader.join();
        return last.get();
    }
}
