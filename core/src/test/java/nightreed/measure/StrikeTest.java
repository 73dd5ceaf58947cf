package nightreed.measure;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.Random;
import nightreed.Tones;
import nightreed.measure.law.StrikeNote;
import nightreed.measure.partial.NoiseFloor;
import nightreed.music.Bark;
import nightreed.recipe.LoopLoss;
import nightreed.recipe.Recipe;
import nightreed.recipe.SecondString;
import nightreed.recipe.StringRecipe;
import nightreed.recipe.StringRecipe.Drive;
import nightreed.recipe.part.Exciter;
import nightreed.sound.Clip;
import nightreed.voice.Renderer;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** What the first moments of a note measure as: burst, colour, attack, brightness, and which pitch it is heard at. */
class StrikeTest {
    private static final double FS = 48_000;

    private static double[] burst(double t60, double sigma, long seed) {
        Random r = new Random(seed);
        double[] x = new double[(int) (1.5 * FS)];
        for (int i = 9600; i < x.length; i++) {
            double t = (i - 9600) / FS;
            x[i] = sigma * Math.exp(-Math.log(1000) * t / t60) * r.nextGaussian();
        }
        return x;
    }

    private static Measurement measured(double[] burst, Tones.P... partials) throws Exception {
        double[] x = Tones.struck(FS, 0.2, 1.5, partials);
        for (int i = 0; i < x.length; i++) {
            x[i] += burst[i];
        }
        return Measurer.measure(Clip.mono(Tones.noisy(x, 1e-5, 5), (int) FS));
    }

    @ParameterizedTest
    @CsvSource({"0.010", "0.020", "0.040"})
    void theBurstsDecayIsToldWithinAThird(double t60) throws Exception {
        Measurement m = measured(burst(t60, 0.2, 11), new Tones.P(0.3, 440, 1, 0), new Tones.P(0.1, 1213, 0.7, 1));
        assertThat(m.noise()).isNotNull();
        assertThat(m.noise().t60Seconds()).isBetween(t60 / 1.4, t60 * 1.4);
    }

    @Test
    void tenDecibelsMoreBurstAreTenDecibelsMore() throws Exception {
        Tones.P tone = new Tones.P(0.3, 440, 1, 0);
        double soft = measured(burst(0.02, 0.03, 3), tone).noise().levelDb();
        double loud = measured(burst(0.02, 0.0949, 3), tone).noise().levelDb();
        assertThat(loud - soft).isCloseTo(10, within(0.7));
    }

    @Test
    void whiteNoiseHasNoSlopeAndFillsTheBand() throws Exception {
        StrikeNoise n =
                measured(burst(0.03, 0.2, 8), new Tones.P(0.2, 440, 1, 0)).noise();
        assertThat(n.slopeDbPerOctave()).isCloseTo(0, within(2.0));
        assertThat(n.highHz()).isGreaterThan(18_000);
    }

    @Test
    void criticalBandsHoldTheEnergyOfATone() {
        double[] tone = Tones.struck(FS, 0, 0.1, new Tones.P(1, 1000, 100, 0));
        double[] none = new double[tone.length];
        StrikeBands b = StrikeBands.of(none, tone, FS, 1, hz -> 0);
        int band = Bark.band(1000);
        for (int s = 0; s < b.spans(); s++) {
            double sum = 0;
            for (double p : b.whole()[s]) {
                sum += p;
            }
            assertThat(sum).isCloseTo(1, within(0.1)); // relative to the tone's own power
            assertThat(b.whole()[s][band] + b.whole()[s][band - 1] + b.whole()[s][band + 1])
                    .isGreaterThan(0.9 * sum);
            assertThat(b.burst()[s]).containsOnly(0);
        }
    }

    /** Long, narrow noise is partly taken for a loud term that dies at once; that one is no measure of anything. */
    @ParameterizedTest
    @CsvSource({"-7, 120", "-3, 162", "7, 200"})
    void theStrikeIsToldAgainstThePartialThatIsTheStrongest(double cents, double low) throws Exception {
        Recipe r = new StringRecipe(
                        50,
                        -11,
                        -24,
                        Drive.PULSE,
                        new Exciter(20, -11, 112, low, 2 * low),
                        new LoopLoss(LoopLoss.Kind.SHELVES, 2.95, 1940, 1.5),
                        0.18)
                .withSecond(new SecondString(cents, 0, 3.4));
        Clip clip = Renderer.asFitted(r, 0.1, 3, (int) FS);
        Measurement m = Measurer.measure(clip);
        double[] x = clip.mixed();
        double power = 0;
        int from = (int) (m.onsetSeconds() * FS + 0.02 * FS);
        int to = (int) (m.onsetSeconds() * FS + 0.06 * FS);
        for (int i = from; i < to; i++) {
            power += x[i] * x[i] / (to - from);
        }
        double told = Arrays.stream(m.strikeBands().whole()[2]).sum()
                * Math.pow(m.strongest().amplitude(), 2)
                / 2;
        assertThat(10 * Math.log10(told / power)).isCloseTo(0, within(1.0));
    }

