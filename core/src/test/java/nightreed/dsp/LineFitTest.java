package nightreed.dsp;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import org.junit.jupiter.api.Test;

/** A straight line by least squares against closed forms and against chance. */
class LineFitTest {
    @Test
    void pointsOnALineGiveTheLine() {
        LineFit line = new LineFit();
        for (double x : new double[] {-2, 0.5, 3, 11}) {
            line.add(x, 4 - 1.5 * x, 1 + x * x);
        }
        assertThat(line.slope()).isCloseTo(-1.5, within(1e-12));
        assertThat(line.intercept()).isCloseTo(4, within(1e-12));
        assertThat(line.settled()).isTrue();
    }

    @Test
    void onePlaceSettlesNoSlopeButAMean() {
        LineFit line = new LineFit();
        line.add(2, 1, 1);
        line.add(2, 4, 2);
        assertThat(line.settled()).isFalse();
        assertThat(line.slope()).isZero();
        assertThat(line.intercept()).isCloseTo(3, within(1e-12));
        assertThat(line.mean()).isCloseTo(3, within(1e-12));
    }

    @Test
    void statedVariancesAreThoseOfManyTrials() {
        Random chance = new Random(3);
        double[] sigma = {0.5, 1, 2, 0.3, 1.5, 0.7};
        int trials = 4000;
        double slopes = 0;
        double intercepts = 0;
        double both = 0;
        LineFit line = new LineFit();
        for (int k = 0; k < trials; k++) {
            line = new LineFit();
            for (int i = 0; i < sigma.length; i++) {
                line.add(i, 1 + 0.2 * i + sigma[i] * chance.nextGaussian(), 1 / (sigma[i] * sigma[i]));
            }
            double ds = line.slope() - 0.2;
            double di = line.intercept() - 1;
            slopes += ds * ds / trials;
            intercepts += di * di / trials;
            both += ds * di / trials;
        }
        assertThat(slopes).isCloseTo(line.slopeVariance(), within(0.08 * line.slopeVariance()));
        assertThat(intercepts).isCloseTo(line.interceptVariance(), within(0.08 * line.interceptVariance()));
        assertThat(both).isCloseTo(line.covariance(), within(0.12 * Math.abs(line.covariance())));
    }
}
