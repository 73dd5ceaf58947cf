package nightreed.match.sound;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.stream.IntStream;
import nightreed.match.compare.ImitationRenderer;
import nightreed.recipe.FmPair;
import nightreed.recipe.FmRecipe;
import nightreed.recipe.SubtractiveRecipe;
import nightreed.recipe.part.Common;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.Filter;
import nightreed.recipe.part.Oscillator;
import nightreed.recipe.part.VelocityMap;
import nightreed.voice.Renderer;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** The bend in a level at which a key was let go. */
class BreakpointFitTest {
    @ParameterizedTest
    @CsvSource({"120, 0, -0.4", "120, -0.02, -0.4", "60, 0.02, -2"})
    void twoLinesMeetWhereTheLevelBends(int at, double before, double after) {
        double[] power = IntStream.range(0, 260)
                .mapToDouble(f -> before * Math.min(f, at) + after * Math.max(0, f - at) + 1.5 * Math.sin(0.4 * f))
                .map(db -> Math.pow(10, db / 10))
                .toArray();
        BreakpointFit knee = BreakpointFit.of(power);
        assertThat(knee.frame()).isCloseTo(at, within(4));
        assertThat(knee.after()).isCloseTo(after, within(0.15 * Math.abs(after)));
        assertThat(knee.rms()).isCloseTo(1.5 / Math.sqrt(2), within(0.3));
    }

    @Test
    void aFewFramesHaveNone() {
        assertThat(BreakpointFit.of(new double[] {1, 1, 0.5, 0.1})).isNull();
    }

    /** A release so slow that no frame is much softer than the one before. */
    @ParameterizedTest
    @ValueSource(doubles = {0.8, 1.4})
    void theKeyOfASlowReleaseIsFound(double release) throws Exception {
        SubtractiveRecipe r = new SubtractiveRecipe(
                57,
                0,
                -12,
                List.of(Oscillator.of(Oscillator.Wave.SAW, 1)),
                null,
                null,
                null,
                Filter.lowPass(1800, 0.71),
                Envelope.held(0.08, release),
                null,
                VelocityMap.USUAL,
                Common.NONE);
        AnalysedSound side = ImitationRenderer.rendered(Renderer.asFitted(r, 0.1, 1.7, 4, 48_000));
        assertThat(side.keySeconds()).isCloseTo(1.7, within(0.06));
    }

    /** Of two tones the louder is gone at once and the other fades: a drop, and then a slope. */
    @Test
    void aDropBeforeASlowFallIsWhereTheKeyWasLetGo() throws Exception {
        List<FmPair> tones = List.of(
                FmPair.of(0, 1, 1, 0, Envelope.held(0.08, 0.015), Envelope.held(0, 0.015)),
                FmPair.of(-12, 2, 1, 0, Envelope.held(0.08, 1.6), Envelope.held(0, 1.6)));
        FmRecipe r = new FmRecipe(57, 0, -12, tones, null, 0, VelocityMap.USUAL, Common.NONE);
        AnalysedSound side = ImitationRenderer.rendered(Renderer.asFitted(r, 0.1, 1.7, 3, 48_000));
        assertThat(side.keySeconds()).isCloseTo(1.7, within(0.03));
    }
}
