package nightreed.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.concurrent.TimeUnit;
import nightreed.recipe.Patch;
import nightreed.recipe.RecipeJson;
import nightreed.recipe.UnusableRecipe;
import nightreed.voice.Instrument;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Level;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Param;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;

/**
 * Time of one block of 128 samples at 48 kHz with 32 notes held, for a recipe in a file:
 * <pre>java -cp 'bench/target/*:bench/target/lib/*' org.openjdk.jmh.Main VoiceBlocks -p file=RECIPE.json,...</pre>
 * A block lasts 2667 µs.
 */
@State(Scope.Thread)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MICROSECONDS)
@Warmup(iterations = 4, time = 2)
@Measurement(iterations = 6, time = 2)
@Fork(2)
public class VoiceBlocks {
    private static final int NOTES = 32;

    @Param("recipe.json")
    public String file;

    private final float[] left = new float[128];
    private final float[] right = new float[128];
    private Instrument instrument;
    private int key;
    private int blocks;

    /** Strikes the notes anew, so that none has died away. */
    @Setup(Level.Iteration)
    public void strike() throws IOException, UnusableRecipe {
        Patch patch = RecipeJson.parsePatch(Files.readString(Path.of(file)), file);
        instrument = new Instrument(patch, 48_000);
        key = patch.layers().get(0).recipe().key();
        for (int i = 0; i < NOTES; i++) {
            instrument.noteOn(key - NOTES / 2 + i, 0.6);
        }
    }

    @Benchmark
    public float[] block() {
        if (++blocks % 8 == 0) {
            int k = key - NOTES / 2 + blocks / 8 % NOTES;
            instrument.noteOff(k);
            instrument.noteOn(k, 0.6);
        }
        Arrays.fill(left, 0);
        Arrays.fill(right, 0);
        instrument.render(left, right, 0, left.length);
        return left;
    }
}
