package nightreed.desktop.stage.measure;

import static org.assertj.core.api.Assertions.assertThat;

import nightreed.measure.Measurement;
import nightreed.measure.Measurer;
import nightreed.sound.Clip;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Sentences must say what the numbers say. */
class MeasurementTextTest {
    private static final int FS = 48_000;

    /** Partials {frequency, amplitude, T60} after a fifth of a second of near silence. */
    private static Measurement measure(double[]... partials) throws Exception {
        double[] x = new double[3 * FS];
        java.util.Random r = new java.util.Random(2);
        for (int i = 0; i < x.length; i++) {
            x[i] = 1e-5 * r.nextGaussian();
        }
        for (double[] p : partials) {
            for (int i = FS / 5; i < x.length; i++) {
                double t = (double) i / FS - 0.2;
                x[i] += p[1] * Math.exp(-Math.log(1000) * t / p[2]) * Math.cos(2 * Math.PI * p[0] * t);
            }
        }
        return Measurer.measure(Clip.mono(x, FS));
    }

    @Test
    void aPlainBarIsNamedWithItsOffset() throws Exception {
        double f = 440 * Math.pow(2, 12.0 / 1200);
        var words = MeasurementText.about(measure(
                new double[] {f, 0.3, 1.2}, new double[] {2.756 * f, 0.2, 0.6}, new double[] {5.404 * f, 0.1, 0.3}));
        assertThat(words.get(0))
                .startsWith("A plain bar, free at both ends: A4, 12 cents sharp.")
                .contains("at 2.756")
                .contains("under 3 times the first");
        assertThat(words.get(1)).startsWith("Made of 3 partials that die");
        assertThat(words.get(2)).contains("rings for 1.20 s").contains("One envelope for all cannot be right");
    }

    @Test
    void aBarHollowedOutIsNamedByItsDoubleOctave() throws Exception {
        var words = MeasurementText.about(
                measure(new double[] {220, 0.3, 1.0}, new double[] {880, 0.2, 0.8}, new double[] {2156, 0.05, 0.7}));
        assertThat(words.get(0))
                .startsWith("A bar hollowed to be in tune with itself: A3")
                .contains("lies on 4 times the first");
        assertThat(words.get(2)).contains("One envelope could nearly do");
    }

    @Test
    void pairsThatBeatAreCounted() throws Exception {
        var words = MeasurementText.about(measure(
                new double[] {300, 0.2, 4}, new double[] {301.2, 0.15, 4}, new double[] {600, 0.2, 3}, new double[] {
                    601.5, 0.2, 3
                }));
        assertThat(words).anyMatch(s -> s.startsWith("4 partials lie so close to a neighbour"));
    }

    @ParameterizedTest
    @CsvSource({"0.5, flat", "-0.5, sharp"})
    void theSignOfTheOffsetIsSaidInWords(double flatBySemitones, String word) throws Exception {
        double f = 440 * Math.pow(2, -flatBySemitones * 0.6 / 12);
        assertThat(MeasurementText.about(measure(new double[] {f, 0.3, 1})).get(0))
                .contains("30 cents " + word);
    }
}
