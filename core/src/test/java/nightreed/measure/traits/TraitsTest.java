package nightreed.measure.traits;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import java.util.function.IntToDoubleFunction;
import java.util.stream.IntStream;
import nightreed.measure.traits.SourceWave.Wave;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Spectra whose source, body and pluck point are known, with levels that stray as those of real notes do. */
class TraitsTest {
    /** Lines of which the power is known, each off by a normal deviate, over a floor. */
    private static Spectrum lines(
            double f0, int count, IntToDoubleFunction db, double strayDb, double floorDb, long seed) {
        Random chance = new Random(seed);
        double[] level = IntStream.rangeClosed(1, count)
                .mapToDouble(n -> db.applyAsDouble(n) + strayDb * chance.nextGaussian())
                .toArray();
        double top = IntStream.range(0, count).mapToDouble(i -> level[i]).max().orElse(0);
        int[] heard = IntStream.range(0, count)
                .filter(i -> level[i] - top > floorDb + 6)
                .toArray();
        return Spectrum.of(
                f0,
                IntStream.of(heard).map(i -> i + 1).toArray(),
                IntStream.of(heard).mapToDouble(i -> level[i]).toArray(),
                IntStream.of(heard).mapToDouble(i -> level[i] - top - floorDb).toArray());
    }

    private static double db(double amplitude) {
        return 20 * Math.log10(Math.abs(amplitude) + 1e-9);
    }

