package nightreed.dsp;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import nightreed.Tones;
import nightreed.sound.Clip;
import nightreed.sound.TruePeak;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class CeilingLimiterTest {
    private static final int FS = 48_000;

    @ParameterizedTest
    @ValueSource(doubles = {97, 997, 5000, 11_999})
    void noTruePeakPassesTheCeiling(double hz) {
        float[] x = Tones.sine(FS, hz, 8, 0.5);
        new CeilingLimiter(-1, FS).process(x, 0, x.length);
        assertThat(TruePeak.db(Clip.mono(x, FS))).isLessThanOrEqualTo(-0.99);
        assertThat(TruePeak.db(Clip.mono(x, FS))).isGreaterThan(-2.0); // and it does not give away loudness
    }

    @Test
    void suddenBurstsOfNoiseAreHeldFromTheirFirstSample() {
        Random r = new Random(1);
        float[] x = new float[FS];
        for (int i = 0; i < x.length; i++) {
            x[i] = (i / 4800 % 2 == 0 ? 0.01f : 20f) * (float) r.nextGaussian();
        }
        new CeilingLimiter(-1, FS).process(x, 0, x.length);
        // noise up to half the rate is the worst case for the interpolation between samples
        assertThat(TruePeak.db(Clip.mono(x, FS))).isLessThanOrEqualTo(-0.5);
        assertThat(Clip.mono(x, FS).peak()).isLessThanOrEqualTo(Math.pow(10, -1 / 20.0));
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
