package nightreed.bench;

import com.sun.management.ThreadMXBean;
import java.lang.management.ManagementFactory;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import nightreed.dsp.CeilingLimiter;
import nightreed.recipe.Patch;
import nightreed.recipe.RecipeJson;
import nightreed.voice.Instrument;

/**
 * A minute of dense playing of every recipe in a folder: bytes the sounding thread took, and the largest sample before and
 * behind the ceiling.
 * <pre>java -cp 'bench/target/*:desktop/target/lib/*' nightreed.bench.Endurance FOLDER</pre>
 */
public final class Endurance {
    private static final int FS = 48_000;
    private static final int BLOCK = 128;
    private static final double SECONDS = 60;

    private Endurance() {}

    public static void main(String[] args) throws Exception {
        List<Path> files;
        try (var listed = Files.list(Path.of(args[0]))) {
            files = listed.filter(p -> p.toString().endsWith(".json")).sorted().toList();
        }
        ThreadMXBean threads = (ThreadMXBean) ManagementFactory.getThreadMXBean();
        long id = Thread.currentThread().getId();
        for (Path file : files) {
            Patch patch = RecipeJson.parsePatch(
                    Files.readString(file), file.getFileName().toString());
            Instrument i = new Instrument(patch, FS);
            CeilingLimiter limiter = new CeilingLimiter(-1, FS);
            play(i, limiter, 10); // compiled by then
            long before = threads.getThreadAllocatedBytes(id);
            double[] peaks = play(i, limiter, SECONDS);
            long taken = threads.getThreadAllocatedBytes(id) - before;
            System.out.printf(
                    Locale.ROOT,
                    "%-28s %d bytes in %.0f s; peak %.1f dBFS, behind the ceiling %.2f dBFS%n",
                    file.getFileName(),
                    taken - ARRAYS,
                    SECONDS,
                    20 * Math.log10(peaks[0]),
                    20 * Math.log10(peaks[1]));
        }
    }

    /** What {@link #play} itself makes: two blocks and the peaks, with their heads. */
    private static final long ARRAYS = 2 * (16 + 4 * BLOCK) + 16 + 2 * 8;

    private static double[] play(Instrument i, CeilingLimiter limiter, double seconds) {
        float[] left = new float[BLOCK];
        float[] right = new float[BLOCK];
        double[] peaks = new double[2];
        int key = i.recipe().key();
        for (int b = 0; b < seconds * FS / BLOCK; b++) {
            if (b % 8 == 0) {
                i.noteOn(key - 16 + b * 7 % 32, 0.2 + 0.1 * (b % 9));
            } else if (b % 8 == 5) {
                i.noteOff(key - 16 + (b - 29) * 7 % 32);
            } else if (b % 100 == 3) {
                i.bend(Math.sin(b));
                i.wheel(0.5 + 0.5 * Math.sin(2.0 * b));
                i.pedal(b % 200 == 3);
            }
            Arrays.fill(left, 0);
            Arrays.fill(right, 0);
            i.render(left, right, 0, BLOCK);
            peaks[0] = Math.max(peaks[0], peak(left, right));
            limiter.process(left, right, 0, BLOCK);
            peaks[1] = Math.max(peaks[1], peak(left, right));
        }
        return peaks;
    }

    private static double peak(float[] left, float[] right) {
        float top = 0;
        for (int k = 0; k < left.length; k++) {
            top = Math.max(top, Math.max(Math.abs(left[k]), Math.abs(right[k])));
        }
        return top;
    }
}
