package nightreed.measure;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.concurrent.CancellationException;
import nightreed.Tones;
import nightreed.Tones.P;
import nightreed.measure.partial.Partial;
import nightreed.music.Pitch;
import nightreed.sound.Clip;
import nightreed.sound.UnusableSound;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class MeasurerTest {
    private static final int FS = 48_000;
    private static final double[] BAR = {1, 2.756, 5.404, 8.933};

    /** A struck bar with a burst of noise, in a quiet room. */
    private static Clip bar(double f0, double onset, double snrDb, long seed) {
        P[] partials = new P[BAR.length];
        for (int k = 0; k < BAR.length; k++) {
            partials[k] = new P(0.3 * Math.pow(10, -0.3 * k), f0 * BAR[k], 1.2 / (1 + 0.5 * k), -Math.PI / 2);
        }
        double[] x = Tones.struck(FS, onset, onset + 2, partials);
        Random r = new Random(seed + 77);
        int start = (int) Math.round(onset * FS);
        for (int i = start; i < start + 300; i++) {
            x[i] += 0.02 * r.nextGaussian() * Math.exp(-(i - start) / 80.0);
        }
        return Clip.mono(Tones.noisy(x, 0.15 * Math.pow(10, -snrDb / 20), seed), FS);
    }

    @ParameterizedTest
    @CsvSource({"150, 0.11, 60", "440, 0.2, 40", "1000, 0.08, 40", "2093, 0.3, 60", "440, 0.15, 20"})
    void aStruckBarIsMeasuredInFull(double f0, double onset, double snr) throws Exception {
        Measurement m = Measurer.measure(bar(f0, onset, snr, 3));
        assertThat(m.onsetSeconds()).isCloseTo(onset, within(0.001));
        assertThat(Pitch.cents(f0, m.f0Hz())).isCloseTo(0, within(0.3));
        assertThat(m.nearestNote()).isEqualTo(Pitch.name(Pitch.nearestKey(f0)));
        assertThat(m.centsFromConcert()).isCloseTo(Pitch.centsFromNearest(f0), within(0.3));
        assertThat(m.series().series().name()).isEqualTo("uniform free bar");
        List<Partial> sure = m.reliablePartials();
        for (int k = 0; k < BAR.length && f0 * BAR[k] < 22_000; k++) {
            double hz = f0 * BAR[k];
            Partial p = sure.stream()
                    .filter(q -> Math.abs(Pitch.cents(hz, q.frequencyHz())) < 10)
                    .findFirst()
                    .orElseThrow(() -> new AssertionError("no partial at " + hz));
            assertThat(p.t60Seconds()).isCloseTo(1.2 / (1 + 0.5 * k), within(0.12));
            assertThat(p.levelDb()).isCloseTo(-6.0 * k, within(1.0));
            assertThat(p.ratio()).isCloseTo(BAR[k], within(0.002 * BAR[k]));
        }
        assertThat(m.remarks()).isEmpty();
    }

    /** The box under a plucked tine rumbles for a moment in the band where its second partial lies. */
    @ParameterizedTest
    @CsvSource({"196, 1", "196, 2", "233, 3", "147, 4"})
    void aLongPartialUnderTheThumpOfTheBodyIsFound(double f0, long seed) throws Exception {
        double[] x = Tones.struck(
                FS, 0.2, 1.4, new P(0.2, f0, 1.3, 0), new P(0.02, 2 * f0, 1.1, 1), new P(0.2, 17.8 * f0, 0.15, 2));
        addThump(x, 2.1 * f0, seed);
        Measurement m = Measurer.measure(Clip.mono(Tones.noisy(x, 1e-5, seed), FS));
        Partial first = near(m, f0);
        Partial second = near(m, 2 * f0);
        assertThat(second.t60Seconds()).isCloseTo(1.1, within(0.03));
        assertThat(20 * Math.log10(second.amplitude() / first.amplitude())).isCloseTo(-20, within(0.3));
    }

    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4})
    void oneOfTwoThatBeatUnderTheThumpIsNotCountedTwice(long seed) throws Exception {
        double[] x = Tones.struck(
                FS, 0.2, 1.4, new P(0.2, 196, 1.3, 0), new P(0.02, 392, 1.1, 1), new P(0.012, 406, 0.6, 2));
        addThump(x, 410, seed);
        List<Partial> two = Measurer.measure(Clip.mono(Tones.noisy(x, 1e-5, seed), FS)).reliablePartials().stream()
                .filter(p -> Math.abs(p.frequencyHz() - 399) < 15)
                .toList();
        assertThat(two.get(0).amplitude()).isCloseTo(0.02, within(0.0015));
        assertThat(two.stream().mapToDouble(Partial::amplitude).sum()).isLessThan(0.034);
    }

    private static void addThump(double[] x, double hz, long seed) {
        Random chance = new Random(seed);
        double turn = 2 * Math.PI * hz / FS;
        double[] rumble = new double[2];
        double keep = 0.985; // a band some 230 Hz wide
        for (int i = (int) (0.2 * FS); i < 0.3 * FS; i++) {
            double next = 2 * keep * Math.cos(turn) * rumble[0] - keep * keep * rumble[1] + chance.nextGaussian();
            rumble[1] = rumble[0];
            rumble[0] = next;
            x[i] += 0.0035 * next * Math.exp(-(i - 0.2 * FS) / (0.01 * FS));
        }
    }

    private static Partial near(Measurement m, double hz) {
        return m.reliablePartials().stream()
                .filter(p -> Math.abs(Pitch.cents(hz, p.frequencyHz())) < 5)
                .findFirst()
                .orElseThrow();
    }

    /** Lines of what dies within a tenth of a second are wide, and lie close together at the low end. */
    @ParameterizedTest
    @ValueSource(doubles = {130, 147, 165, 208, 262})
    void aBlockThatIsDryHasAllItsModes(double hz) throws Exception {
        double[] ratios = {1, 2.41, 2.86, 4.35, 5.2, 7.6, 9.1};
        P[] modes = new P[ratios.length];
        for (int i = 0; i < modes.length; i++) {
            double f = hz * ratios[i] * (i == 0 ? 1 : 1 + 0.01 * ((int) hz % (i + 2)));
            modes[i] = new P(i % 2 == 0 ? 0.1 : 0.17, f, 6.9 / (45 + 0.035 * f), 0.7 * i);
        }
        double[] x = Tones.noisy(Tones.struck(FS, 0.2, 0.9, modes), 1e-4, (long) hz);
        List<Partial> found = Measurer.measure(Clip.mono(x, FS)).reliablePartials();
        assertThat(found).hasSize(modes.length);
        for (int i = 0; i < modes.length; i++) {
            assertThat(Math.abs(Pitch.cents(modes[i].hz(), found.get(i).frequencyHz())))
                    .isLessThan(3);
            assertThat(found.get(i).t60Seconds() / modes[i].t60()).isBetween(0.95, 1.05);
        }
    }

    @Test
    void theBurstIsToldApartFromThePartials() throws Exception {
        StrikeNoise n = Measurer.measure(bar(440, 0.2, 60, 1)).noise();
        // 0.02 rms at the start falling by 1/e in 80 samples, over 5 ms: -31 dB re the partial's own rms
        assertThat(n.levelDb()).isBetween(-28.0, -20.0);
        assertThat(n.t60Seconds()).isBetween(0.005, 0.03);
        assertThat(n.lowHz()).isLessThan(n.highHz());
    }

    @Test
    void aNoteWithoutABurstHasNone() throws Exception {
        double[] x = Tones.struck(FS, 0.2, 2, new P(0.4, 330, 1, -Math.PI / 2));
        assertThat(Measurer.measure(Clip.mono(Tones.noisy(x, 2e-4, 2), FS)).noise())
                .isNull();
    }

    @Test
    void gainAndEarlierSilenceChangeNothingButThemselves() throws Exception {
        Clip clip = bar(440, 0.2, 60, 5);
        Measurement a = Measurer.measure(clip);
        Measurement b = Measurer.measure(clip.scaled(0.25));
        assertThat(b.f0Hz()).isCloseTo(a.f0Hz(), within(1e-3));
        assertThat(b.partials()).hasSameSizeAs(a.partials());
        for (int i = 0; i < a.partials().size(); i++) {
            assertThat(b.partials().get(i).levelDb())
                    .isCloseTo(a.partials().get(i).levelDb(), within(0.01));
        }
        assertThat(b.loudnessLufs() - a.loudnessLufs()).isCloseTo(-12.04, within(0.01));
    }

    @Test
    void stereoIsMixed() throws Exception {
        Clip mono = bar(440, 0.2, 60, 5);
        Clip stereo = new Clip(new float[][] {mono.channel(0), mono.channel(0)}, FS);
        assertThat(Measurer.measure(stereo).partials())
                .isEqualTo(Measurer.measure(mono).partials());
    }

    @Test
    void aClipThatStartsWithTheNoteSaysSo() throws Exception {
        Clip clip = bar(440, 0.2, 80, 5);
        Measurement m = Measurer.measure(clip.span((int) (0.2 * FS), clip.length()));
        assertThat(m.onsetSeconds()).isCloseTo(0, within(0.001));
        assertThat(m.nearestNote()).isEqualTo("A4");
        assertThat(m.remarks()).anyMatch(r -> r.contains("starts with the note"));
    }

    @Test
    void aCutOffDecayAndClippingAreRemarkedOn() throws Exception {
        double[] x = Tones.struck(FS, 0.1, 0.7, new P(1.4, 300, 3, 0), new P(0.4, 827, 2, 1));
        for (int i = 0; i < x.length; i++) {
            x[i] = Math.max(-1, Math.min(1, x[i]));
        }
        List<String> remarks = Measurer.measure(Clip.mono(x, FS)).remarks();
        assertThat(remarks).anyMatch(r -> r.contains("cut off")).anyMatch(r -> r.contains("clipped"));
    }

    @Test
    void silenceIsRefused() {
        assertThatThrownBy(() -> Measurer.measure(Clip.mono(new float[48_000], FS)))
                .isInstanceOf(UnusableSound.class)
                .hasMessageContaining("silent");
    }

    @Test
    void aConstantIsSilenceToo() {
        float[] dc = new float[48_000];
        java.util.Arrays.fill(dc, 0.5f);
        assertThatThrownBy(() -> Measurer.measure(Clip.mono(dc, FS))).hasMessageContaining("silent");
    }

    @ParameterizedTest
    @ValueSource(ints = {0, 1, 2, 2000})
    void aSoundTooShortForPartialsIsRefused(int samples) {
        float[] x = new float[samples];
        java.util.Arrays.fill(x, 0.5f);
        assertThatThrownBy(() -> Measurer.measure(Clip.mono(x, FS)))
                .isInstanceOf(UnusableSound.class)
                .hasMessageContaining("at least 50 ms");
    }

    @Test
    void valuesThatAreNotNumbersAreRefused() {
        float[] x = Tones.sine(FS, 440, 0.3, 1);
        x[9000] = Float.NaN;
        assertThatThrownBy(() -> Measurer.measure(Clip.mono(x, FS)))
                .isInstanceOf(UnusableSound.class)
                .hasMessageContaining("sample 9000");
    }

    @Test
    void noiseHasNoPitch() throws Exception {
        Measurement m = Measurer.measure(Clip.mono(Tones.noisy(new double[FS], 0.1, 3), FS));
        assertThat(m.f0Hz()).isNull();
        assertThat(m.nearestNote()).isNull();
        assertThat(m.series()).isNull();
        assertThat(m.reliablePartials()).isEmpty();
    }

    @Test
    void workCanBeStopped() {
        List<Double> seen = new ArrayList<>();
        assertThatThrownBy(() -> Measurer.measure(bar(440, 0.2, 60, 5), (fraction, doing) -> {
                    seen.add(fraction);
                    if (fraction > 0.04) {
                        throw new CancellationException();
                    }
                }))
                .isInstanceOf(CancellationException.class);
        assertThat(seen).isSorted().allMatch(f -> f >= 0 && f <= 1);
    }

    @Test
    void jsonHoldsTheContractsFields() throws Exception {
        JsonNode o = new ObjectMapper().readTree(MeasurementJson.text(Measurer.measure(bar(440, 0.2, 60, 5))));
        assertThat(o.path("sampleRateHz").asInt()).isEqualTo(FS);
        assertThat(o.path("f0Hz").asDouble()).isCloseTo(440, within(0.1));
        assertThat(o.path("series").path("name").asText()).isEqualTo("uniform free bar");
        JsonNode p = o.path("partials").path(0);
        assertThat(p.path("frequencyHz").asDouble()).isCloseTo(440, within(0.1));
        assertThat(p.path("reliable").asBoolean()).isTrue();
        assertThat(p.path("frequencySeHz").asDouble()).isBetween(0.0, 0.05);
        for (String f : List.of(
                "onsetSeconds",
                "nearestNote",
                "centsFromConcert",
                "strikeNotes",
                "vibrato",
                "tremolo",
                "filterMovement",
                "brightness",
                "inharmonicityB",
                "attackSeconds",
                "noise",
                "formants",
                "loudnessLufs")) {
            assertThat(o.has(f)).as(f).isTrue();
        }
        assertThat(o.path("vibrato").isNull()).isTrue();
    }
}
