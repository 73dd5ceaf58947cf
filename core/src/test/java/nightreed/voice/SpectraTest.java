package nightreed.voice;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import nightreed.Partials;
import nightreed.dsp.RealFft;
import nightreed.dsp.Windows;
import nightreed.music.Pitch;
import nightreed.recipe.FmPair;
import nightreed.recipe.FmRecipe;
import nightreed.recipe.Patch;
import nightreed.recipe.Recipe;
import nightreed.recipe.RingRecipe;
import nightreed.recipe.SubtractiveRecipe;
import nightreed.recipe.part.Common;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.Filter;
import nightreed.recipe.part.Oscillator;
import nightreed.recipe.part.Oscillator.Wave;
import nightreed.recipe.part.VelocityMap;
import nightreed.voice.fm.Sidebands;
import nightreed.voice.note.DcBlocker;
import nightreed.voice.ring.SumsAndDifferences;
import nightreed.voice.wave.WaveOscillator;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Spectra against their closed forms, and what must not be in them. */
class SpectraTest {
    private static final int FS = 48_000;
    private static final Envelope STEADY = new Envelope(0, 0, 0, 0, 0, 1, 1, 0.1);

    private static float[] play(Recipe r, int key, double seconds) {
        return Renderer.note(r, key, r.velocity().reference(), 0, seconds, FS).channel(0);
    }

    private static FmRecipe fm(FmPair... pairs) {
        return new FmRecipe(60, 0, 0, List.of(pairs), null, 0, VelocityMap.USUAL, Common.NONE);
    }

    @ParameterizedTest
    @CsvSource({
        "1, 1, 2, 0, 0, 48",
        "1, 1, 2, 1.5708, 1.5708, 48",
        "1, 1.4, 6, 0, 0, 60",
        "3, 1, 5, 0.7, 2.1, 55",
        "80, 55, 0.9, 0, 0, 24",
        "1, 2, 12, 0, 1, 36",
        "2, 5, 3.3, 1, 0.2, 72"
    })
    void fmHasTheLevelsOfBesselFoldedOnes(double c, double m, double index, double pc, double pm, int key) {
        FmPair pair = FmPair.of(0, Math.min(60, c), Math.min(60, m), index, STEADY, STEADY)
                .withPhases(pc, pm);
        float[] y = play(fm(pair), key, 3.2);
        double hz = Pitch.hz(key);
        List<Sidebands.Line> lines =
                Sidebands.lines(pair.carrierRatio() * hz, pair.modulatorRatio() * hz, index, pc, pm, 0.45 * FS);
        double top = lines.stream().mapToDouble(Sidebands.Line::levelDb).max().orElse(0);
        int checked = 0;
        for (Sidebands.Line l : lines) {
            if (l.levelDb() > top - 60 && l.hz() > 12) {
                double expected = l.levelDb() + DcBlocker.levelDb(l.hz());
                assertThat(Partials.db(y, FS, l.hz(), 4800, 3 * FS - 4800) - expected)
                        .as(l.orders() + " at " + l.hz())
                        .isCloseTo(0, within(0.1));
                checked++;
            }
        }
        assertThat(checked).isGreaterThan(4);
    }

    @ParameterizedTest
    @ValueSource(ints = {24, 48, 60, 72, 84, 96})
    void nothingFoldsBackFromOscillatorsFmOrRing(int key) {
        for (Wave w : List.of(Wave.SAW, Wave.PULSE, Wave.TRIANGLE)) {
            SubtractiveRecipe r = new SubtractiveRecipe(
                    60,
                    0,
                    -6,
                    List.of(Oscillator.of(w, 1)),
                    null,
                    null,
                    null,
                    null,
                    STEADY,
                    null,
                    VelocityMap.USUAL,
                    Common.NONE);
            assertThat(offTheGrid(play(r, key, 3), Pitch.hz(key)))
                    .as(w + " " + key)
                    .isLessThan(-70);
        }
        FmPair bright = FmPair.of(0, 1, 1, 8, STEADY, STEADY);
        assertThat(offTheGrid(play(fm(bright), key, 3), Pitch.hz(key)))
                .as("fm " + key)
                .isLessThan(-70);
        FmPair own = new FmPair(FmPair.Kind.PHASE, 0, 1, 1, 3, true, 0, 0, false, 0.5, 0.5, 0, 0.0, STEADY, STEADY);
        assertThat(offTheGrid(play(fm(own), key, 3), Pitch.hz(key)))
                .as("feedback " + key)
                .isLessThan(-70);
        FmPair wide =
                new FmPair(FmPair.Kind.PULSE_WIDTH, 0, 1, 1, 1.2, true, 0, 0, false, 0, 0.5, 0, 0.0, STEADY, STEADY);
        assertThat(offTheGrid(play(fm(wide), key, 3), Pitch.hz(key)))
                .as("pulse width " + key)
                .isLessThan(-70);
        RingRecipe ring = ring(Oscillator.of(Wave.SAW, 1), Oscillator.of(Wave.SAW, 1.5), 0, -80);
        assertThat(offTheGrid(play(ring, key, 3), Pitch.hz(key) / 2))
                .as("ring " + key)
                .isLessThan(-70);
    }

