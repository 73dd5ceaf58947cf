package nightreed.match;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.function.DoubleUnaryOperator;
import nightreed.recipe.part.Envelope;
import org.junit.jupiter.api.Test;

/** Levels of a held note, and where its key was let go. */
class LetGoTest {
    private static final int FRAMES = 320;
    private static final double[] STILL = new double[FRAMES];

    private static double[] power(DoubleUnaryOperator amplitude, double[] swingDb) {
        double[] out = new double[FRAMES];
        Arrays.setAll(out, f -> {
            double a = amplitude.applyAsDouble((f + 0.5) * Paths.HOP) * Math.pow(10, swingDb[f] / 20);
            return a * a;
        });
        return out;
    }

    private static DoubleUnaryOperator letGo(double key, double release, double curve) {
        Envelope e = new Envelope(0, 0, 0, 0, 0, curve, 1, release);
        return t -> t < key ? 1 : e.released(1, t - key);
    }

    /** Steps of up to 9 dB either way, 12 a second. */
    private static double[] steps() {
        double[] out = new double[FRAMES];
        Arrays.setAll(out, f -> 9 * Math.sin(37.7 * (f / 8) * (f / 8)));
        return out;
    }

    @Test
    void aFallHiddenInKnownStepsIsPlacedBetweenThem() {
        double[] steps = steps();
        double[] power = power(letGo(2.47, 0.7, 0.7), steps);
        assertThat(LetGo.refined(power, steps, 2.57, 0.1)).isCloseTo(2.47, within(0.015));
    }

    @Test
    void aFallTooSlowToBeSeenAtOnceIsFoundFromALevelThatWasSteady() {
        double[] power = power(letGo(2.6, 1.6, 0.2), STILL);
        assertThat(LetGo.refined(power, STILL, Double.POSITIVE_INFINITY, 0.1)).isCloseTo(2.6, within(0.03));
    }

    @Test
    void aLevelThatOnlySwaysOrSlowlyFadesIsNotLetGo() {
        double[] sways = power(t -> 1 + 0.15 * Math.sin(9 * t), STILL);
        double[] fades = power(t -> 1 - 0.2 * t, STILL);
        assertThat(LetGo.refined(sways, STILL, Double.POSITIVE_INFINITY, 0.1)).isInfinite();
        assertThat(LetGo.refined(fades, STILL, Double.POSITIVE_INFINITY, 0.1)).isInfinite();
    }
}
