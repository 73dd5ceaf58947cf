package nightreed.measure.partial;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Random;
import nightreed.Tones;
import nightreed.Tones.P;
import nightreed.dsp.Transforms;
import nightreed.music.Pitch;
import nightreed.work.Progress;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class DampedSinusoidsTest {
    private static final double FS = 48_000;

    private static List<DampedSinusoid> find(double[] y) {
        List<DampedSinusoid> found =
                new ArrayList<>(DampedSinusoids.find(y, FS, NoiseFloor.none(FS), new Transforms(), Progress.NONE));
        found.sort(Comparator.comparingDouble(DampedSinusoid::omega));
        return found;
    }

    private static double hz(DampedSinusoid d) {
        return d.omega() * FS / (2 * Math.PI);
    }

    private static double t60(DampedSinusoid d) {
        return Math.log(1000) / (d.alpha() * FS);
    }

    @ParameterizedTest
    @CsvSource({"110, 3.0", "440, 1.0", "2500, 0.2", "9000, 0.08", "18000, 0.4"})
    void oneCleanPartialIsFoundExactly(double hz, double t60) {
        double[] y = Tones.struck(FS, 0, 1.5, new P(0.5, hz, t60, 0.7));
        List<DampedSinusoid> found = find(Tones.noisy(y, 1e-7, 1));
        assertThat(found).hasSize(1);
        DampedSinusoid d = found.get(0);
        assertThat(hz(d)).isCloseTo(hz, within(1e-5 * hz));
        assertThat(t60(d)).isCloseTo(t60, within(1e-4 * t60));
        assertThat(d.amplitude()).isCloseTo(0.5, within(1e-4));
        assertThat(Math.atan2(d.cIm(), d.cRe())).isCloseTo(0.7, within(1e-3));
    }

    @Test
    void aPairThatBeatsIsTwoPartials() {
        double[] y = Tones.struck(FS, 0, 4, new P(0.3, 500, 4, 0), new P(0.15, 500.4, 3, 1));
        List<DampedSinusoid> found = find(Tones.noisy(y, 3e-4, 2));
        assertThat(found).hasSize(2);
        assertThat(hz(found.get(0))).isCloseTo(500, within(0.02));
        assertThat(hz(found.get(1))).isCloseTo(500.4, within(0.02));
        assertThat(t60(found.get(1))).isCloseTo(3, within(0.15));
    }

    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5, 6})
    void manyPartialsInNoiseAreAllFoundAndNothingElse(long seed) {
        Random r = new Random(seed);
        P[] truth = new P[12];
        double hz = 150;
        for (int i = 0; i < truth.length; i++) {
            truth[i] = new P(0.2 * Math.pow(10, -r.nextDouble()), hz, 0.3 + 2 * r.nextDouble(), 6 * r.nextDouble());
            hz *= 1.2 + 0.3 * r.nextDouble();
        }
        List<DampedSinusoid> found = find(Tones.noisy(Tones.struck(FS, 0, 2, truth), 1e-3, seed));
        assertThat(found).hasSize(truth.length);
        for (int i = 0; i < truth.length; i++) {
            assertThat(Math.abs(Pitch.cents(truth[i].hz(), hz(found.get(i))))).isLessThan(1);
            assertThat(t60(found.get(i)) / truth[i].t60()).isBetween(0.9, 1.1);
        }
    }

    @Test
    void noiseAloneHoldsNoPartial() {
        int found = 0;
        for (int seed = 0; seed < 5; seed++) {
            found += find(Tones.noisy(new double[48_000], 0.01, seed)).size();
        }
        assertThat(found).isZero();
    }

    /** The stated standard error has to be what the estimates really scatter by: 95 % of them within 1.96 of it. */
    @Test
    void statedErrorsAreHonest() {
        int within = 0;
        int all = 0;
        double worst = 0;
        for (int trial = 0; trial < 60; trial++) {
            Random r = new Random(1000 + trial);
            P a = new P(
                    0.1 + 0.2 * r.nextDouble(), 300 + 500 * r.nextDouble(), 0.4 + r.nextDouble(), 6 * r.nextDouble());
            P b = new P(0.05, 1500 + 3000 * r.nextDouble(), 0.2 + 0.4 * r.nextDouble(), 6 * r.nextDouble());
            List<DampedSinusoid> found = find(Tones.noisy(Tones.struck(FS, 0, 1, a, b), 0.004, trial));
            assertThat(found).hasSize(2);
            for (int i = 0; i < 2; i++) {
                P truth = i == 0 ? a : b;
                double z = (found.get(i).omega() - 2 * Math.PI * truth.hz() / FS)
                        / found.get(i).omegaSe();
                worst = Math.max(worst, Math.abs(z));
                within += Math.abs(z) < 1.96 ? 1 : 0;
                all++;
            }
        }
        assertThat((double) within / all).isBetween(0.88, 1.0); // 120 draws: two standard deviations are 4 %
        assertThat(worst).isLessThan(6);
    }

    @Test
    void twoStagesOfOneDecayAreTwoTermsAtOneFrequency() {
        double[] y = Tones.struck(FS, 0, 4, new P(0.3, 392, 0.5, 0.2), new P(0.05, 392, 4, 0.2));
        List<DampedSinusoid> found = find(Tones.noisy(y, 1e-4, 4));
        assertThat(found).hasSize(2);
        found.sort(Comparator.comparingDouble(DampedSinusoidsTest::t60));
        assertThat(t60(found.get(0))).isCloseTo(0.5, within(0.03));
        assertThat(t60(found.get(1))).isCloseTo(4, within(0.3));
    }

    @Test
    void residualOfAPerfectFitIsTheNoise() {
        double[] y = Tones.noisy(Tones.struck(FS, 0, 1, new P(0.4, 700, 0.8, 0), new P(0.2, 1900, 0.3, 1)), 1e-3, 5);
        double[] left = new SpectralRefinement(y, new Transforms()).residual(find(y));
        double power = 0;
        for (double v : left) {
            power += v * v / left.length;
        }
        assertThat(Math.sqrt(power)).isCloseTo(1e-3, within(2e-5));
    }

    @Test
    void groupsThatStandStillArePassedOverWithoutLoss() {
        double[] y = Tones.noisy(
                Tones.struck(FS, 0, 1, new P(0.4, 700, 0.8, 0), new P(0.2, 703, 0.5, 1), new P(0.3, 1900, 0.3, 2)),
                1e-3,
                7);
        SpectralRefinement refinement = new SpectralRefinement(y, new Transforms());
        List<DampedSinusoid> begun = find(y).stream()
                .map(t -> DampedSinusoid.candidate(t.omega() + 1e-5, 1.1 * t.alpha(), 1e6))
                .toList();
        List<DampedSinusoid> each = begun;
        for (int round = 0; round < 6; round++) {
            each = refinement.refine(each);
        }
        List<DampedSinusoid> together = refinement.refine(begun, 6);
        assertThat(together).hasSameSizeAs(each);
        for (int i = 0; i < each.size(); i++) {
            assertThat(together.get(i).omega())
                    .isCloseTo(each.get(i).omega(), within(0.01 * each.get(i).omegaSe()));
            assertThat(together.get(i).alpha())
                    .isCloseTo(each.get(i).alpha(), within(0.01 * each.get(i).omegaSe()));
        }
    }

    @Test
    void noiseFloorReadsTheVarianceOfWhiteNoise() {
        NoiseFloor floor = NoiseFloor.of(Tones.noisy(new double[24_000], 0.02, 6), 0, 24_000, FS);
        for (double hz : new double[] {300, 1000, 5000, 15_000}) {
            assertThat(floor.at(hz)).isCloseTo(4e-4, within(1.6e-4)); // few averages at low frequencies
        }
        assertThat(NoiseFloor.of(new double[100], 0, 100, FS).at(1000)).isEqualTo(NoiseFloor.LEAST);
    }
}
