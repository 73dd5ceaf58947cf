package nightreed.voice;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.sun.management.ThreadMXBean;
import java.lang.management.ManagementFactory;
import java.util.List;
import java.util.Random;
import nightreed.Partials;
import nightreed.Tones;
import nightreed.dsp.CeilingLimiter;
import nightreed.music.Pitch;
import nightreed.recipe.Layer;
import nightreed.recipe.Patch;
import nightreed.recipe.RandomRecipes;
import nightreed.recipe.Recipe;
import nightreed.recipe.Recipes;
import nightreed.recipe.StringRecipe;
import nightreed.recipe.SubtractiveRecipe;
import nightreed.recipe.part.Common;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.Keyboard;
import nightreed.recipe.part.Lfo;
import nightreed.recipe.part.Oscillator;
import nightreed.recipe.part.Route;
import nightreed.recipe.part.VelocityMap;
import nightreed.sound.Clip;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;

/** What every method promises to whoever plays it. */
class PlayingTest {
    private static final int FS = 48_000;
    private static final Envelope STEADY = new Envelope(0, 0, 0, 0, 0, 1, 1, 0.05);

    /** Longer by hand: -Dsurefire.jvm=-Dextreme.seconds=10. */
    private static final int EXTREME_SECONDS = Integer.getInteger("extreme.seconds", 2);

    static List<Recipe> all() {
        return Recipes.all();
    }

    private static SubtractiveRecipe sine(Common common) {
        return new SubtractiveRecipe(
                60,
                0,
                -12,
                List.of(Oscillator.of(Oscillator.Wave.SINE, 1)),
                null,
                null,
                null,
                null,
                STEADY,
                null,
                VelocityMap.USUAL,
                common);
    }

    /** The same playing, asked for in blocks of one size. */
    private static float[][] played(Recipe r, int block) {
        Instrument i = new Instrument(r, FS);
        float[][] y = new float[2][FS];
        int[] at = {0, 3001, 7000, 15_000, 22_222, 30_000, 36_001};
        int next = 0;
        int done = 0;
        while (done < FS) {
            if (next < at.length && done == at[next]) {
                switch (next) {
                    case 0 -> i.noteOn(48, 0.8);
                    case 1 -> i.noteOn(55, 0.4);
                    case 2 -> i.wheel(0.7);
                    case 3 -> i.bend(0.5);
                    case 4 -> i.pedal(true);
                    case 5 -> i.noteOff(48);
                    default -> i.noteOn(60, 1);
                }
                next++;
            }
            int until = next < at.length ? at[next] : FS;
            int n = Math.min(block, until - done);
            i.render(y[0], y[1], done, done + n);
            done += n;
        }
        return y;
    }

    @ParameterizedTest
    @MethodSource("all")
    void blocksOfAnySizeGiveTheSameSamples(Recipe r) {
        float[][] whole = played(r, FS);
        assertThat(Tones.rmsDb(whole[0], 0, FS)).as("it sounds").isGreaterThan(-60);
        for (int block : new int[] {1, 17, 64, 128, 1000}) {
            float[][] parts = played(r, block);
            assertThat(parts[0]).isEqualTo(whole[0]);
            assertThat(parts[1]).isEqualTo(whole[1]);
        }
    }

    /** A single render makes only what its recipe needs; it has to sound as the instrument does all the same. */
    @ParameterizedTest
    @MethodSource("all")
    void aNoteRenderedByItselfIsWhatTheInstrumentPlays(Recipe r) {
        Instrument i = new Instrument(r, FS);
        float[][] y = new float[2][FS];
        i.noteOn(52, 0.7);
        i.render(y[0], y[1], 0, FS / 2);
        i.noteOff(52);
        i.render(y[0], y[1], FS / 2, FS);
        Clip alone = Renderer.played(Patch.of(r), 52, 0.7, 0.5, 1, FS);
        assertThat(alone.channel(0)).isEqualTo(y[0]);
        assertThat(alone.channel(1)).isEqualTo(y[1]);
    }

