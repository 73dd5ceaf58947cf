package nightreed.voice.string;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;

class NonNegativeLeastSquaresTest {
    private static final double[] EVEN = {1, 1, 1, 1};

    private static double[] solved(double[][] shape, double[] needed, double[] weight, int points) {
        double[] amount = new double[shape.length];
        new NonNegativeLeastSquares(shape.length).solve(shape, needed, weight, points, amount);
        return amount;
    }

    @Test
    void amountsThatAreNotBelowZeroAreThoseOfPlainLeastSquares() {
        double[][] shape = {{1, 1, 1, 1}, {0, 1, 2, 3}};
        assertThat(solved(shape, new double[] {2, 2.5, 3, 3.5}, EVEN, 4))
                .containsExactly(new double[] {2, 0.5}, within(1e-6));
    }

    /** A line that falls has a slope below 0: without it the mean is nearest. */
    @Test
    void whatWouldBeBelowZeroIsLeftOutAndTheRestSolvedAnew() {
        double[][] shape = {{1, 1, 1, 1}, {0, 1, 2, 3}};
        assertThat(solved(shape, new double[] {4, 3, 2, 1}, EVEN, 4))
                .containsExactly(new double[] {2.5, 0}, within(1e-6));
    }

    @Test
    void aPointCountsAsMuchAsItsWeightAndThoseBeyondTheLastNotAtAll() {
        double[][] shape = {{1, 1, 1}};
        assertThat(solved(shape, new double[] {1, 5, 900}, new double[] {3, 1, 1}, 2)[0])
                .isCloseTo(2, within(1e-6));
    }
}
