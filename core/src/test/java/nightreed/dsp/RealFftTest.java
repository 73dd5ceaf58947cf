package nightreed.dsp;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class RealFftTest {
    @ParameterizedTest
    @ValueSource(ints = {2, 6, 64, 90, 250, 1000})
    void agreesWithThePlainSum(int n) {
        double[] x = new Random(n).doubles(n, -1, 1).toArray();
        double[] fast = new RealFft(n).forward(x);
        for (int k = 0; k <= n / 2; k++) {
            double re = 0;
            double im = 0;
            for (int i = 0; i < n; i++) {
                re += x[i] * Math.cos(2 * Math.PI * k * i / n);
                im -= x[i] * Math.sin(2 * Math.PI * k * i / n);
            }
            assertThat(fast[2 * k]).isCloseTo(re, within(1e-10 * n));
            assertThat(fast[2 * k + 1]).isCloseTo(im, within(1e-10 * n));
        }
    }

    @Test
    void inverseGivesTheSignalBack() {
        double[] x = new Random(7).doubles(480, -1, 1).toArray();
        RealFft fft = new RealFft(480);
        assertThat(fft.inverse(fft.forward(x))).containsExactly(x, within(1e-13));
    }

    @Test
    void aShortSignalCountsAsPaddedWithZeros() {
        double[] x = {1, 2, 3};
        double[] padded = {1, 2, 3, 0, 0, 0, 0, 0};
        RealFft fft = new RealFft(8);
        assertThat(fft.forward(x)).containsExactly(fft.forward(padded), within(0.0));
    }

    @Test
    void powerKeepsTheEnergy() { // Parseval
        double[] x = new Random(3).doubles(256, -1, 1).toArray();
        double[] p = RealFft.power(new RealFft(256).forward(x));
        double sum = p[0] + p[128];
        for (int k = 1; k < 128; k++) {
            sum += 2 * p[k];
        }
        double energy = 0;
        for (double v : x) {
            energy += v * v;
        }
        assertThat(sum / 256).isCloseTo(energy, within(1e-10));
    }

    @ParameterizedTest
    @CsvSource({"2,2", "7,6", "97,96", "1000,1000", "1023,1000", "114625,112500"})
    void fastLengthIsTheLargestProductOfSmallPrimesBelow(int n, int expected) {
        assertThat(RealFft.fastLengthUpTo(n)).isEqualTo(expected);
    }

    @ParameterizedTest
    @CsvSource({"1,2", "2,2", "3,4", "1024,1024", "1025,2048"})
    void powerOfTwoIsTheNextOne(int n, int expected) {
        assertThat(RealFft.powerOfTwoFrom(n)).isEqualTo(expected);
    }

    @Test
    void anOddLengthIsRefused() {
        assertThatThrownBy(() -> new RealFft(7)).hasMessageContaining("even").hasMessageContaining("7");
    }
}