    @ParameterizedTest
    @MethodSource("all")
    void densePlayingAllocatesNothing(Recipe r) {
        Instrument i = new Instrument(r, FS);
        float[] left = new float[256];
        float[] right = new float[256];
        ThreadMXBean threads = (ThreadMXBean) ManagementFactory.getThreadMXBean();
        long id = Thread.currentThread().getId();
        play(i, left, right, 500); // classes are loaded
        // Every round plays the same, so what the voices take shows in each. The machine itself takes a few
        // bytes once, whenever it asks for a method of a new class to be compiled (it makes the texts of the
        // messages that class could give), so a round that takes something is followed by another, up to five.
        long taken = Long.MAX_VALUE;
        for (int round = 0; round < 5 && taken != 0; round++) {
            long before = threads.getThreadAllocatedBytes(id);
            play(i, left, right, 1000);
            taken = Math.min(taken, threads.getThreadAllocatedBytes(id) - before);
        }
        assertThat(taken).isZero();
    }

    private static void play(Instrument i, float[] left, float[] right, int blocks) {
        for (int k = 0; k < blocks; k++) {
            if (k % 10 == 0) {
                i.noteOn(40 + k % 50, 0.5);
            } else if (k % 10 == 7) {
                i.noteOff(40 + (k - 7) % 50);
            } else if (k % 100 == 3) {
                i.bend(0.1);
                i.wheel(0.2);
                i.pedal(k % 200 == 3);
            }
            i.render(left, right, 0, left.length);
        }
    }

