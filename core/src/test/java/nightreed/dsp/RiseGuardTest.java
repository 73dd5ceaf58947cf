package nightreed.dsp;

import static org.assertj.core.api.Assertions.assertThat;

import nightreed.Tones;
import org.junit.jupiter.api.Test;

class RiseGuardTest {
    /** Seconds until the guard speaks up, or infinity. */
    private static double trips(float[] x) {
        RiseGuard guard = new RiseGuard(48_000);
        float[] block = new float[256];
        for (int at = 0; at + 256 <= x.length; at += 256) {
            System.arraycopy(x, at, block, 0, 256);
            if (guard.runsAway(block, 256)) {
                return (at + 256) / 48_000.0;
            }
        }
        return Double.POSITIVE_INFINITY;
    }

    @Test
    void aLoopWhoseGainPassesOneIsCaughtSoonAfterFullScale() {
        float[] x = new float[48_000 * 4];
        for (int i = 0; i < x.length; i++) { // 40 dB a second, from -20 dB: full scale after half a second
            x[i] = (float) (0.1 * Math.pow(10, 2.0 * i / 48_000) * Math.sin(0.05 * i));
        }
        assertThat(trips(x)).isBetween(0.6, 1.2);
    }

    @Test
    void loudSoundsThatFallAndSoundsThatHoldFullScaleAreLeftAlone() {
        float[] struck = Tones.sine(48_000, 300, 12, 2); // 22 dB over, but dying
        for (int i = 0; i < struck.length; i++) {
            struck[i] *= (float) Math.exp(-i / 4800.0);
        }
        assertThat(trips(struck)).isInfinite();
        assertThat(trips(Tones.sine(48_000, 300, 1, 5))).isInfinite();
    }

    @Test
    void whatIsNotANumberIsCaughtAtOnce() {
        float[] x = new float[512];
        x[100] = Float.NaN;
        assertThat(trips(x)).isLessThan(0.006);
        x[100] = Float.POSITIVE_INFINITY;
        assertThat(trips(x)).isLessThan(0.006);
    }
}
