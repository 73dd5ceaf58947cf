package nightreed.voice.string;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import nightreed.voice.string.InPlaceLeastSquares.Residuals;
import org.junit.jupiter.api.Test;

class InPlaceLeastSquaresTest {
    /** H. Rosenbrock's curved valley (1960), problem 1 of Moré, Garbow, Hillstrom (1981). */
    private static final Residuals VALLEY = (p, r, slopes) -> {
        r[0] = 10 * (p[1] - p[0] * p[0]);
        r[1] = 1 - p[0];
        if (slopes != null) {
            slopes[0][0] = -20 * p[0];
            slopes[0][1] = 10;
            slopes[1][0] = -1;
            slopes[1][1] = 0;
        }
    };

    private static double[] solved(double most0) {
        InPlaceLeastSquares fit = new InPlaceLeastSquares(2, 2);
        fit.unbound();
        fit.high[0] = most0;
        double[] p = {-1.2, 1};
        fit.solve(VALLEY, p, 2, 2, 200, 1e-20);
        return p;
    }

    @Test
    void theCurvedValleyIsFollowedToItsEnd() {
        assertThat(solved(10)).containsExactly(new double[] {1, 1}, within(1e-6));
    }

    /** With one value held at its bound the other goes to where the rest is least: p1 = p0². */
    @Test
    void aValueStaysAtItsBoundAndTheOthersGoOn() {
        assertThat(solved(0.5)).containsExactly(new double[] {0.5, 0.25}, within(1e-6));
    }
}
