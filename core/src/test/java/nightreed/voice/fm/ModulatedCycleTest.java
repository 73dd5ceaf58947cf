package nightreed.voice.fm;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import nightreed.dsp.RealFft;
import nightreed.recipe.FmPair;
import nightreed.recipe.FmRecipe;
import nightreed.recipe.part.Common;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.VelocityMap;
import nightreed.voice.Renderer;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Lines of a modulated carrier against the table and against the voice. */
class ModulatedCycleTest {
    @ParameterizedTest
    @ValueSource(doubles = {0, 0.3, 2.4, 11, 40})
    void withoutFeedbackTheLinesAreBesselFunctions(double index) {
        double[] c = new ModulatedCycle(0).lines(index);
        double[] j = Sidebands.bessel(index, 6);
        for (int k = 0; k < 6; k++) {
            assertThat(c[2 * k]).isCloseTo(j[k], within(1e-6));
            assertThat(c[2 * k + 1]).isCloseTo(0, within(1e-6));
        }
    }

    @Test
    void slopesAreWhatASmallIndexMoreChanges() {
        ModulatedCycle cycle = new ModulatedCycle(0.4);
        double[] slopes = cycle.slopes(2.3);
        double[] low = cycle.lines(2.3 - 1e-5);
        double[] high = cycle.lines(2.3 + 1e-5);
        for (int i = 0; i < slopes.length; i++) {
            assertThat((high[i] - low[i]) / 2e-5).isCloseTo(slopes[i], within(1e-8));
        }
    }

    @Test
    void withFeedbackTheyAreWhatTheVoicePlays() {
        int fs = 48_000;
        int n = 4800; // 10 Hz apart
        double feedback = 0.6;
        double index = 1.7;
        Envelope on = new Envelope(0, 0, 0, 0, 0, 1, 1, 0.1);
        FmPair plain = FmPair.of(0, 12, 1, index, on, on);
        FmRecipe recipe = new FmRecipe(69, 0, -12, List.of(plain), null, 0, new VelocityMap(0.7, 0, 0), Common.NONE);
        double[] x = Renderer.asFitted(recipe.with("pair.1.feedback", feedback), 0, 1, 1, fs)
                .mixed();
        double[] frame = java.util.Arrays.copyOfRange(x, fs / 2, fs / 2 + n);
        double[] power = RealFft.power(new RealFft(n).forward(frame));
        double[] c = new ModulatedCycle(feedback).lines(index);
        double ofCarrier = Math.sqrt(power[12 * 44]);
        double carrier = Math.hypot(c[0], c[1]);
        for (int k = -3; k <= 4; k++) {
            int at = Math.floorMod(k, c.length / 2);
            double told = Math.hypot(c[2 * at], c[2 * at + 1]) / carrier;
            assertThat(Math.sqrt(power[(12 + k) * 44]) / ofCarrier)
                    .as("order %d", k)
                    .isCloseTo(told, within(0.02 * told + 0.02));
        }
    }
}