    private static double peak(double hz, double centre, double width, double height) {
        double x = 2 * (hz - centre) / width;
        return 10 * Math.log10(1 + (Math.pow(10, height / 10) - 1) / (1 + x * x));
    }

    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4})
    void formantsOfABodyAreFoundOverItsSlope(long seed) {
        Spectrum s = lines(
                110,
                36,
                n -> -8 * Math.log(n) / Math.log(2) + peak(110 * n, 700, 180, 15) + peak(110 * n, 2200, 350, 12),
                0.7,
                -65,
                seed);
        Traits t = Traits.held(s);
        assertThat(t.formants()).hasSize(2);
        assertThat(t.formants().get(0).centreHz()).isCloseTo(700, within(30.0));
        assertThat(t.formants().get(1).centreHz()).isCloseTo(2200, within(80.0));
        assertThat(t.formants().get(0).levelDb()).isCloseTo(15, within(2.5));
        assertThat(t.formants().get(0).bandwidthHz()).isBetween(110.0, 270.0);
        assertThat(t.formants().get(0).certainty()).isGreaterThan(0.95);
        assertThat(t.slopeDbPerOctave()).isCloseTo(-8, within(0.7));
        assertThat(t.sources().get(0).wave()).isEqualTo(Wave.OTHER);
    }

    @Test
    void linesThatOnlyStrayMakeNoFormant() {
        int found = 0;
        for (long seed = 0; seed < 40; seed++) {
            Spectrum s = lines(220, 24, n -> -9 * Math.log(n) / Math.log(2), 2.5, -70, seed);
            found += Traits.held(s).formants().size();
        }
        assertThat(found).as("formants in 40 spectra without any").isLessThanOrEqualTo(4);
    }

    @ParameterizedTest
    @CsvSource({"SAW, 0, 24", "SQUARE, 0.5, 24", "PULSE, 0.28, 24", "PULSE, 0.11, 12", "TRIANGLE, 0, 0", "SAW, 0, 12"})
    void theWaveBehindAFilterIsNamedFirst(Wave wave, double width, int slope) {
        IntToDoubleFunction source = n -> {
            double x = 130.0 * n / 1100;
            double lowPass = slope == 0 ? 1 : 1 / (1 + Math.pow(x, slope / 6.0 * 2));
            double shape = switch (wave) {
                case SQUARE -> n % 2 == 1 ? 1.0 / n : 0;
                case PULSE -> Math.sin(Math.PI * n * width) / n;
                case TRIANGLE -> n % 2 == 1 ? 1.0 / (n * n) : 0;
                default -> 1.0 / n;
            };
            return db(shape) + 10 * Math.log10(lowPass);
        };
        for (long seed = 0; seed < 3; seed++) {
            SourceWave first = Traits.held(lines(130, 30, source, 0.4, -68, seed))
                    .sources()
                    .get(0);
            assertThat(first.wave()).isEqualTo(wave);
            if (wave == Wave.PULSE) {
                assertThat(first.width()).isCloseTo(width, within(0.01));
            }
            if (slope > 0) {
                assertThat(first.cutoffHz()).isBetween(750.0, 1600.0);
            }
        }
    }

    @Test
    void waveAndSlopeThatExplainTheSameAreRankedAsUncertain() {
        // few odd lines falling by 12 dB an octave: a triangle, or a square through a gentle low-pass
        Spectrum s = lines(400, 7, n -> n % 2 == 1 ? -40 * Math.log10(n) : -200, 0.8, -55, 7);
        Traits t = Traits.held(Spectrum.of(
                400, new int[] {1, 3, 5, 7}, new double[] {0, -19, -28, -34}, new double[] {55, 36, 27, 21}));
        assertThat(t.sources()).as("four lines are too few to say").isEmpty();
        assertThat(s.heard()).isEqualTo(4);
        Spectrum more = lines(200, 15, n -> n % 2 == 1 ? -40 * Math.log10(n) : -200, 0.5, -60, 8);
        assertThat(Traits.held(more).sources().stream()
                        .mapToDouble(SourceWave::certainty)
                        .sum())
                .isCloseTo(1, within(1e-9));
    }

    @ParameterizedTest
    @CsvSource({"0.11, 1", "0.19, 2", "0.27, 3", "0.37, 4", "0.46, 5"})
    void thePluckPointIsReadFromWhatItCannotExcite(double share, long seed) {
        Spectrum s =
                lines(98, 26, n -> db(Math.sin(Math.PI * n * share)) - 6 * Math.log(n) / Math.log(2), 1.0, -70, seed);
        double[] hz = {98, 196, 392, 784, 1568};
        double[] t60 = {6, 5, 3.4, 2, 1.1};
        Traits t = Traits.string(s, hz, t60, new double[] {0.01, 0.01, 0.01, 0.02, 0.03});
        assertThat(t.pluckPoint().share()).isCloseTo(share, within(0.004));
        assertThat(t.pluckPoint().certainty()).isGreaterThan(0.9);
        assertThat(Math.abs(t.pluckPoint().share() - share))
                .isLessThan(5 * t.pluckPoint().shareSe());
        assertThat(t.formants()).as("the comb is no body").isEmpty();
    }

    @Test
    void aSpectrumWithoutACombHasNoPluckPoint() {
        int found = 0;
        for (long seed = 0; seed < 20; seed++) {
            Traits t = Traits.string(
                    lines(98, 26, n -> -9 * Math.log(n) / Math.log(2), 1.5, -75, seed),
                    new double[0],
                    new double[0],
                    new double[0]);
            found += t.pluckPoint() != null && t.pluckPoint().certainty() > 0.9 ? 1 : 0;
        }
        assertThat(found).isLessThanOrEqualTo(1);
    }

    @Test
    void decaysFollowAPowerOfFrequencyAndAStrayDoesNotBendIt() {
        double[] hz = {200, 540, 1100, 1800, 2700, 3800, 900};
        double[] t60 = new double[7];
        for (int i = 0; i < 6; i++) {
            t60[i] = 1.4 * Math.pow(hz[i] / 1000, -0.8);
        }
        t60[6] = 0.2; // damped by something else
        DecayLaw law = Traits.struck(hz, t60, new double[] {0.01, 0.01, 0.01, 0.01, 0.01, 0.01, 0.01})
                .decayLaw();
        assertThat(law.exponent()).isCloseTo(0.8, within(0.1));
        assertThat(law.t60At(1000)).isCloseTo(1.4, within(0.25));
        assertThat(law.spread()).isGreaterThan(1.1);
        assertThat(Traits.struck(new double[] {200, 210, 220, 230}, new double[] {1, 1, 1, 1}, new double[4])
                        .decayLaw())
                .as("partials within a tone tell no law")
                .isNull();
    }
}
