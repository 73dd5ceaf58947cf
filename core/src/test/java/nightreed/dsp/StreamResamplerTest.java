package nightreed.dsp;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import com.sun.management.ThreadMXBean;
import java.lang.management.ManagementFactory;
import nightreed.Tones;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class StreamResamplerTest {
    /** A running sine. */
    private static final class Sine implements StreamResampler.Source {
        private final double turn;
        private long n;

        Sine(double hz, double fs) {
            turn = 2 * Math.PI * hz / fs;
        }

        @Override
        public void render(float[] left, float[] right, int count) {
            for (int i = 0; i < count; i++) {
                left[i] = (float) (0.5 * Math.sin(turn * n++));
                right[i] = -left[i];
            }
        }
    }

    private static float[] stream(double from, double to, double hz, int samples, int block) {
        StreamResampler r = new StreamResampler(from, to);
        Sine source = new Sine(hz, from);
        float[] out = new float[samples];
        float[] part = new float[block];
        float[] other = new float[block];
        for (int at = 0; at < samples; at += block) {
            int n = Math.min(block, samples - at);
            r.render(source, part, other, n);
            assertThat(other[0]).isEqualTo(-part[0]);
            System.arraycopy(part, 0, out, at, n);
        }
        return out;
    }

    @ParameterizedTest
    @CsvSource({"48000, 44100, 1000", "48000, 96000, 12345", "48000, 44100, 15000", "48000, 192000, 40"})
    void aSineKeepsPitchAndLevel(double from, double to, double hz) {
        float[] y = stream(from, to, hz, 40_000, 256);
        assertThat(Tones.amplitudeAt(y, to, hz, 4000, 32_000)).isCloseTo(0.5, within(0.005));
        assertThat(Tones.rmsDb(y, 4000, 36_000))
                .isCloseTo(20 * Math.log10(0.5) - 3.01, within(0.1)); // and nothing else
    }

    @Test
    void whatWouldFoldIsTakenAway() {
        float[] y = stream(48_000, 22_050, 15_000, 30_000, 256); // its mirror would sound at 7050 Hz
        assertThat(Tones.amplitudeAt(y, 22_050, 7050, 3000, 20_000)).isLessThan(5e-4);
    }

    @ParameterizedTest
    @CsvSource({"1", "37", "256", "4000"})
    void blocksOfAnySizeGiveTheSameSamples(int block) {
        assertThat(stream(48_000, 44_100, 777, 8000, block)).containsExactly(stream(48_000, 44_100, 777, 8000, 8000));
    }

    @Test
    void renderingAllocatesNothing() {
        StreamResampler r = new StreamResampler(48_000, 44_100);
        Sine source = new Sine(440, 48_000);
        float[] out = new float[256];
        float[] other = new float[256];
        for (int i = 0; i < 300; i++) {
            r.render(source, out, other, 256);
        }
        ThreadMXBean threads = (ThreadMXBean) ManagementFactory.getThreadMXBean();
        long id = Thread.currentThread().getId();
        long before = threads.getThreadAllocatedBytes(id);
        for (int i = 0; i < 500; i++) {
            r.render(source, out, other, 256);
        }
        assertThat(threads.getThreadAllocatedBytes(id) - before).isLessThan(2000);
    }

    @Test
    void impossibleRatesAreRefused() {
        assertThatThrownBy(() -> new StreamResampler(0, 48_000)).hasMessageContaining("above 0 Hz");
        assertThatThrownBy(() -> new StreamResampler(48_000, Double.NaN)).hasMessageContaining("above 0 Hz");
    }
}
