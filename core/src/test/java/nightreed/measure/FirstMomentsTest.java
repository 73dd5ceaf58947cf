package nightreed.measure;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import nightreed.music.Bark;
import nightreed.sound.Clip;
import org.junit.jupiter.api.Test;

class FirstMomentsTest {
    @Test
    void whatSpeaksLaterIsSeenToDoSo() throws Exception {
        double[] x = new double[48_000];
        for (int i = 9_600; i < x.length; i++) {
            double t = (i - 9_600) / 48_000.0;
            x[i] = 0.2 * Math.exp(-3 * t) * Math.sin(2 * Math.PI * 2_000 * t);
            x[i] += t < 0.04 ? 0 : 0.2 * Math.exp(-3 * t) * Math.sin(2 * Math.PI * 6_000 * t);
        }
        Clip clip = Clip.mono(x, 48_000);
        FirstMoments first = FirstMoments.of(clip, Measurer.measure(clip), 0.1);
        assertThat(begins(first, 2_000)).isCloseTo(0, within(0.004));
        assertThat(begins(first, 6_000)).isCloseTo(0.04, within(0.004));
        assertThat(begins(first, 11_000)).as("nothing sounds there").isNaN();
    }

    /** Time after the onset at which the half band of a frequency is within 6 dB of its loudest [s]. */
    private static double begins(FirstMoments first, double hz) {
        double[] level = first.levelDb()[(int) (2 * Bark.of(hz))];
        double most = -25;
        for (double db : level) {
            most = Math.max(most, db);
        }
        for (int f = 0; f < level.length; f++) {
            if (level[f] > most - 6) {
                return level[f] > -25 ? first.startSeconds() + (f + 0.5) * first.hopSeconds() : Double.NaN;
            }
        }
        return Double.NaN;
    }
}
