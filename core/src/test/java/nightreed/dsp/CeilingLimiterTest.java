package nightreed.dsp;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import nightreed.Tones;
import nightreed.sound.Clip;
import nightreed.sound.TruePeak;
import org.jtransforms.fft.DoubleFFT_1D;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class CeilingLimiterTest {
    private static final int FS = 48_000;

    @ParameterizedTest
    @ValueSource(doubles = {97, 997, 5000, 11_999})
    void noTruePeakPassesTheCeiling(double hz) {
        float[] x = Tones.sine(FS, hz, 8, 0.5);
        for (int i = 0; i < 4800; i++) { // a tone that is cut off rings beyond itself
            x[x.length - 1 - i] *= Math.max(0, i - 1000) / 3800f;
        }
        new CeilingLimiter(-1, FS).process(x, 0, x.length);
        assertThat(TruePeak.db(Clip.mono(x, FS))).isLessThanOrEqualTo(-0.99);
        assertThat(TruePeak.db(Clip.mono(x, FS))).isGreaterThan(-2.0); // and it does not give away loudness
    }

    @ParameterizedTest
    @CsvSource({"false, -0.97", "true, -0.7"
    }) // of white noise half lies where no interpolation of finite length can read
    void burstsOfAnyKindAreHeldFromTheirFirstSample(boolean noise, double highestDb) {
        Random chance = new Random(1);
        int most = FS / 100;
        for (int group = 0; group < 20; group++) { // 2000 bursts
            float[] x = new float[100 * most + 4800];
            for (int b = 0; b < 100; b++) {
                double level = Math.pow(10, (-20 + 46 * chance.nextDouble()) / 20);
                double hz = 30 * Math.pow(600, chance.nextDouble());
                double phase = 6.3 * chance.nextDouble();
                int length = 1 + chance.nextInt(most);
                for (int i = 0; i < length; i++) {
                    double tone = Math.sin(phase + 2 * Math.PI * hz * i / FS);
                    x[b * most + i] = (float) (level * (noise ? 0.4 * chance.nextGaussian() : tone));
                }
            }
            new CeilingLimiter(-1, FS).process(x, 0, x.length);
            assertThat(exactPeakDb(x)).isBetween(-1.3, highestDb);
        }
    }

    /** Largest value of the waveform that the samples stand for, by adding zeros to its spectrum. */
    private static double exactPeakDb(float[] x) {
        int n = Integer.highestOneBit(x.length - 1) * 2;
        int finer = 4;
        double[] spectrum = new double[2 * n * finer];
        double[] wave = new double[2 * n];
        for (int i = 0; i < x.length; i++) {
            wave[2 * i] = x[i];
        }
        new DoubleFFT_1D(n).complexForward(wave);
        System.arraycopy(wave, 0, spectrum, 0, n);
        System.arraycopy(wave, n, spectrum, spectrum.length - n, n);
        new DoubleFFT_1D((long) n * finer).complexInverse(spectrum, true);
        double peak = 0;
        for (int i = 0; i < spectrum.length; i += 2) {
            peak = Math.max(peak, finer * Math.abs(spectrum[i]));
        }
        return 20 * Math.log10(peak);
    }

    @Test
    void theGainComesDownWithoutAClick() {
        float[] loud = new float[FS];
        float[] probe = new float[FS];
        for (int i = 0; i < FS; i++) {
            loud[i] = (float) (i < FS / 2 ? 0 : 4 * Math.sin(0.06 * i));
            probe[i] = 0.01f;
        }
        CeilingLimiter l = new CeilingLimiter(-1, FS);
        l.process(loud, probe, 0, FS);
        double steepest = 0;
        for (int i = l.latency() + 1; i < FS; i++) {
            steepest = Math.max(steepest, Math.abs(probe[i] - probe[i - 1]) / 0.01);
        }
        assertThat(steepest).isLessThan(0.03); // 13 dB within 1.5 ms, and nowhere steeper than that asks for
    }

    @Test
    void aLowToneIsHeldBackWithoutDistortion() {
        float[] x = Tones.sine(FS, 60, 2, 3);
        new CeilingLimiter(-1, FS).process(x, 0, x.length);
        double first = Tones.amplitudeAt(x, FS, 60, FS, FS);
        double rest = 0;
        for (int n = 2; n <= 20; n++) {
            double a = Tones.amplitudeAt(x, FS, 60 * n, FS, FS);
            rest += a * a;
        }
        assertThat(10 * Math.log10(rest / (first * first))).isLessThan(-60);
    }

    @Test
    void quietSoundPassesUnchangedButLater() {
        CeilingLimiter l = new CeilingLimiter(-1, FS);
        float[] x = Tones.sine(FS, 440, 0.5, 0.1);
        float[] y = x.clone();
        l.process(y, 0, y.length);
        for (int i = l.latency(); i < y.length; i++) {
            assertThat(y[i]).isEqualTo(x[i - l.latency()]);
        }
        assertThat(l.takeReduction()).isEqualTo(1);
    }

    @Test
    void valuesThatAreNotNumbersBecomeSilence() {
        float[] x = {Float.NaN, 0.1f, Float.POSITIVE_INFINITY, Float.NEGATIVE_INFINITY, 0.2f};
        float[] y = new float[400];
        System.arraycopy(x, 0, y, 0, x.length);
        new CeilingLimiter(-1, FS).process(y, 0, y.length);
        for (float v : y) {
            assertThat(v).isBetween(-1f, 1f);
        }
    }

    @Test
    void blocksOfAnySizeGiveTheSameSamples() {
        float[] x = Tones.sine(FS, 300, 3, 0.2);
        float[] whole = x.clone();
        new CeilingLimiter(-1, FS).process(whole, 0, whole.length);
        CeilingLimiter l = new CeilingLimiter(-1, FS);
        Random r = new Random(4);
        for (int at = 0; at < x.length; ) {
            int to = Math.min(x.length, at + 1 + r.nextInt(700));
            l.process(x, at, to);
            at = to;
        }
        assertThat(x).containsExactly(whole, within(0f));
    }

    @Test
    void bothSidesAreHeldBackAlike() {
        float[] loud = new float[FS];
        float[] soft = new float[FS];
        for (int i = 0; i < FS; i++) {
            loud[i] = (float) (3 * Math.sin(0.05 * i));
            soft[i] = (float) (0.3 * Math.sin(0.05 * i));
        }
        new CeilingLimiter(-1, FS).process(loud, soft, 0, FS);
        for (int i = 4800; i < FS; i += 97) {
            assertThat(soft[i]).isCloseTo(loud[i] / 10, within(1e-6f));
            assertThat(Math.abs(loud[i])).isLessThan(0.892f);
        }
    }
}
