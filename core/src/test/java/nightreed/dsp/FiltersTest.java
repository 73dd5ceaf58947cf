package nightreed.dsp;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import nightreed.Tones;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class FiltersTest {
    private static final double FS = 48_000;

    @ParameterizedTest
    @CsvSource({"200", "1000", "5000"})
    void butterworthIsThreeDecibelsDownAtItsCutoff(double hz) {
        double low = Biquad.lowPass(hz, Biquad.BUTTERWORTH_Q, FS).powerGain(hz, FS);
        double high = Biquad.highPass(hz, Biquad.BUTTERWORTH_Q, FS).powerGain(hz, FS);
        assertThat(10 * Math.log10(low)).isCloseTo(-3.0103, within(1e-3));
        assertThat(10 * Math.log10(high)).isCloseTo(-3.0103, within(1e-3));
    }

    @Test
    void slopeIsTwelveDecibelsPerOctave() {
        Biquad low = Biquad.lowPass(100, Biquad.BUTTERWORTH_Q, FS);
        double fall = 10 * Math.log10(low.powerGain(1600, FS) / low.powerGain(800, FS));
        assertThat(fall).isCloseTo(-12.04, within(0.1)); // a little more from the zero at half the rate
    }

    @Test
    void filteringASineGivesTheComputedGain() {
        Biquad b = Biquad.lowPass(700, Biquad.BUTTERWORTH_Q, FS);
        float[] x = Tones.sine(FS, 1300, 0.5, 0.5);
        double[] d = new double[x.length];
        for (int i = 0; i < d.length; i++) {
            d[i] = x[i];
        }
        double[] y = BiquadFilter.apply(b, d);
        double power =
                Arrays.stream(y, 12_000, 24_000).map(v -> v * v).average().orElse(0);
        assertThat(power / 0.125).isCloseTo(b.powerGain(1300, FS), within(1e-3));
    }

    @Test
    void noiseHasUnitVarianceNoMeanAndNoMemory() {
        Noise n = new Noise(5);
        int count = 200_000;
        double sum = 0;
        double square = 0;
        double product = 0;
        double last = 0;
        for (int i = 0; i < count; i++) {
            double v = n.white();
            sum += v;
            square += v * v;
            product += v * last;
            last = v;
        }
        // four standard deviations of the mean of so many values
        assertThat(sum / count).isCloseTo(0, within(0.009));
        assertThat(square / count).isCloseTo(1, within(0.009));
        assertThat(product / count).isCloseTo(0, within(0.009));
    }

    @Test
    void theSameSeedGivesTheSameNoise() {
        Noise a = new Noise(11);
        Noise b = new Noise(11);
        Noise c = new Noise(12);
        double[] x = new double[50];
        double[] y = new double[50];
        double[] z = new double[50];
        for (int i = 0; i < 50; i++) {
            x[i] = a.white();
            y[i] = b.white();
            z[i] = c.white();
        }
        assertThat(x).containsExactly(y).isNotEqualTo(z);
    }

    @ParameterizedTest
    @CsvSource({"44100,48000", "48000,44100", "22050,48000", "96000,48000"})
    void resamplingKeepsASineAndItsPhase(int from, int to) {
        float[] x = Tones.sine(from, 3000, 0.7, 0.4);
        float[] y = Resampler.resample(x, from, to);
        assertThat(y.length).isEqualTo((int) Math.round(x.length * (double) to / from));
        double worst = 0;
        for (int i = y.length / 4; i < 3 * y.length / 4; i++) {
            worst = Math.max(worst, Math.abs(y[i] - 0.7 * Math.sin(2 * Math.PI * 3000 * i / to)));
        }
        assertThat(worst).isLessThan(2e-4); // -71 dB: pass-band ripple of the window and its table
    }

    @Test
    void resamplingDownTakesAwayWhatWouldFold() {
        float[] y = Resampler.resample(Tones.sine(96_000, 30_000, 1, 0.2), 96_000, 48_000);
        assertThat(Tones.rmsDb(y, 2000, y.length - 2000)).isLessThan(-80);
    }
}
