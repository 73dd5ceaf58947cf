package nightreed.match.start.fm;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.sound.AnalysedSound;
import nightreed.match.start.NonuniformStft;
import nightreed.match.start.StartContext;
import nightreed.match.start.fm.FoldedSidebandSearch.Fold;
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
class FoldedSidebandSearchTest {
    private static final Envelope HELD = Envelope.held(0.05, 0.1);

    private static List<Fold> found(int key, FmPair pair) throws Exception {
        AnalysedSound side = sound(key, pair);
        StartContext g = new StartContext(side);
        return FoldedSidebandSearch.ofHarmonics(NonuniformStft.of(side, Common.NONE, false), g.f0(), g.lines(), 4);
    }

    private static AnalysedSound sound(int key, FmPair... pairs) throws Exception {
        FmRecipe r = new FmRecipe(key, 0, -14, List.of(pairs), null, 0, new VelocityMap(0.7, 24, 0), Common.NONE);
        return ImitationRenderer.rendered(Renderer.asFitted(r, 0.1, 1.6, 2, 48_000));
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
}
