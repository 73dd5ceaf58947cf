package nightreed.measure;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.Random;
import nightreed.dsp.Biquad;
import nightreed.dsp.BiquadFilter;
import nightreed.measure.partial.NoiseFloor;
import nightreed.music.Bark;
import nightreed.sound.Clip;
import org.junit.jupiter.api.Test;

/** Noise of known decay and colour beneath partials of known decay. */
class NoiseBandsTest {
    @Test
    void theDecayOfTheNoiseIsReadBesideThatOfThePartials() throws Exception {
        Clip clip = new MadeUpNote(1, 0.2, 2.5)
                .mode(500, 0.2, 1.8)
                .mode(1300, 0.1, 1.2)
                .burst(0.05, 0.5)
                .noise(70)
                .clip();
        NoiseBands bands = NoiseBands.of(clip, Measurer.measure(clip));
        // the two partials lie in bands below these
        double[] middle = Arrays.copyOfRange(bands.t60Seconds(), 11, 22);
        for (double t60 : middle) {
            assertThat(t60).isCloseTo(0.5, within(0.12));
        }
        assertThat(bands.t60()).isCloseTo(0.5, within(0.03));
        assertThat(bands.slopeDbPerOctave()).as("white").isCloseTo(0, within(1.2));
    }

    @Test
    void noiseThatStaysDiesInNoBand() throws Exception {
        Random chance = new Random(4);
        double[] x = new MadeUpNote(2, 0.2, 2.2)
                .held(330, 10, 0.03, 1.9, t -> 0, t -> 0)
                .samples();
        for (int i = 9_600; i < x.length; i++) {
            x[i] += 0.01 * chance.nextGaussian();
        }
        Clip clip = Clip.mono(x, MadeUpNote.FS);
        NoiseBands bands = NoiseBands.of(clip, Measurer.measure(clip));
        assertThat(bands.t60()).isNaN();
        int band = Bark.band(3000);
        double density = 10 * Math.log10((Bark.edgeHz(band + 1) - Bark.edgeHz(band)) / 24_000);
        double strongest = 20 * Math.log10(0.15 / Math.sqrt(2));
        double expected = 20 * Math.log10(0.01) + density - strongest;
        double[] steady = Arrays.copyOfRange(bands.levelDb()[band], 20, 140);
        assertThat(Arrays.stream(steady).average().orElse(0)).isCloseTo(expected, within(2.0));
    }

    @Test
    void aLowPassShowsAsColour() {
        Random chance = new Random(6);
        double[] x = new double[96_000];
        BiquadFilter low = new BiquadFilter(new Biquad(0.05, 0, 0, -0.95, 0)); // one pole at about 400 Hz
        for (int i = 4_800; i < x.length; i++) {
            x[i] = low.next(chance.nextGaussian()) * Math.pow(10, -3 * (i - 4_800) / (0.4 * 48_000));
        }
        NoiseBands bands = NoiseBands.of(x, 48_000, 4_800, NoiseFloor.none(48_000), 1);
        assertThat(bands.slopeDbPerOctave()).isBetween(-6.0, -2.5);
        assertThat(bands.startDb()[4]).isGreaterThan(bands.startDb()[20] + 5);
    }
}