    @Test
    void aMacroGoesFromPluckToBow() {
        StringRecipe both = Recipes.bowed(StringRecipe.Drive.PULSE).pluckToBow();
        double[] falls = new double[3];
        for (int k = 0; k < 3; k++) {
            Recipe r = both.with("macro.1.amount", k / 2.0);
            float[] y = Renderer.note(r, 57, 0.8, 0, 2, FS).channel(0);
            assertThat(Tones.rmsDb(y, 0, 9600)).as("it begins at once").isGreaterThan(-60);
            falls[k] = Tones.rmsDb(y, FS, 2 * FS) - Tones.rmsDb(y, 2400, 12_000);
        }
        assertThat(falls[0]).as("plucked, it dies").isLessThan(-20);
        assertThat(falls[2]).as("bowed, it stays").isGreaterThan(-4);
        assertThat(falls[1]).as("half-way, between the two").isBetween(falls[0] + 3, falls[2]);
    }

    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3})
    void extremeValidRecipesStayFiniteAndUnderTheCeiling(long seed) {
        Random chance = new Random(seed);
        for (int trial = 0; trial < 4; trial++) {
            Recipe wild = RandomRecipes.next(chance);
            Instrument i = new Instrument(wild, FS);
            CeilingLimiter limiter = new CeilingLimiter(-1, FS);
            float[] left = new float[FS / 10];
            float[] right = new float[FS / 10];
            for (int block = 0; block < 10 * EXTREME_SECONDS; block++) {
                java.util.Arrays.fill(left, 0);
                java.util.Arrays.fill(right, 0);
                if (block % 5 == 0) {
                    i.noteOn(chance.nextInt(128), chance.nextDouble());
                    i.bend(2 * chance.nextDouble() - 1);
                    i.wheel(chance.nextDouble());
                }
                i.render(left, right, 0, left.length);
                float top = 0;
                boolean finite = true;
                for (int k = 0; k < left.length; k++) {
                    finite &= Float.isFinite(left[k]) && Float.isFinite(right[k]);
                }
                assertThat(finite)
                        .as("seed " + seed + " trial " + trial + ": " + wild)
                        .isTrue();
                limiter.process(left, right, 0, left.length);
                for (int k = 0; k < left.length; k++) {
                    top = Math.max(top, Math.max(Math.abs(left[k]), Math.abs(right[k])));
                }
                assertThat(top).isLessThan(0.892f);
            }
        }
    }

    @ParameterizedTest
    @Tag("long")
    @ValueSource(longs = {4, 5, 6, 7, 8, 9, 10, 11, 12})
    void moreExtremeValidRecipesStayFiniteAndUnderTheCeiling(long seed) {
        extremeValidRecipesStayFiniteAndUnderTheCeiling(seed);
    }

    @ParameterizedTest
    @MethodSource("all")
    void panicEndsAll(Recipe r) {
        Instrument i = new Instrument(r, FS);
        float[] y = new float[FS / 10];
        for (int k = 0; k < 60; k++) {
            i.noteOn(30 + k, 0.9);
            java.util.Arrays.fill(y, 0);
            i.render(y, 0, 480);
        }
        assertThat(i.sounding()).isTrue();
        assertThat(i.voices()).isLessThanOrEqualTo(Player.VOICES + 8);
        i.panic();
        i.render(y, 0, y.length);
        assertThat(i.sounding()).isFalse();
    }

    @Test
    void aNoteThatMakesRoomFadesInsteadOfClicking() {
        Instrument i = new Instrument(sine(Common.NONE), FS);
        float[] y = new float[FS];
        for (int k = 0; k < Player.VOICES; k++) {
            i.noteOn(20 + k, 0.2);
        }
        i.render(y, 0, FS / 2);
        i.noteOn(60, 0.2);
        i.render(y, FS / 2, FS);
        double before = 0;
        double after = 0;
        for (int k = 100; k < FS - 1; k++) {
            double step = Math.abs(y[k + 1] - y[k]);
            if (k < FS / 2 - 1) {
                before = Math.max(before, step);
            } else {
                after = Math.max(after, step);
            }
        }
        assertThat(after).isLessThan(1.3 * before);
    }

    @Test
    void thePedalHoldsWhatIsLetGo() {
        Instrument i = new Instrument(sine(Common.NONE), FS);
        float[] y = new float[FS];
        i.noteOn(60, 0.7);
        i.pedal(true);
        i.render(y, 0, 12_000);
        i.noteOff(60);
        i.render(y, 12_000, 24_000);
        i.pedal(false);
        i.render(y, 24_000, FS);
        assertThat(Tones.rmsDb(y, 20_000, 24_000)).isCloseTo(Tones.rmsDb(y, 6000, 10_000), within(0.1));
        assertThat(Tones.rmsDb(y, 30_000, FS)).isLessThan(-90);
    }

    @Test
    void bendGlidesToItsInterval() {
        Instrument i = new Instrument(sine(Common.NONE), FS);
        float[] y = new float[2 * FS];
        i.noteOn(69, 0.7);
        i.render(y, 0, FS / 2);
        i.bend(1);
        i.render(y, FS / 2, 2 * FS);
        double want = Pitch.hz(71);
        assertThat(Partials.hz(y, FS, want, FS, 8000, 4000)).isCloseTo(want, within(0.01));
    }

    @Test
    void oneNoteModesGlideAndBoundNotesDoNotStartAnew() {
        Common bound = Common.NONE.withKeyboard(new Keyboard(Keyboard.Voicing.ONE_BOUND, 100, 2));
        Instrument i = new Instrument(sine(bound), FS);
        float[] y = new float[2 * FS];
        i.noteOn(60, 0.7);
        i.render(y, 0, FS / 2);
        i.noteOn(72, 0.7);
        i.render(y, FS / 2, FS);
        assertThat(i.voices()).isEqualTo(1);
        double half = Partials.hz(y, FS, Pitch.hz(66), FS / 2 + 2400 - 240, 480, 1);
        assertThat(Pitch.midi(half)).isCloseTo(66, within(0.6));
        assertThat(Partials.hz(y, FS, Pitch.hz(72), FS / 2 + 9600, 4800, 2400)).isCloseTo(Pitch.hz(72), within(0.05));
        i.noteOff(72); // the first key is still down
        i.render(y, FS, 2 * FS);
        assertThat(Partials.hz(y, FS, Pitch.hz(60), FS + 24_000, 9600, 4800)).isCloseTo(Pitch.hz(60), within(0.05));
    }

    @Test
    void aLateVibratoHasItsRateAndDepth() {
        Common moving = Common.NONE
                .withFirst(Lfo.late(5, 0.5, 0.2))
                .withRoutes(List.of(new Route(Route.Source.LFO_1, Route.Target.PITCH, 30)));
        float[] y = Renderer.note(sine(moving), 69, 0.7, 0, 3, FS).channel(0);
        assertThat(Pitch.cents(440, Partials.hz(y, FS, 440, 2400, 9600, 4800))).isCloseTo(0, within(0.05));
        double high = -1e9;
        double low = 1e9;
        for (int t = FS; t < 2 * FS; t += 240) {
            double cents = Pitch.cents(440, Partials.hz(y, FS, 440, t, 960, 48));
            high = Math.max(high, cents);
            low = Math.min(low, cents);
        }
        assertThat(high).isCloseTo(30, within(1.5));
        assertThat(low).isCloseTo(-30, within(1.5));
    }

    @Test
    void envelopesKeepTheirTimes() {
        Envelope e = new Envelope(0.1, 0.2, 0, 0.05, 0.4, 0, 0.5, 0.3);
        SubtractiveRecipe r = new SubtractiveRecipe(
                60,
                0,
                0,
                List.of(Oscillator.of(Oscillator.Wave.SINE, 1)),
                null,
                null,
                null,
                null,
                e,
                null,
                VelocityMap.USUAL,
                Common.NONE);
        float[] y = Renderer.played(Patch.of(r), 108, 0.7, 1.2, 1.6, FS).channel(0);
        double hz = Pitch.hz(108);
        double[] times = {0.05, 0.2, 0.32, 0.55, 0.9, 1.35, 1.58};
        double[] levels = {0, 0.5, 1, 0.75, 0.5, 0.25, 0};
        for (int i = 0; i < times.length; i++) {
            double got = Math.pow(10, Partials.db(y, FS, hz, (int) (times[i] * FS) - 48, 96) / 20);
            assertThat(got).as("at " + times[i]).isCloseTo(levels[i], within(0.01));
        }
    }

    @Test
    void aFallWithFullCurveIsThatOfAStruckBody() {
        Envelope e = Envelope.struck(0, 1.5, 0.2);
        for (double t = 0.1; t < 0.76; t += 0.1) { // nearer to its end it has to reach nothing at all
            assertThat(20 * Math.log10(e.at(t, 1))).isCloseTo(-60 * t / 1.5, within(0.35));
        }
    }

    @Test
    void lfoShapesAreWhatTheyAreCalled() {
        Lfo square = new Lfo(Lfo.Shape.SQUARE, 1, Lfo.Per.SECOND, 0, 0, 0, 0.25, 0, false, false, List.of());
        assertThat(square.at(0.2, 1)).isEqualTo(1);
        assertThat(square.at(0.3, 1)).isEqualTo(-1);
        Lfo zigzag =
                new Lfo(Lfo.Shape.ZIGZAG, 2, Lfo.Per.QUARTER, 0, 0, 0, 0.5, 0, false, false, List.of(0.0, 1.0, -0.5));
        assertThat(zigzag.at(1.0 / 3, 1)).isCloseTo(1, within(1e-9));
        assertThat(zigzag.at(0.5, 1)).isCloseTo(0.25, within(1e-9));
        assertThat(zigzag.hz(90)).isEqualTo(3);
        Lfo steps = new Lfo(Lfo.Shape.RANDOM_STEPS, 1, Lfo.Per.SECOND, 0, 0, 0, 0.5, 0, false, false, List.of());
        assertThat(steps.at(3.1, 5)).isEqualTo(steps.at(3.9, 5)).isNotEqualTo(steps.at(4.1, 5));
        double mean = 0;
        for (int k = 0; k < 1000; k++) {
            mean += steps.at(k + 0.5, 9) / 1000;
        }
        assertThat(mean).isCloseTo(0, within(0.06));
    }

    @Test
    void layersSplitAndFadeAcrossTheKeyboard() {
        Recipe low = sine(Common.NONE);
        Patch p = new Patch(List.of(new Layer(low, 0, 0, 0, 66, 6), new Layer(low, -6, 12, 61, 127, 6)));
        for (int key : new int[] {40, 64, 90}) {
            float[] y = Renderer.played(p, key, 0.7, 1, 1, FS).channel(0);
            double own = Partials.db(y, FS, Pitch.hz(key), 4800, 40_000);
            double above = Partials.db(y, FS, Pitch.hz(key + 12), 4800, 40_000);
            assertThat(own > -60).isEqualTo(key < 67);
            assertThat(above > -60).isEqualTo(key > 60);
        }
        double power = 0;
        for (Layer l : p.layers()) {
            power += l.gainAt(63) * l.gainAt(63);
        }
        assertThat(power).isCloseTo(1, within(0.02));
    }

    @Test
    void anotherMethodTakesOverWhilePlaying() {
        Instrument i = new Instrument(Recipes.fm(), FS);
        float[] left = new float[FS];
        float[] right = new float[FS];
        i.noteOn(60, 0.7);
        i.render(left, right, 0, 9600);
        i.recipe(Recipes.string());
        i.noteOn(52, 0.7);
        i.render(left, right, 9600, FS);
        assertThat(Partials.db(left, FS, Pitch.hz(52.03), 20_000, 20_000)).isGreaterThan(-50);
        assertThat(Partials.db(left, FS, Pitch.hz(60) * 2.4, 20_000, 20_000)).isLessThan(-70);
    }
}
