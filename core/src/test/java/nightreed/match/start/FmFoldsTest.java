package nightreed.match.start;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import nightreed.match.Matcher;
import nightreed.match.Side;
import nightreed.match.start.Combs.Comb;
import nightreed.match.start.FmFolds.Fold;
import nightreed.match.start.FmFrames.Course;
import nightreed.recipe.FmPair;
import nightreed.recipe.FmRecipe;
import nightreed.recipe.part.Common;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.VelocityMap;
import nightreed.voice.Renderer;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Wide modulations of held notes, of which a third of all lines lie below zero. */
class FmFoldsTest {
    private static final Envelope HELD = Envelope.held(0.05, 0.1);

    private static List<Fold> found(int key, FmPair pair) throws Exception {
        Side side = sound(key, pair);
        Ground g = new Ground(side);
        return FmFolds.ofHarmonics(Frames.of(side, Common.NONE, false), g.f0(), g.lines(), 4);
    }

    private static Side sound(int key, FmPair... pairs) throws Exception {
        FmRecipe r = new FmRecipe(key, 0, -14, List.of(pairs), null, 0, new VelocityMap(0.7, 24, 0), Common.NONE);
        return Matcher.rendered(Renderer.asFitted(r, 0.1, 1.6, 2, 48_000));
    }

    @ParameterizedTest
    @CsvSource({"5, 1, 13, 0, 0.4", "3, 1, 7.2, 0, 2", "8, 1, 11, 0, 1.1", "3, 2, 5.5, 0, 1.7", "5, 1, 12, 0.2, -0.6"})
    void carrierModulatorAndIndexAreToldWhateverTheTurnOfWhatIsFolded(
            int carrier, int modulator, double index, double feedback, double phase) throws Exception {
        FmPair pair = FmPair.of(0, carrier, modulator, index, HELD, HELD)
                .withPhases(phase, -2 * phase)
                .withFeedback(feedback);
        Fold first = found(57, pair).get(0);
        assertThat(first.course().carrierHz()).isCloseTo(220 * carrier, within(2.0));
        assertThat(first.course().modulatorHz()).isCloseTo(220 * modulator, within(1.0));
        double[] told = first.course().index();
        assertThat(told[told.length / 2]).isCloseTo(index, within(0.6));
        assertThat(first.feedback()).isCloseTo(feedback, within(0.11));
        assertThat(first.course().likeness()).isGreaterThan(0.97);
    }

    @Test
    void harmonicsTooCloseToBeToldApartGiveNone() throws Exception {
        assertThat(found(24, FmPair.of(0, 5, 1, 9, HELD, HELD))).isEmpty();
    }

    @ParameterizedTest
    @CsvSource({"15.09, 0.9934, 24, 11", "8.2, 1.02, 9, -5", "31.4, 0.985, 36, 6", "6.5, 1.3, 12, 4"})
    void whichLineIsTheCarrierIsToldFromAnyOther(double carrier, double modulator, double index, int linesOff)
            throws Exception {
        Side side = sound(57, FmPair.of(0, carrier, modulator, index, HELD, HELD));
        Frames frames = Frames.of(side, Common.NONE, false);
        double[][] nothing = new double[frames.count()][frames.bins()];
        double other = 220 * (carrier + linesOff * modulator);
        Course first =
                FmFolds.seats(frames, nothing, other, 220 * modulator, 2).get(0).course();
        assertThat(first.carrierHz()).isCloseTo(220 * carrier, within(0.1));
        assertThat(first.index()[first.index().length / 2]).isCloseTo(index, within(0.6));
    }

    /** A pair 20 dB under another, its lines between those of it. */
    @ParameterizedTest
    @CsvSource({"15.09, 0.9934, 24, 0.189", "41.14, 0.9857, 36, 0.2594", "12.4, 1.05, 18, 0.2"})
    void linesOfAWidePairUnderAnotherAreFound(double carrier, double modulator, double index, double rest)
            throws Exception {
        FmPair strong = FmPair.of(0, 5, 1, 9, HELD, HELD);
        Side side = sound(57, strong, FmPair.of(-20, carrier, modulator, index, HELD, HELD));
        Comb comb = new Combs(SteadySpectrum.of(side, Common.NONE), List.of(strong), 220)
                .likeliest(2)
                .get(0);
        assertThat(comb.stepHz()).isCloseTo(220 * modulator, within(0.1));
        assertThat(comb.restHz()).isCloseTo(220 * rest, within(1.0));
    }
}
