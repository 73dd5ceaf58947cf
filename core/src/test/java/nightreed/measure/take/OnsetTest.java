package nightreed.measure.take;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import nightreed.Tones;
import nightreed.Tones.P;
import nightreed.dsp.Noise;
import nightreed.measure.Attack;
import nightreed.measure.Measurement;
import nightreed.measure.Measurer;
import nightreed.sound.Clip;
import nightreed.work.Progress;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class OnsetTest {
    private static final double FS = 48_000;

    @ParameterizedTest
    @CsvSource({"60, false", "40, false", "20, false", "60, true", "40, true", "20, true"})
    void theOnsetIsFoundWithinAMillisecond(double snr, boolean pink) {
        double worst = 0;
        for (int seed = 0; seed < 8; seed++) {
            double onset = 0.06 + 0.03 * seed;
            double[] x = Tones.struck(FS, onset, onset + 1, new P(0.4, 220 + 150 * seed, 1, -Math.PI / 2));
            int start = (int) Math.round(onset * FS);
            for (int i = start; i < start + 50; i++) {
                x[i] *= 0.5 - 0.5 * Math.cos(Math.PI * (i - start) / 50.0); // a rise of a millisecond
            }
            double sigma = 0.25 * Math.pow(10, -snr / 20);
            x = pink ? pinkened(x, sigma, seed) : Tones.noisy(x, sigma, seed);
            worst = Math.max(worst, Math.abs(Onset.find(x, FS).sample() / FS - onset));
        }
        assertThat(worst).isLessThan(0.0012); // the rise itself takes one
    }

    private static double[] pinkened(double[] x, double sigma, long seed) {
        Noise n = new Noise(seed);
        double slow = 0;
        double slower = 0;
        double[] y = x.clone();
        for (int i = 0; i < y.length; i++) {
            slow += 0.1 * (n.white() - slow);
            slower += 0.01 * (n.white() - slower);
            y[i] += sigma * (0.3 * n.white() + 2 * slow + 6 * slower) / 1.2;
        }
        return y;
    }

    @Test
    void aClipWithoutLeadInStartsAtOnce() {
        double[] x = Tones.struck(FS, 0, 1, new P(0.4, 440, 1, 0));
        Onset o = Onset.find(x, FS);
        assertThat(o.hasLeadIn()).isFalse();
        assertThat(o.sample()).isLessThan(5);
    }

    @Test
    void digitalSilenceBeforeTheNoteIsALeadInToo() {
        double[] x = Tones.struck(FS, 0.3, 1, new P(0.4, 440, 1, 0));
        assertThat(Onset.find(x, FS).sample() / FS).isCloseTo(0.3, within(0.0005));
    }

    @ParameterizedTest
    @CsvSource({"0.05, 0", "0.2, 0", "0.35, 0", "0.2, 0.25", "0.35, -0.1"})
    void aSwellingNoteAfterSilenceBeginsWhereItIsFirstHeard(double swell, double lopsided) throws Exception {
        double[] x = new double[(int) (2 * FS)];
        for (int i = (int) (0.2 * FS); i < 1.6 * FS; i++) {
            double t = i / FS - 0.2;
            double tone = lopsided;
            for (int n = 1; n <= 8; n++) {
                tone += Math.sin(2 * Math.PI * 171 * n * t) / n;
            }
            x[i] = 0.2 * Math.min(1, Math.min(t / swell, (1.4 - t) / 0.1)) * tone;
        }
        Measurement m = Measurer.rendered(Clip.mono(x, (int) FS), Progress.NONE);
        assertThat(m.onsetSeconds()).isCloseTo(0.2, within(0.001 + 0.025 * swell));
        assertThat(m.held()).isNotNull();
    }

    @Test
    void aConstantThatARecorderAddsIsTakenOff() throws Exception {
        double[] x = Tones.noisy(Tones.struck(FS, 0.2, 1.2, new P(0.4, 440, 1, -Math.PI / 2)), 1e-4, 3);
        for (int i = 0; i < x.length; i++) {
            x[i] += 0.05;
        }
        Measurement m = Measurer.measure(Clip.mono(x, (int) FS));
        assertThat(m.onsetSeconds()).isCloseTo(0.2, within(0.001));
        assertThat(m.remarks()).anyMatch(r -> r.contains("constant offset"));
    }

    @Test
    void attackIsTheRiseOfTheWaveform() {
        double[] x = new double[48_000];
        for (int i = 0; i < x.length; i++) {
            x[i] = Math.min(1, i / 4800.0) * Math.sin(2 * Math.PI * 2000 * i / FS);
        }
        // a straight rise of 100 ms goes from 10 to 90 % in 80
        assertThat(Attack.seconds(x, FS, 0)).isCloseTo(0.08, within(0.001));
        assertThat(Attack.seconds(new double[4800], FS, 0)).isNull();
    }
}