    private static SubtractiveRecipe subtractive(Oscillator o, Filter filter, Common common) {
        return new SubtractiveRecipe(
                60, 0, 0, List.of(o), null, null, null, filter, STEADY, null, VelocityMap.USUAL, common);
    }

    /** What does not swing costs headroom and moves a cone, and nobody hears it. */
    @Test
    void nothingStandsStill() {
        FmPair leaning = FmPair.of(0, 1, 1, 2, STEADY, STEADY).withPhases(1.2, 0.7);
        Oscillator narrow = new Oscillator(Wave.PULSE, Oscillator.Feet.FEET_8, 1, 0, 0, 0.05, 0, false, 0, 0, 0);
        Filter driven = new Filter(Filter.Kind.LOW, Filter.Slope.DB_12, 9000, 0.7, 0, 0, 0, 24, null);
        List<Recipe> all = List.of(
                ring(Oscillator.of(Wave.SINE, 1), Oscillator.of(Wave.SINE, 1), 0, -80),
                fm(leaning),
                subtractive(narrow, driven, Common.NONE));
        for (Recipe r : all) {
            float[] y = play(r, 60, 2);
            double sum = 0;
            double power = 0;
            for (int i = FS / 2; i < y.length; i++) {
                sum += y[i];
                power += (double) y[i] * y[i];
            }
            int n = y.length - FS / 2;
            assertThat(20 * Math.log10(Math.abs(sum / n) / Math.sqrt(power / n)))
                    .as(r.method())
                    .isLessThan(-60);
        }
    }

    /** Harmonics that come and go at the top of the band as the pitch swings must not click. */
    @ParameterizedTest
    @EnumSource(
            value = Wave.class,
            names = {"SAW", "PULSE", "TRIANGLE"})
    void vibratoDoesNotClickAtTheTopOfTheBand(Wave w) {
        Oscillator o = Oscillator.of(w, 1);
        WaveOscillator osc = new WaveOscillator(FS, null);
        osc.start(0);
        double[] y = new double[2 * FS / 64 * 64];
        double[] piece = new double[64];
        for (int at = 0; at < y.length; at += 64) {
            double hz = 1500 * Math.pow(2, Math.sin(2 * Math.PI * 6 * (at + 64.0) / FS) / 12);
            osc.step(w, hz, 0.4 * FS, o.width(), 0, 64);
            osc.render(piece, 64);
            System.arraycopy(piece, 0, y, at, 64);
        }
        int n = 2048;
        double[] window = Windows.kaiser(n, 18);
        RealFft fft = new RealFft(n);
        double most = 0;
        double above = 0;
        for (int at = FS / 10; at + n < y.length; at += n / 4) {
            double[] x = new double[n];
            for (int i = 0; i < n; i++) {
                x[i] = window[i] * y[at + i];
            }
            double[] p = RealFft.power(fft.forward(x));
            for (int k = 0; k < n / 2; k++) {
                most = Math.max(most, p[k]);
                above = k > 0.43 * n ? Math.max(above, p[k]) : above;
            }
        }
        assertThat(10 * Math.log10(above / most)).isLessThan(-90);
    }

