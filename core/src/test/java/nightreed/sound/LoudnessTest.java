package nightreed.sound;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import nightreed.Tones;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class LoudnessTest {
    @ParameterizedTest
    @ValueSource(ints = {44_100, 48_000, 96_000, 192_000})
    void fullScaleSineInOneChannelReadsTheStandardsFigure(int fs) {
        Clip left = new Clip(new float[][] {Tones.sine(fs, 997, 1, 5), new float[5 * fs]}, fs);
        assertThat(Loudness.integrated(left)).isCloseTo(-3.01, within(0.02));
    }

    @Test
    void twoEqualChannelsAreThreeDecibelsLouder() {
        float[] x = Tones.sine(48_000, 997, 0.1, 5);
        double one = Loudness.integrated(Clip.mono(x, 48_000));
        double two = Loudness.integrated(new Clip(new float[][] {x, x}, 48_000));
        assertThat(one).isCloseTo(-23.01, within(0.02));
        assertThat(two - one).isCloseTo(3.01, within(0.01));
    }

    @Test
    void silenceBeforeAndAfterIsGatedOut() { // EBU Tech 3341, case 3 in kind: quiet parts do not pull the reading down
        float[] tone = Tones.sine(48_000, 1000, 0.1, 4);
        float[] padded = new float[tone.length * 3];
        System.arraycopy(tone, 0, padded, tone.length, tone.length);
        double bare = Loudness.integrated(Clip.mono(tone, 48_000));
        assertThat(Loudness.integrated(Clip.mono(padded, 48_000))).isCloseTo(bare, within(0.35));
    }

    @Test
    void silenceHasNoLoudness() {
        assertThat(Loudness.integrated(Clip.mono(new float[48_000], 48_000))).isEqualTo(Double.NEGATIVE_INFINITY);
    }

    @Test
    void weightingIsFlatInTheMiddleAndLiftsTheTreble() {
        assertThat(10 * Math.log10(Loudness.weighting(997, 48_000))).isCloseTo(0.691, within(0.02));
        assertThat(10 * Math.log10(Loudness.weighting(10_000, 48_000))).isCloseTo(4.0, within(0.1));
        assertThat(10 * Math.log10(Loudness.weighting(20, 48_000))).isLessThan(-10);
    }

    @Test
    void truePeakFindsTheWaveformBetweenTheSamples() {
        // a quarter of the rate, sampled at 45 degrees: the samples reach only -3 dB of the wave
        float[] x = new float[4800];
        for (int i = 0; i < x.length; i++) {
            x[i] = (float) Math.sin(Math.PI / 2 * i + Math.PI / 4);
        }
        Clip clip = Clip.mono(x, 48_000);
        assertThat(20 * Math.log10(clip.peak())).isCloseTo(-3.01, within(0.01));
        assertThat(TruePeak.db(clip)).isCloseTo(0, within(0.2));
    }

    @Test
    void truePeakIsReadWithinATwentiethOfADecibelUpToNearlyHalfTheRate() {
        for (double share : new double[] {0.05, 0.2, 0.37, 0.45, 0.48, 0.49}) {
            for (int phase = 0; phase < 8; phase++) {
                float[] x = new float[16_000];
                for (int i = 0; i < x.length; i++) {
                    double edge = Math.min(1, Math.min(i, x.length - 1 - i) / 3000.0);
                    double swell = 0.5 - 0.5 * Math.cos(Math.PI * edge);
                    x[i] = (float) (0.5 * swell * Math.sin(2 * Math.PI * share * i + 0.4 * phase));
                }
                assertThat(TruePeak.db(Clip.mono(x, 48_000))).isCloseTo(-6.0206, within(0.05));
            }
        }
    }

    @Test
    void clipsAreCutPaddedMixedAndScaled() {
        Clip c = new Clip(new float[][] {{1, 2, 3, 4}, {3, 2, 1, 0}}, 8000);
        assertThat(c.mixed()).containsExactly(2, 2, 2, 2);
        assertThat(c.span(-1, 2).channel(0)).containsExactly(0, 1, 2);
        assertThat(c.span(3, 6).channel(0)).containsExactly(4, 0, 0);
        assertThat(c.span(9, 11).channel(0)).containsExactly(0, 0);
        assertThat(c.scaled(0.5).channel(1)).containsExactly(1.5f, 1, 0.5f, 0);
        assertThat(c.peak()).isEqualTo(4);
        assertThat(c.at(8000)).isSameAs(c);
        assertThat(c.at(16_000).length()).isEqualTo(8);
    }

    @Test
    void aClipCannotBeChangedFromOutside() {
        float[] x = {0.1f, 0.2f};
        Clip c = Clip.mono(x, 8000);
        x[0] = 9;
        c.channel(0)[1] = 9;
        assertThat(c.channel(0)).containsExactly(0.1f, 0.2f);
    }

    @Test
    void impossibleClipsAreRefused() {
        assertThatThrownBy(() -> Clip.mono(new float[4], 3))
                .hasMessageContaining("sample rate")
                .hasMessageContaining("3");
        assertThatThrownBy(() -> new Clip(new float[0][], 8000)).hasMessageContaining("channel");
        assertThatThrownBy(() -> new Clip(new float[][] {new float[2], new float[3]}, 8000))
                .hasMessageContaining("differ");
    }
}
