package nightreed.measure.take;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import nightreed.sound.Clip;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class TakeTempoTest {
    private static final int FS = 44_100;

    private static void note(double[] x, double at, double hz, double gain) {
        for (int i = 0; i < 0.4 * FS && at * FS + i < x.length; i++) {
            double t = (double) i / FS;
            x[(int) Math.round(at * FS) + i] += gain
                    * Math.exp(-t / 0.06)
                    * (Math.sin(2 * Math.PI * hz * t) + 0.5 * Math.sin(2 * Math.PI * 2.7 * hz * t));
        }
    }

    private static Clip clip(double[] x) {
        Random random = new Random(3);
        for (int i = 0; i < x.length; i++) {
            x[i] += 1e-5 * random.nextGaussian();
        }
        return Clip.mono(x, FS);
    }

    @ParameterizedTest
    @ValueSource(doubles = {84, 96, 112.5, 128, 150})
    void aPhraseOfUnevenLengthsTellsItsTempo(double bpm) {
        double beat = 60 / bpm;
        double[] lengths = {1, 0.5, 0.5, 1, 1, 0.5, 0.5, 0.5, 0.5, 1, 1};
        double[] x = new double[(int) ((0.3 + 9 * beat) * FS)];
        double t = 0.25;
        Random random = new Random(7);
        for (int i = 0; i < lengths.length; i++) {
            note(x, t + 0.002 * random.nextGaussian(), 300 + 60 * (i % 4), 0.4 + 0.1 * (i % 3));
            t += lengths[i] * beat;
        }
        TakeTempo found = TakeTempo.of(clip(x));
        assertThat(found.bpm()).isCloseTo(bpm, within(0.005 * bpm));
        assertThat(found.odds()).isGreaterThan(0.5);
    }

    @Test
    void clicksTellTheirTempoExactly() {
        double[] x = new double[6 * FS];
        for (int i = 0; i < 10; i++) {
            note(x, 0.2 + i * 60 / 118.0, 1500, 0.5);
        }
        assertThat(TakeTempo.of(clip(x)).bpm()).isCloseTo(118, within(0.3));
    }

    @Test
    void anEchoAloneTellsANoteValueAndATempo() {
        double[] x = new double[3 * FS];
        Random random = new Random(5);
        double[] burst = random.doubles((long) (0.08 * FS), -1, 1).toArray();
        for (int k = 0; k < 4; k++) {
            for (int i = 0; i < burst.length; i++) {
                x[(int) ((0.2 + k * 0.3125) * FS) + i] +=
                        0.5 * Math.pow(0.5, k) * burst[i] * Math.exp(-i / (0.02 * FS));
            }
        }
        TakeTempo found = TakeTempo.of(clip(x));
        assertThat(found.echoSeconds()).isCloseTo(0.3125, within(0.001));
        assertThat(found.bpm()).isCloseTo(96, within(0.5));
        assertThat(found.noteValue()).isEqualTo("1/8");
        assertThat(found.odds()).as("other note values are possible").isBetween(0.3, 0.9);
    }

    @Test
    void oneNoteHasNoTempo() {
        double[] x = new double[2 * FS];
        note(x, 0.2, 440, 0.5);
        TakeTempo found = TakeTempo.of(clip(x));
        assertThat(found.bpm()).isNull();
        assertThat(found.noteValue()).isNull();
    }
}