    @ParameterizedTest
    @ValueSource(ints = {48, 72, 96})
    void nothingFoldsBackFromADrivenFilter(int key) {
        for (Filter.Slope slope : Filter.Slope.values()) {
            Filter wide = new Filter(Filter.Kind.LOW, slope, 18_000, 0.7, 0, 0, 0, 24, null);
            SubtractiveRecipe r = subtractive(Oscillator.of(Wave.SINE, 1), wide, Common.NONE);
            float[] y = play(r, key, 3);
            assertThat(offTheGrid(y, Pitch.hz(key))).as(slope + " " + key).isLessThan(-80);
            double first = Partials.db(y, FS, Pitch.hz(key), 4800, 2 * FS);
            assertThat(Partials.db(y, FS, 3 * Pitch.hz(key), 4800, 2 * FS) - first)
                    .isBetween(-14.0, -9.0);
        }
    }

    /** Modulators that are fed back are computed together, and none must hear of another. */
    @Test
    void pairsThatAreFedBackSoundTogetherAsEachDoesAlone() {
        FmPair[] pairs = {
            FmPair.of(-3, 1, 1, 1.1, STEADY, STEADY).withFeedback(0.25),
            FmPair.of(-6, 2, 3, 0.7, STEADY, STEADY),
            FmPair.of(-9, 3, 0.5, 1.9, STEADY, STEADY).withFeedback(0.1),
        };
        float[] together = play(fm(pairs), 60, 1);
        float[] sum = new float[together.length];
        for (FmPair p : pairs) {
            float[] alone = play(fm(p), 60, 1);
            for (int i = 0; i < sum.length; i++) {
                sum[i] += alone[i];
            }
        }
        assertThat(together).containsExactly(sum, within(1e-5f));
    }

    private static RingRecipe ring(Oscillator a, Oscillator b, double ringDb, double dryDb) {
        return new RingRecipe(
                60,
                0,
                -6,
                a,
                b,
                null,
                null,
                null,
                ringDb,
                dryDb,
                1,
                0,
                0,
                STEADY,
                null,
                VelocityMap.USUAL,
                Common.NONE);
    }

    /** Strongest bin that is no multiple of {@code hz}, under the strongest of all [dB]. */
    private static double offTheGrid(float[] y, double hz) {
        int n = 1 << 17;
        double[] x = new double[n];
        for (int i = 0; i < n; i++) {
            double u = 2 * Math.PI * (i + 0.5) / n;
            x[i] = y[i + 4800 < y.length ? i + 4800 : i]
                    * (0.35875 - 0.48829 * Math.cos(u) + 0.14128 * Math.cos(2 * u) - 0.01168 * Math.cos(3 * u));
        }
        double[] p = RealFft.power(new RealFft(n).forward(x));
        double most = 0;
        double off = 0;
        for (int k = 20; k < n / 2 - 200; k++) {
            double f = (double) k * FS / n;
            most = Math.max(most, p[k]);
            double away = Math.abs(f / hz - Math.rint(f / hz)) * hz;
            if (away > 8.0 * FS / n && f < 20_000) {
                off = Math.max(off, p[k]);
            }
        }
        return 10 * Math.log10(off / most);
    }

    @Test
    void aRingOfSinesHasSumAndDifferenceOnly() {
        // a fourth, 4:3: 1 and 7 of a common unit
        RingRecipe r = ring(Oscillator.of(Wave.SINE, 3), Oscillator.of(Wave.SINE, 4.0 / 3 * 3), 0, -80);
        float[] y = play(r, 48, 3);
        double unit = Pitch.hz(48);
        double low = Partials.db(y, FS, unit, 4800, 2 * FS);
        double high = Partials.db(y, FS, 7 * unit, 4800, 2 * FS);
        assertThat(low).isCloseTo(-12, within(0.1));
        assertThat(high).isCloseTo(-12, within(0.1));
        for (int n : new int[] {2, 3, 4, 5, 6, 8, 10, 12}) {
            assertThat(Partials.db(y, FS, n * unit, 4800, 2 * FS)).isLessThan(low - 90);
        }
    }

    @Test
    void theRingTableTellsWhatIsHeard() {
        RingRecipe r = ring(Oscillator.of(Wave.SAW, 1), Oscillator.of(Wave.TRIANGLE, 1.37), 0, -80);
        float[] y = play(r, 55, 3);
        for (SumsAndDifferences.Line l : SumsAndDifferences.lines(r, Pitch.hz(55), 1, 20_000, 20)) {
            assertThat(Partials.db(y, FS, l.hz(), 4800, 2 * FS) + 6)
                    .as(l.ofA() + " " + l.ofB())
                    .isCloseTo(l.levelDb(), within(0.3));
        }
    }

