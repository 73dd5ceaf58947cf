package nightreed.match.compare;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import nightreed.Tones;
import nightreed.match.hearing.Aspect;
import nightreed.match.sound.AnalysedSound;
import nightreed.measure.ManualCorrections;
import nightreed.measure.partial.Partial;
import nightreed.recipe.FmPair;
import nightreed.recipe.FmRecipe;
import nightreed.recipe.SubtractiveRecipe;
import nightreed.recipe.part.Common;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.Filter;
import nightreed.recipe.part.Lfo;
import nightreed.recipe.part.Oscillator;
import nightreed.recipe.part.Route;
import nightreed.recipe.part.VelocityMap;
import nightreed.sound.Clip;
import nightreed.voice.Renderer;
import nightreed.work.Progress;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Comparison of sounds that were measured each by itself: low ones, held ones, and what is found on one side only. */
class ComparisonTest {
    private static final int FS = 48_000;

    private static AnalysedSound struck(double... hz) throws Exception {
        Tones.P[] partials = new Tones.P[hz.length];
        for (int i = 0; i < hz.length; i++) {
            partials[i] = new Tones.P(0.2 / (1 + i), hz[i], 1.2 / (1 + 0.3 * i), 0.4 * i);
        }
        return ImitationRenderer.side(
                Clip.mono(Tones.noisy(Tones.struck(FS, 0.2, 2, partials), 1e-5, 5), FS), Progress.NONE);
    }

    private static double[] times(double factor, double... hz) {
        return java.util.Arrays.stream(hz).map(f -> factor * f).toArray();
    }

    private static AnalysedSound held(double attack, double vibratoCents, double noise) throws Exception {
        Common moving = vibratoCents == 0
                ? Common.NONE
                : Common.NONE
                        .withFirst(Lfo.late(5.5, 0.3, 0.2))
                        .withRoutes(List.of(new Route(Route.Source.LFO_1, Route.Target.PITCH, vibratoCents)));
        SubtractiveRecipe r = new SubtractiveRecipe(
                57,
                0,
                -12,
                List.of(Oscillator.of(Oscillator.Wave.SAW, 1)),
                null,
                null,
                null,
                Filter.lowPass(1800, 0.71),
                Envelope.held(attack, 0.1),
                null,
                VelocityMap.USUAL,
                moving);
        double[] x = Renderer.asFitted(r, 0.3, 2.2, 3, FS).mixed();
        return ImitationRenderer.rendered(Clip.mono(Tones.noisy(x, noise, 6), FS));
    }

    @ParameterizedTest
    @ValueSource(doubles = {82, 110, 220, 523})
    void aLowNoteThatIsDetunedIsHeardAsSuch(double f0) throws Exception {
        double[] harmonics = times(f0, 1, 2, 3, 4);
        AnalysedSound right = struck(harmonics);
        for (double cents : new double[] {15, 60, 120}) {
            AnalysedSound off = struck(times(Math.pow(2, cents / 1200), harmonics));
            Comparison c = PerceptualComparator.compare(right, off);
            assertThat(c.jnd(Aspect.PITCH)).as(f0 + " Hz, " + cents).isCloseTo(Math.min(12, cents / 5), within(0.6));
            assertThat(PerceptualComparator.compare(off, right).jnd(Aspect.PITCH))
                    .isCloseTo(c.jnd(Aspect.PITCH), within(0.6));
        }
    }

    @ParameterizedTest
    @CsvSource({"1.025, 1.5", "1.05, 2"})
    void aPartialThatLiesElsewhereIsHeardThoughThereIsPowerNearIt(double factor, double least) throws Exception {
        AnalysedSound right = struck(220, 606, 1190);
        assertThat(PerceptualComparator.compare(right, struck(220, 606 * factor, 1190))
                        .jnd(Aspect.PARTIALS))
                .isGreaterThan(least);
    }

    @Test
    void aPartialThatOnlyOneMeasurementListsIsLookedForInTheSound() throws Exception {
        AnalysedSound all = struck(220, 606, 1190);
        ManualCorrections without = ManualCorrections.NONE;
        for (Partial p : all.measurement().partials()) {
            without = Math.abs(p.frequencyHz() - 606) < 20 ? without.leaveOut(p.frequencyHz()) : without;
        }
        Comparison c = PerceptualComparator.compare(all, all.byHand(without));
        assertThat(c.partials()).anyMatch(d -> d.imitation() == null);
        assertThat(c.jnd(Aspect.PARTIALS)).isLessThan(0.3);
        assertThat(PerceptualComparator.compare(all, struck(220, 1190)).jnd(Aspect.PARTIALS))
                .isGreaterThan(3);
    }

    @Test
    void theOnsetOfAHeldNoteInNoiseDoesNotMatter() throws Exception {
        Comparison c = PerceptualComparator.compare(held(0.12, 0, 1e-3), held(0.12, 0, 1e-6));
        assertThat(c.jnd(Aspect.NOISE)).as(c.aspects().toString()).isLessThan(1);
        assertThat(c.jnd(Aspect.ATTACK)).isLessThan(1);
        assertThat(c.jnd(Aspect.LOUDNESS)).isLessThan(1);
    }