    @ParameterizedTest
    @ValueSource(doubles = {0.002, 0.010, 0.040})
    void aRampIsAnAttackOfEightTenthsOfIt(double rise) {
        double[] x = new double[48_000];
        for (int i = 0; i < x.length; i++) {
            x[i] = Math.min(1, i / FS / rise) * Math.sin(2 * Math.PI * 3000 * i / FS);
        }
        assertThat(Attack.seconds(x, FS, 0)).isCloseTo(0.8 * rise, within(0.0004)); // one wave of the tone
    }

    @Test
    void silenceHasNoAttack() {
        assertThat(Attack.seconds(new double[1000], FS, 0)).isNull();
    }

    @Test
    void brightnessFallsAsTheUpperPartialDies() throws Exception {
        Measurement m = measured(new double[72_000], new Tones.P(0.2, 500, 2, 0), new Tones.P(0.2, 4000, 0.15, 1));
        assertThat(m.brightness().startHz()).isBetween(900.0, 2600.0); // over the first frame, in which it dies
        assertThat(m.brightness().endHz()).isCloseTo(500, within(40.0));
        assertThat(m.brightness().halfTimeSeconds()).isBetween(0.01, 0.12);
    }

    @Test
    void ofAPairTheOneThatStaysIsHeardAsThePitch() throws Exception {
        // a body that gives way under the blow: louder for a moment, then true
        Measurement m = measured(
                new double[72_000],
                new Tones.P(0.25, 526.5, 0.14, 0),
                new Tones.P(0.2, 522.6, 0.9, 1),
                new Tones.P(0.1, 522.6 * 2.756, 0.5, 2),
                new Tones.P(0.05, 522.6 * 5.404, 0.3, 1));
        assertThat(m.f0Hz()).isCloseTo(522.6, within(0.3));
    }

    @Test
    void aBellWithAWeakPrimeIsStillHeardAtIt() throws Exception {
        Measurement m = measured(
                new double[72_000],
                new Tones.P(0.1, 150, 6, 0),
                new Tones.P(0.02, 300, 4, 1),
                new Tones.P(0.2, 360, 4, 2),
                new Tones.P(0.05, 450, 3, 3),
                new Tones.P(0.25, 600, 2.5, 1),
                new Tones.P(0.1, 900, 2, 0));
        assertThat(m.series().series().name()).isEqualTo("tuned bell");
        assertThat(m.strikeNotes().get(0).frequencyHz()).isCloseTo(300, within(1.0));
        assertThat(m.strikeNotes().get(0).why()).contains("tuned bell");
        double certainties =
                m.strikeNotes().stream().mapToDouble(StrikeNote::certainty).sum();
        assertThat(certainties).isLessThanOrEqualTo(1);
    }

    @Test
    void theFloorIsThatOfTheNoiseAtEveryFrequency() {
        Random r = new Random(1);
        double[] white = new double[48_000];
        double[] dark = new double[48_000];
        double state = 0;
        for (int i = 0; i < white.length; i++) {
            white[i] = 0.01 * r.nextGaussian();
            state += 0.1 * (0.1 * r.nextGaussian() - state); // a low-pass at about 800 Hz
            dark[i] = state;
        }
        NoiseFloor w = NoiseFloor.of(white, 0, white.length, FS);
        NoiseFloor d = NoiseFloor.of(dark, 0, dark.length, FS);
        for (double hz : new double[] {300, 1000, 5000, 15_000}) {
            assertThat(10 * Math.log10(w.at(hz) / 1e-4)).isCloseTo(0, within(0.8));
        }
        assertThat(10 * Math.log10(d.at(200) / d.at(8000))).isBetween(17.0, 22.0);
        assertThat(NoiseFloor.of(white, 0, 100, FS).at(1000)).isEqualTo(NoiseFloor.LEAST); // too short to tell
    }
}
