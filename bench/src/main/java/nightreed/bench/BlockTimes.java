package nightreed.bench;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import nightreed.recipe.Patch;
import nightreed.recipe.RecipeJson;
import nightreed.voice.Instrument;

/**
 * How long one block of 32 notes takes against the time it lasts, for every recipe in a folder; a note is struck every few
 * blocks, so that starting notes counts, too. To be tied to one core:
 * <pre>taskset -c 0 java -cp 'bench/target/*:desktop/target/lib/*' nightreed.bench.BlockTimes FOLDER</pre>
 */
public final class BlockTimes {
    private static final int BLOCK = 128;
    private static final int FS = 48_000;
    private static final int VOICES = 32;

    private BlockTimes() {}

    public static void main(String[] args) throws Exception {
        List<Path> files;
        try (var listed = Files.list(Path.of(args[0]))) {
            files = listed.filter(p -> p.toString().endsWith(".json")).sorted().toList();
        }
        for (Path file : files) {
            Patch patch = RecipeJson.parsePatch(
                    Files.readString(file), file.getFileName().toString());
            measure(patch, 10); // compiled by then
            double[] share = measure(patch, 30);
            Arrays.sort(share);
            System.out.printf(
                    Locale.ROOT,
                    "%-28s %-12s median %5.1f %%  p90 %5.1f %%  p99 %5.1f %%  p99.9 %5.1f %%  worst %5.1f %% of a block%n",
                    file.getFileName(),
                    patch.layers().get(0).recipe().method(),
                    at(share, 0.5),
                    at(share, 0.9),
                    at(share, 0.99),
                    at(share, 0.999),
                    at(share, 1));
        }
    }

    private static double at(double[] sorted, double part) {
        return 100 * sorted[(int) Math.min(sorted.length - 1.0, part * sorted.length)];
    }

    private static double[] measure(Patch patch, double seconds) {
        Instrument i = new Instrument(patch, FS);
        int key = patch.layers().get(0).recipe().key();
        List<Integer> down = new ArrayList<>();
        float[] left = new float[BLOCK];
        float[] right = new float[BLOCK];
        double[] share = new double[(int) (seconds * FS / BLOCK)];
        double blockNanos = 1e9 * BLOCK / FS;
        for (int b = 0; b < share.length; b++) {
            boolean strike = b % 8 == 0 || down.size() < VOICES;
            int k = key - 16 + b * 7 % 32;
            long start = System.nanoTime();
            if (strike) {
                i.noteOn(k, 0.6);
            }
            Arrays.fill(left, 0);
            Arrays.fill(right, 0);
            i.render(left, right, 0, BLOCK);
            share[b] = (System.nanoTime() - start) / blockNanos;
            if (strike) {
                down.add(k);
                if (down.size() > VOICES) {
                    i.noteOff(down.remove(0));
                }
            }
        }
        return share;
    }
}
