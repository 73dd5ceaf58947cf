package nightreed.desktop.stage.measure;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.List;
import nightreed.match.sound.AnalysedSound;
import nightreed.measure.Measurement;
import nightreed.measure.Measurer;
import nightreed.sound.Clip;
import org.junit.jupiter.api.Test;

/** What the Measure stage says and draws of sounds that are made by hand. */
class MeasuredWordsTest {
    private static final int FS = 48_000;

    /** Sum of sines that begin after 0.2 s; {@code t60} 0 for one that stays, with a swing of 4 Hz. */
    private static Clip sound(double t60, double swingCents, double... hz) {
        double[] x = new double[2 * FS + FS / 5];
        for (int k = 0; k < hz.length; k++) {
            double phase = 0;
            for (int i = FS / 5; i < x.length; i++) {
                double t = (i - FS / 5) / (double) FS;
                double f = hz[k] * Math.pow(2, swingCents * Math.sin(2 * Math.PI * 4 * t) / 1200);
                phase += 2 * Math.PI * f / FS;
                double level = t60 > 0 ? Math.pow(10, -3 * t / t60) : Math.min(1, t / 0.03);
                x[i] += 0.2 / (k + 1) * level * Math.sin(phase + k * k);
            }
        }
        return Clip.mono(x, FS);
    }

    private static double[] harmonics(double f0, int count) {
        double[] hz = new double[count];
        for (int n = 1; n <= count; n++) {
            hz[n - 1] = n * f0;
        }
        return hz;
    }

    @Test
    void aSwingIsToldInWordsAsShapeAndAsNoteValue() throws Exception {
        Clip clip = sound(0, 20, harmonics(220, 10));
        Measurement m = Measurer.measure(clip);
        assertThat(MeasurementText.about(m))
                .anyMatch(s -> s.startsWith("Vibrato of 4.0 Hz"))
                .anyMatch(s -> s.startsWith("Made of 10 harmonics that are held"));
        List<String[]> values = MeasurementText.noteValues(m, 120);
        assertThat(values).hasSize(1);
        assertThat(values.get(0)[1]).startsWith("1/8 at 120 bpm");
        assertThat(MeasurementText.noteValues(m, 97))
                .as("no value is close at this tempo")
                .isEmpty();
        PathPlot.Path pitch = MeasuredPaths.pitch(m);
        assertThat(pitch.words()).contains("pitch 4.00 Hz").contains("sine");
        assertThat(Arrays.stream(pitch.values()).max().orElse(0)).isBetween(15.0, 25.0);
    }

    @Test
    void aSourceIsNamedWithItsCertainty() throws Exception {
        Measurement m = Measurer.measure(sound(0, 0, harmonics(150, 20)));
        assertThat(FormantPlot.words(m.traits())).anyMatch(s -> s.matches("saw: \\d+ %, \\d\\.\\d dB off"));
        assertThat(MeasurementText.about(m)).anyMatch(s -> s.contains("saw"));
    }

    @Test
    void aModulationIsToldAsOneAndNotAsABody() throws Exception {
        double[] x = new double[96_000];
        for (int i = 9_600; i < x.length; i++) {
            double t = (i - 9_600) / 48_000.0;
            x[i] = 0.3
                    * Math.exp(-3 * t)
                    * Math.sin(2 * Math.PI * 310 * t + 4 * Math.exp(-5 * t) * Math.sin(900 * Math.PI * t));
        }
        List<String> words = MeasurementText.about(Measurer.measure(Clip.mono(x, 48_000)));
        assertThat(words.get(0)).startsWith("Lines of a modulation, not of a body");
        assertThat(words)
                .anyMatch(s -> s.contains("a sine at 310.0 Hz, modulated at 1.452 times that with an index of 4.0"));
        assertThat(words).noneMatch(s -> s.contains("that die"));
    }

    @Test
    void severalNotesAtOnceAreToldToBeSo() throws Exception {
        double[] both = new double[16];
        System.arraycopy(harmonics(220, 8), 0, both, 0, 8);
        System.arraycopy(harmonics(329.63, 8), 0, both, 8, 8);
        double[] x = sound(1.2, 0, Arrays.copyOf(both, 8)).mixed();
        double[] y = sound(1.2, 0, Arrays.copyOfRange(both, 8, 16)).mixed();
        for (int i = 0; i < x.length; i++) {
            x[i] += y[i];
        }
        Measurement m = Measurer.measure(Clip.mono(x, FS));
        assertThat(MeasurementText.about(m)).contains("Several notes at once: no pitch of its own.");
        assertThat(m.remarks().get(0)).contains("A3 and E4");
    }

    @Test
    void loudnessIsAPathThatFallsAsTheNoteDies() throws Exception {
        Clip clip = sound(1.0, 0, 440, 1100);
        PathPlot.Path path = MeasuredPaths.loudness(new AnalysedSound(clip, Measurer.measure(clip)));
        int begin = 12; // of 20 ms, after the onset
        double perSecond = (path.values()[begin + 25] - path.values()[begin]) / 0.5;
        assertThat(perSecond).isBetween(-64.0, -56.0);
        assertThat(path.words()).contains("LUFS");
        assertThat(MeasuredPaths.loudness(new AnalysedSound(Clip.mono(new double[9_600], FS), Measurer.measure(clip))))
                .as("silence has no path")
                .isNull();
    }

    @Test
    void aStruckSoundIsToldByLayerAndLaw() throws Exception {
        double[] x = new double[96_000];
        double[] hz = {300, 640, 1210, 2300, 4100};
        for (int k = 0; k < hz.length; k++) {
            double t60 = 1.5 * Math.pow(hz[k] / 1000, -1);
            for (int i = 9_600; i < x.length; i++) {
                double t = (i - 9_600) / 48_000.0;
                x[i] += 0.1 * Math.pow(10, -3 * t / t60) * Math.cos(2 * Math.PI * hz[k] * t + k);
            }
        }
        List<String> words = MeasurementText.about(Measurer.measure(Clip.mono(x, FS)));
        assertThat(words).anyMatch(s -> s.startsWith("Made of 5 partials that die"));
        assertThat(words).anyMatch(s -> s.equals("An octave up, partials die 2.0 times as fast."));
    }
}
