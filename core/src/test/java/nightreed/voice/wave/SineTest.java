package nightreed.voice.wave;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;

class SineTest {
    @Test
    void isExactFarUnderWhatIsHeardAnywhereInTheCycle() {
        double[] cycles = new double[20_001];
        for (int i = 0; i < cycles.length; i++) {
            cycles[i] = (i - 10_000) * 0.000237;
        }
        double[] sines = cycles.clone();
        Sine.all(sines, sines.length);
        for (int i = 0; i < cycles.length; i++) {
            assertThat(sines[i]).isCloseTo(Math.sin(2 * Math.PI * cycles[i]), within(2e-11));
            assertThat(Sine.of(cycles[i])).isEqualTo(sines[i]);
        }
    }
}