    @Test
    void fullForceClosesTheIntervalExactly() {
        RingRecipe r = new RingRecipe(
                60,
                0,
                -6,
                Oscillator.of(Wave.SINE, 1),
                Oscillator.of(Wave.SINE, 1),
                null,
                null,
                null,
                0,
                -80,
                1,
                0,
                500,
                STEADY,
                null,
                VelocityMap.USUAL,
                Common.NONE);
        assertThat(r.interval(1)).isEqualTo(1);
        double hz = Pitch.hz(60);
        float[] hard = Renderer.note(r, 60, 1, 0, 2, FS).channel(0);
        assertThat(Partials.db(hard, FS, 2 * hz, 4800, FS)).isGreaterThan(-20);
        float[] soft = Renderer.note(r, 60, 0.5, 0, 2, FS).channel(0);
        double above = hz * Math.pow(2, 250 / 1200.0);
        assertThat(Partials.db(soft, FS, hz + above, 4800, FS) - Partials.db(soft, FS, 2 * hz, 4800, FS))
                .isGreaterThan(50);
    }

    @ParameterizedTest
    @EnumSource(
            value = Wave.class,
            names = {"SAW", "PULSE", "TRIANGLE", "SINE"})
    void wavesHaveTheHarmonicsOfTheirNames(Wave w) {
        Oscillator o = new Oscillator(w, Oscillator.Feet.FEET_8, 1, 0, 0, 0.3, 0, false, 0, 0, 0);
        SubtractiveRecipe r = new SubtractiveRecipe(
                60, 0, 0, List.of(o), null, null, null, null, STEADY, null, VelocityMap.USUAL, Common.NONE);
        float[] y = play(r, 45, 2);
        for (int n = 1; n <= 40; n++) {
            double ideal = SumsAndDifferences.harmonic(o, null, n);
            double got = Math.pow(10, Partials.db(y, FS, n * Pitch.hz(45), 4800, FS) / 20);
            assertThat(got).as("harmonic " + n).isCloseTo(ideal, within(0.001 + 0.01 * ideal));
        }
    }

    @Test
    void unisonIsNoLouderThanOne() {
        SubtractiveRecipe one = new SubtractiveRecipe(
                60,
                0,
                -6,
                List.of(Oscillator.of(Wave.SAW, 1)),
                null,
                null,
                null,
                null,
                STEADY,
                null,
                VelocityMap.USUAL,
                Common.NONE);
        double alone = nightreed.Tones.rmsDb(play(one, 60, 4), 0, 4 * FS);
        for (int copies : new int[] {2, 3, 5, 8}) {
            float[] y = play(one.withUnison(new nightreed.recipe.Unison(copies, 20, true, 0)), 60, 4);
            assertThat(nightreed.Tones.rmsDb(y, 0, 4 * FS) - alone).isCloseTo(0, within(1.5));
        }
    }

    @Test
    void panAndPingPongReachTheirSides() {
        SubtractiveRecipe r = new SubtractiveRecipe(
                60,
                0,
                -12,
                List.of(Oscillator.of(Wave.SAW, 1)),
                null,
                null,
                null,
                null,
                Envelope.struck(0.001, 0.1, 0.05),
                null,
                VelocityMap.USUAL,
                Common.NONE.withEffects(new nightreed.recipe.part.Effects(
                        null,
                        null,
                        null,
                        new nightreed.recipe.part.Effects.Delay(0.3, false, 0.5, 0.8, 1, true, 12_000),
                        null,
                        null)));
        nightreed.sound.Clip c = Renderer.played(Patch.of(r), 60, 0.7, 1.4, 1.5, FS);
        double firstLeft = nightreed.Tones.rmsDb(c.channel(0), 14_400, 19_000);
        double firstRight = nightreed.Tones.rmsDb(c.channel(1), 14_400, 19_000);
        double secondLeft = nightreed.Tones.rmsDb(c.channel(0), 28_800, 33_000);
        double secondRight = nightreed.Tones.rmsDb(c.channel(1), 28_800, 33_000);
        assertThat(firstRight - firstLeft).isGreaterThan(30);
        assertThat(secondLeft - secondRight).isGreaterThan(30);
        assertThat(firstRight - secondLeft).isBetween(4.0, 9.0);
    }
}
