package nightreed.dsp;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.stream.DoubleStream;
import org.junit.jupiter.api.Test;

/** Against rules of H. Fastl and E. Zwicker for tones whose level swings ("Psychoacoustics", 2007): power of the depth, best rates. */
class RoughnessTest {
    private static double swinging(double hz, double rate, double depth) {
        return Roughness.asper(new double[] {hz - rate, hz, hz + rate}, new double[] {depth / 2, 1, depth / 2});
    }

    @Test
    void atOneKilohertzSeventySwingsASecondAreOneAsperAndFewerOrMoreAreLess() {
        assertThat(swinging(1000, 70, 1)).isCloseTo(1, within(1e-9));
        assertThat(swinging(1000, 10, 1)).isLessThan(0.1);
        assertThat(swinging(1000, 200, 1)).isLessThan(0.1);
        double best = DoubleStream.iterate(20, r -> r <= 160, r -> r + 5)
                .boxed()
                .max((a, b) -> Double.compare(swinging(1000, a, 1), swinging(1000, b, 1)))
                .orElseThrow();
        assertThat(best).isBetween(60.0, 80.0);
    }

    @Test
    void roughnessGrowsByDepthToThePowerOfOneAndAHalfOrSo() {
        for (double m : new double[] {0.7, 0.5, 0.25}) {
            double rule = Math.pow(m, 1.6);
            assertThat(swinging(1000, 70, m)).as("depth " + m).isCloseTo(rule, within(0.15 * rule + 0.01));
        }
    }

    @Test
    void lowTonesAreRoughestAtSlowerSwings() {
        assertThat(swinging(125, 30, 1)).isGreaterThan(2 * swinging(125, 70, 1)).isBetween(0.2, 0.5);
        assertThat(swinging(250, 40, 1)).isGreaterThan(2 * swinging(250, 70, 1));
        assertThat(Roughness.asper(new double[] {440}, new double[] {0})).isZero();
        assertThat(Roughness.asper(new double[] {440, 880}, new double[] {1, 1}))
                .isLessThan(0.01);
    }
}
