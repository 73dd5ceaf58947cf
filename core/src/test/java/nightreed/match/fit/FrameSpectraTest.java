package nightreed.match.fit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.Random;
import nightreed.music.Bark;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Power is where the sound has it, whatever the frame. */
class FrameSpectraTest {
    private static final int FS = 48_000;
    private final FrameSpectra looks = new FrameSpectra(FS);

    @ParameterizedTest
    @CsvSource({"250, 0, 2048", "1000, 0, 960", "1000, 4000, 2050", "3400, 300, 4096", "9000, 1, 300"})
    void aSineHasItsPowerInItsBand(double hz, int start, int length) {
        double[] x = new double[start + length];
        for (int i = 0; i < x.length; i++) {
            x[i] = 0.5 * Math.sin(2 * Math.PI * hz * i / FS);
        }
        double[] bands = looks.bands(x, start, start + length);
        assertThat(bands[Bark.band(hz)]).isCloseTo(0.125, within(0.004));
        assertThat(Arrays.stream(bands).sum()).isCloseTo(0.125, within(0.004));
    }

    @Test
    void bandsOfWhiteNoiseAreAsStrongAsTheyAreWide() {
        Random chance = new Random(3);
        double[] sum = new double[Bark.BANDS];
        for (int n = 0; n < 60; n++) {
            double[] x = chance.doubles(4096, -1, 1).toArray();
            double[] bands = looks.bands(x, 0, 4096);
            Arrays.setAll(sum, b -> sum[b] + bands[b] / 60);
        }
        for (int b = 3; b < Bark.BANDS; b++) {
            double share = (Bark.edgeHz(b + 1) - Bark.edgeHz(b)) / (0.5 * FS);
            assertThat(sum[b]).isCloseTo(share / 3, within(0.15 * share / 3));
        }
    }

    @Test
    void aFrameBeyondTheEndIsSilent() {
        assertThat(Arrays.stream(looks.bands(new double[100], 200, 2248)).sum()).isZero();
        double[] spectrum = looks.spectrum(new double[100], 200, 1024);
        assertThat(spectrum).hasSize(1026);
        assertThat(Arrays.stream(spectrum).map(Math::abs).sum()).isZero();
    }
}
