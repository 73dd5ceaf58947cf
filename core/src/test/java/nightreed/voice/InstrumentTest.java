package nightreed.voice;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import nightreed.Tones;
import nightreed.measure.Measurement;
import nightreed.measure.Measurer;
import nightreed.measure.partial.Partial;
import nightreed.music.Pitch;
import nightreed.recipe.Mode;
import nightreed.recipe.Recipe;
import nightreed.recipe.RecipeTest;
import nightreed.recipe.ResonatorRecipe;
import nightreed.recipe.SubtractiveRecipe;
import nightreed.recipe.part.Common;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.Exciter;
import nightreed.recipe.part.KeyTracking;
import nightreed.recipe.part.Oscillator;
import nightreed.recipe.part.VelocityMap;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class InstrumentTest {
    private static final int FS = 48_000;

    private static ResonatorRecipe single(double t60, double contactMs) {
        return new ResonatorRecipe(
                69,
                0,
                -6,
                new Exciter(contactMs, -100, 10, 100, 5000),
                List.of(new Mode(1, 0, t60, 0.4)),
                new KeyTracking(1, 0),
                new VelocityMap(0.7, 20, 1),
                100);
    }

    @ParameterizedTest
    @CsvSource({"0.3, 0.05", "1.5, 1.0", "4.0, 5.0"})
    void aModeFallsBySixtyDecibelsInItsT60(double t60, double contactMs) {
        float[] y =
                Renderer.note(single(t60, contactMs), 69, 0.7, 0, t60 + 0.2, FS).channel(0);
        int n = 4800; // whole cycles of 440 Hz; past the contact
        double start = Tones.rmsDb(y, n, 2 * n);
        int later = (int) Math.round(t60 / 2 * FS);
        assertThat(Tones.rmsDb(y, n + later, 2 * n + later) - start).isCloseTo(-30, within(0.05));
    }

    @ParameterizedTest
    @CsvSource({"0.05", "0.5", "3.0"})
    void levelAndPitchAreThoseOfTheRecipeWhateverTheContact(double contactMs) {
        float[] y = Renderer.note(single(30, contactMs), 69, 0.7, 0, 1.2, FS).channel(0);
        double decayTo = Math.pow(10, -3 * 0.7 / 30); // by the middle of the window
        assertThat(20 * Math.log10(Tones.amplitudeAt(y, FS, 440, FS / 5, FS) / decayTo))
                .isCloseTo(-6, within(0.02));
    }

    @Test
    void aMeasurementOfTheSoundGivesTheRecipeBack() throws Exception {
        ResonatorRecipe r = RecipeTest.bar().withExciter(new Exciter(0.3, -100, 10, 100, 5000));
        Measurement m = Measurer.measure(Renderer.asFitted(r, 0.2, 2.5, FS));
        assertThat(m.reliablePartials()).hasSize(4);
        for (int i = 0; i < 4; i++) {
            Partial p = m.reliablePartials().get(i);
            Mode mode = r.modes().get(i);
            assertThat(Pitch.cents(mode.ratio() * r.f0Hz(), p.frequencyHz())).isCloseTo(0, within(0.01));
            assertThat(p.t60Seconds() / mode.t60Seconds()).isCloseTo(1, within(0.01));
            assertThat(p.levelDb()).isCloseTo(mode.levelDb(), within(0.1));
        }
    }

    @Test
    void aHarderStrikeIsLouderAndBrighter() {
        ResonatorRecipe r = RecipeTest.bar().withExciter(new Exciter(2, -100, 10, 100, 5000));
        float[] soft = Renderer.note(r, 57, 0.2, 0, 1, FS).channel(0);
        float[] hard = Renderer.note(r, 57, 1.0, 0, 1, FS).channel(0);
        double f = r.f0Hz();
        double low = ratioDb(hard, soft, f);
        double high = ratioDb(hard, soft, f * 5.404);
        assertThat(low).isBetween(15.0, 25.0);
        assertThat(high - low).isGreaterThan(3);
    }

    private static double ratioDb(float[] a, float[] b, double hz) {
        return 20 * Math.log10(Tones.amplitudeAt(a, FS, hz, 2400, 12_000) / Tones.amplitudeAt(b, FS, hz, 2400, 12_000));
    }

    @Test
    void keysFollowPitchAndDecay() throws Exception {
        Measurement m = Measurer.measure(Renderer.note(single(2, 0.1), 81, 0.7, 0.2, 3, FS));
        assertThat(m.f0Hz()).isCloseTo(880, within(0.01));
        assertThat(m.strongest().t60Seconds()).isCloseTo(1.0, within(0.01)); // power 1: half an octave up
    }

    @Test
    void modesAboveTheBandAreLeftOutInsteadOfFolding() {
        ResonatorRecipe r = RecipeTest.bar().withExciter(new Exciter(0.05, -100, 10, 100, 5000));
        float[] y = Renderer.note(r, 120, 0.7, 0, 0.5, FS).channel(0); // ratio 5.4 lies at 45 kHz there
        assertThat(Tones.amplitudeAt(y, FS, 48_000 - 8372 * 5.404, 2400, 12_000))
                .isLessThan(1e-6);
    }

    @Test
    void theDamperFallsAtKeyUp() {
        ResonatorRecipe r = single(5, 0.2).with("damper.t60", 0.1);
        Instrument i = new Instrument(r, FS);
        float[] y = new float[FS];
        i.noteOn(69, 0.7);
        i.render(y, 0, FS / 2);
        i.noteOff(69);
        i.render(y, FS / 2, FS);
        double fall = Tones.rmsDb(y, FS / 2 + 4800, FS / 2 + 5280) - Tones.rmsDb(y, FS / 2 - 480, FS / 2);
        assertThat(fall).isBetween(-66.0, -58.0);
    }

    @Test
    void aLevelMovedWhileRingingGlides() {
        Instrument i = new Instrument(single(10, 0.1), FS);
        float[] y = new float[FS];
        i.noteOn(69, 0.7);
        i.render(y, 0, FS / 2);
        i.recipe(single(10, 0.1).with("mode.1.level", -20));
        i.render(y, FS / 2, FS);
        double step = 0;
        for (int k = FS / 2 - 2; k < FS / 2 + 2400; k++) { // a step in the wave would be larger than its steepest rise
            step = Math.max(step, Math.abs(y[k + 1] - y[k]));
        }
        assertThat(step).isLessThan(1.1 * 0.5 * 2 * Math.PI * 440 / FS);
        assertThat(Tones.rmsDb(y, FS - 4800, FS) - Tones.rmsDb(y, FS / 2 - 4800, FS / 2))
                .isBetween(-25.0, -20.0);
    }

    @Test
    void moreNotesThanVoicesTakeTheQuietestAndPanicEndsAll() {
        Instrument i = new Instrument(RecipeTest.bar(), FS);
        float[] y = new float[FS / 10];
        for (int k = 0; k < 60; k++) {
            i.noteOn(30 + k, 0.9);
            java.util.Arrays.fill(y, 0);
            i.render(y, 0, 480);
        }
        assertThat(i.sounding()).isTrue();
        i.panic();
        i.render(y, 0, y.length);
        assertThat(i.sounding()).isFalse();
    }

    @Test
    void aSlowBodyFadesInAlongACosineInBlocksOfAnySize() {
        ResonatorRecipe quick = RecipeTest.bar().with("noise.level", -100);
        ResonatorRecipe slow = quick.withRiseMs(20);
        float[] a = Renderer.asFitted(quick, 0, 0.1, 48_000).channel(0);
        float[] b = Renderer.asFitted(slow, 0, 0.1, 48_000).channel(0);
        for (int i = 0; i < a.length; i++) {
            double gain = i < 960 ? 0.5 - 0.5 * Math.cos(Math.PI * i / 960) : 1;
            assertThat((double) b[i]).isCloseTo(gain * a[i], within(1e-6));
        }
        Instrument one = new Instrument(slow, 48_000);
        one.noteOn(slow.key(), slow.velocity().reference());
        float[] c = new float[4800];
        for (int at = 0; at < c.length; at += 37) {
            one.render(c, at, Math.min(c.length, at + 37));
        }
        assertThat(c).containsExactly(b);
    }

    /** A note begins and ends where it is played, not where the next look at its envelopes is due. */
    @Test
    void envelopesBeginAndEndOnTheirSample() {
        Envelope quick = new Envelope(0, 0.001, 0, 0, 0, 1, 1, 0.002);
        SubtractiveRecipe r = new SubtractiveRecipe(
                60,
                0,
                0,
                List.of(Oscillator.of(Oscillator.Wave.SINE, 40)),
                null,
                null,
                null,
                null,
                quick,
                null,
                VelocityMap.USUAL,
                Common.NONE);
        float[] first = playedAfter(r, 0);
        for (int late : new int[] {1, 7, 13, 37, 63}) {
            float[] y = playedAfter(r, late);
            double off = 0;
            double power = 0;
            for (int i = 0; i < first.length; i++) {
                off += Math.pow(y[i] - first[i], 2);
                power += first[i] * first[i];
            }
            assertThat(10 * Math.log10(off / power))
                    .as("%d samples later", late)
                    .isLessThan(-40);
        }
    }

    /** 30 ms of a note of 20 ms that begins after so many samples, counted from there. */
    private static float[] playedAfter(Recipe r, int silence) {
        Instrument played = new Instrument(r, FS);
        float[] before = new float[64];
        played.render(before, before.clone(), 0, silence);
        float[] y = new float[FS * 3 / 100];
        float[] other = new float[y.length];
        played.noteOn(60, 0.7);
        played.render(y, other, 0, FS / 50);
        played.noteOff(60);
        played.render(y, other, FS / 50, y.length);
        return y;
    }
}