    @Test
    void aSlowerRiseIsHeardTheMoreTheSlowerItIs() throws Exception {
        AnalysedSound usual = held(0.05, 0, 1e-5);
        double near = PerceptualComparator.compare(usual, held(0.09, 0, 1e-5)).jnd(Aspect.ATTACK);
        double far = PerceptualComparator.compare(usual, held(0.2, 0, 1e-5)).jnd(Aspect.ATTACK);
        assertThat(near).isGreaterThan(0.5);
        assertThat(far).isGreaterThan(near + 1);
    }

    @Test
    void vibratoIsMissedWhereItIsMissing() throws Exception {
        AnalysedSound moved = held(0.05, 25, 1e-5);
        assertThat(PerceptualComparator.compare(moved, held(0.05, 25, 1e-5)).jnd(Aspect.MOVEMENT))
                .isLessThan(0.3);
        double weaker =
                PerceptualComparator.compare(moved, held(0.05, 14, 1e-5)).jnd(Aspect.MOVEMENT);
        double gone = PerceptualComparator.compare(moved, held(0.05, 0, 1e-5)).jnd(Aspect.MOVEMENT);
        assertThat(weaker).isGreaterThan(1);
        assertThat(gone).isGreaterThan(weaker);
    }

    private static Clip modulated(double index, double sustain) {
        return modulated(index, sustain, Common.NONE);
    }

    private static Clip modulated(double index, double sustain, Common common) {
        FmRecipe r = new FmRecipe(
                53,
                0,
                -14,
                List.of(FmPair.of(
                        0,
                        1.003,
                        0.9925, // folded sidebands lie beside the others and beat with them
                        index,
                        new Envelope(0, 0.002, 0, 0, 1.5, 1, sustain, 0.2),
                        Envelope.struck(0, 0.8, 0.2))),
                null,
                0.3,
                new VelocityMap(0.7, 24, 0),
                common);
        return Renderer.asFitted(r, 0.1, 1.6, 2.4, FS);
    }

    /** A sum of terms close together can be written in many ways; what is heard is the sum. */
    @Test
    void aHairsChangeOfATangleOfPartialsIsHeardAsOne() throws Exception {
        AnalysedSound tangle = ImitationRenderer.rendered(modulated(1.5, 0));
        assertThat(PerceptualComparator.compare(tangle, ImitationRenderer.rendered(modulated(1.52, 0)))
                        .totalJnd())
                .isLessThan(0.3);
        assertThat(PerceptualComparator.compare(tangle, ImitationRenderer.rendered(modulated(2.2, 0)))
                        .totalJnd())
                .isGreaterThan(1);
    }

    /** A bowed start that goes on to swell: a little more of that is a little more, not another kind of attack. */
    @Test
    void aLittleMoreSwellIsNotAnotherAttack() throws Exception {
        AnalysedSound less = ImitationRenderer.rendered(swelling(1.5));
        AnalysedSound more = ImitationRenderer.rendered(swelling(1.6));
        assertThat(PerceptualComparator.compare(less, more).aspects().get(Aspect.ATTACK))
                .isLessThan(1);
        assertThat(PerceptualComparator.compare(more, less).aspects().get(Aspect.ATTACK))
                .isLessThan(1);
    }

    /** @param by amplitude after 0.3 s over that after 60 ms, from where it rises more slowly */
    private static Clip swelling(double by) {
        double[] x = new double[2 * FS];
        for (int i = FS / 10; i < x.length; i++) {
            double t = i / (double) FS - 0.1;
            double level = t < 0.06 ? t / 0.06 : 1 + (by - 1) * Math.min(1, (t - 0.06) / 0.24);
            for (int n = 1; n <= 8; n++) {
                x[i] += 0.1 / n * level * Math.sin(2 * Math.PI * 220 * n * t);
            }
        }
        return Clip.mono(x, FS);
    }

    /** A tremolo of steps is louder and softer all the time, until the key is let go. */
    @ParameterizedTest
    @CsvSource({"24, -5", "6, 11"})
    void aKeyIsHeardToBeLetGoOfAnUnsteadyNote(double hz, double db) throws Exception {
        Lfo steps = new Lfo(Lfo.Shape.RANDOM_STEPS, hz, Lfo.Per.SECOND, 0, 0, 0, 0.5, 0, false, false, List.of());
        Common unsteady =
                Common.NONE.withFirst(steps).withRoutes(List.of(new Route(Route.Source.LFO_1, Route.Target.LEVEL, db)));
        assertThat(ImitationRenderer.rendered(modulated(1.5, 0.9, unsteady)).keySeconds())
                .isCloseTo(1.6, within(0.03));
    }

    @Test
    void aKeyIsHeardToBeLetGo() throws Exception {
        assertThat(ImitationRenderer.rendered(modulated(1.5, 0.7)).keySeconds()).isCloseTo(1.6, within(0.03));
        assertThat(ImitationRenderer.rendered(modulated(1.5, 0)).keySeconds()).isInfinite();
        assertThat(struck(330, 771, 1200).keySeconds()).isInfinite();
    }
}
