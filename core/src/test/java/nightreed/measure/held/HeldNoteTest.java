package nightreed.measure.held;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import nightreed.measure.MadeUpNote;
import nightreed.measure.Measurement;
import nightreed.measure.Measurer;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Bowed and blown notes whose pitch, level and movement are known. */
class HeldNoteTest {
    private static MadeUpNote.Path vibrato(double hz, double cents, double delay, double ramp) {
        return t -> Math.max(0, Math.min(1, (t - delay) / ramp)) * cents * Math.sin(2 * Math.PI * hz * t);
    }

    private static Measurement measured(MadeUpNote note) throws Exception {
        return Measurer.measure(note.clip());
    }

    @ParameterizedTest
    @CsvSource({"110, 5.1, 25, 40", "1400, 5.5, 15, 30"})
    void vibratoIsReadOffTheHarmonicsTogether(double f0, double rate, double depth, double snr) throws Exception {
        MadeUpNote note = new MadeUpNote(1, 0.1, 2.2)
                .held(f0, 12, 0.04, 1.8, vibrato(rate, depth, 0.3, 0.3), t -> 0)
                .noise(snr);
        Measurement m = measured(note);
        assertThat(m.f0Hz()).isCloseTo(f0, within(f0 * 0.0002));
        Movement v = m.held().vibrato();
        assertThat(v.rateHz()).isCloseTo(rate, within(0.02));
        assertThat(v.depth()).isCloseTo(depth, within(0.02 * depth));
        assertThat(v.delaySeconds()).isCloseTo(0.3, within(0.1));
        assertThat(m.reliablePartials()).hasSize(12);
        assertThat(m.held().tremolo()).isNull();
        assertThat(m.strikeNotes().get(0).certainty())
                .isEqualTo(m.held().share())
                .isBetween(0.95, 1.0);
    }

    @ParameterizedTest
    @Tag("long")
    @CsvSource({"440, 6.3, 8, 20", "220, 4.4, 45, 20"})
    void moreVibratoIsReadOffTheHarmonicsTogether(double f0, double rate, double depth, double snr) throws Exception {
        vibratoIsReadOffTheHarmonicsTogether(f0, rate, depth, snr);
    }

    @Test
    void aSteadyNoteHasNone() throws Exception {
        for (int seed = 0; seed < 6; seed++) {
            MadeUpNote note = new MadeUpNote(seed, 0.1, 2)
                    .held(150 * (seed + 1), 10, 0.03, 1.6, t -> 0, t -> 0)
                    .noise(20);
            HeldNote held = measured(note).held();
            assertThat(held.vibrato()).isNull();
            assertThat(held.tremolo()).isNull();
        }
    }

    @ParameterizedTest
    @CsvSource({"SINE, 30", "TRIANGLE, 30", "SQUARE, 30"})
    void theFormOfASwingIsNamed(Movement.Shape shape, double depth) throws Exception {
        MadeUpNote.Path path = t -> depth
                * switch (shape) {
                    case SINE -> Math.sin(2 * Math.PI * 4 * t);
                    case TRIANGLE -> Math.asin(Math.sin(2 * Math.PI * 4 * t)) * 2 / Math.PI;
                    default -> Math.signum(Math.sin(2 * Math.PI * 4 * t));
                };
        MadeUpNote note = new MadeUpNote(1, 0.1, 2.6)
                .held(330, 10, 0.03, 2.2, path, t -> 0)
                .noise(40);
        Movement v = measured(note).held().vibrato();
        assertThat(v.shape()).isEqualTo(shape);
        assertThat(v.shapeOdds()).isGreaterThan(0.9);
        assertThat(v.ranked()).hasSize(3);
        assertThat(v.ranked().get(0).shape()).isEqualTo(shape);
        assertThat(v.ranked().stream().mapToDouble(Movement.Ranked::odds).sum()).isCloseTo(1, within(1e-9));
        assertThat(v.rateHz()).isCloseTo(4, within(0.1));
    }

    @ParameterizedTest
    @CsvSource({"1, 5, 40", "4, 10.5, 60"})
    void stepsWithoutAnOrderAreNamed(int seed, double rate, double depth) throws Exception {
        Random chance = new Random(seed);
        double[] values = chance.doubles(60, -1, 1).toArray();
        MadeUpNote.Path cents = t -> depth * values[(int) Math.max(0, t * rate + 0.37)];
        MadeUpNote.Path db = t -> 2 * values[(int) Math.max(0, t * rate + 0.37)];
        MadeUpNote note = new MadeUpNote(seed, 0.1, 3.2)
                .held(140 * seed, 12, 0.03, 2.8, cents, db)
                .noise(40);
        HeldNote held = measured(note).held();
        assertThat(held.vibrato().shape()).isEqualTo(Movement.Shape.STEPPED);
        assertThat(held.vibrato().rateHz()).isCloseTo(rate, within(0.02 * rate));
        assertThat(held.vibrato().depth()).isCloseTo(0.9 * depth, within(0.2 * depth));
        assertThat(held.tremolo().shape()).isEqualTo(Movement.Shape.STEPPED);
        assertThat(held.tremolo().movesWith(held.vibrato())).isTrue();
        assertThat(held.f0Hz())
                .as("the mean of its steps")
                .isCloseTo(140 * seed, within(140 * seed * 0.4 * depth / 1200));
    }

    @ParameterizedTest
    @Tag("long")
    @CsvSource({"2, 3.2, 12", "3, 8, 25"})
    void moreStepsWithoutAnOrderAreNamed(int seed, double rate, double depth) throws Exception {
        stepsWithoutAnOrderAreNamed(seed, rate, depth);
    }

    @Test
    void whatWandersDoesNotJump() throws Exception {
        for (int seed = 1; seed <= 6; seed++) {
            Random chance = new Random(seed);
            double[] walk = new double[400];
            for (int i = 1; i < walk.length; i++) {
                walk[i] = 0.9 * walk[i - 1] + 6 * chance.nextGaussian();
            }
            MadeUpNote.Path cents = t -> {
                double at = Math.max(0, t * 50);
                int k = (int) at;
                return walk[k] + (at - k) * (walk[k + 1] - walk[k]);
            };
            MadeUpNote note = new MadeUpNote(seed, 0.1, 3)
                    .held(200 + 40 * seed, 12, 0.03, 2.6, cents, t -> 0)
                    .noise(35);
            Movement v = measured(note).held().vibrato();
            assertThat(v == null || v.shape() != Movement.Shape.STEPPED).isTrue();
        }
    }

    @ParameterizedTest
    @ValueSource(doubles = {90})
    void twoSwingsOfOneRateAreKnownByTheirPhase(double degrees) throws Exception {
        MadeUpNote note = new MadeUpNote(9, 0.1, 3)
                .held(
                        260,
                        12,
                        0.03,
                        2.6,
                        t -> 20 * Math.sin(2 * Math.PI * 5.5 * t),
                        t -> 2 * Math.sin(2 * Math.PI * 5.5 * t + Math.toRadians(degrees)))
                .noise(40);
        HeldNote held = measured(note).held();
        assertThat(held.tremolo().movesWith(held.vibrato())).isTrue();
        double off = held.tremolo().leads(held.vibrato()) - Math.toRadians(degrees);
        assertThat(Math.toDegrees(Math.IEEEremainder(off, 2 * Math.PI))).isCloseTo(0, within(8.0));
    }

    @ParameterizedTest
    @Tag("long")
    @ValueSource(doubles = {0, 180, -60})
    void moreTwoSwingsOfOneRateAreKnownByTheirPhase(double degrees) throws Exception {
        twoSwingsOfOneRateAreKnownByTheirPhase(degrees);
    }

    @Test
    void tremoloIsNoVibrato() throws Exception {
        MadeUpNote note = new MadeUpNote(3, 0.1, 2.4)
                .held(300, 8, 0.03, 2, t -> 0, t -> 3 * Math.sin(2 * Math.PI * 5 * t))
                .noise(40);
        HeldNote held = measured(note).held();
        assertThat(held.vibrato()).isNull();
        assertThat(held.tremolo().rateHz()).isCloseTo(5, within(0.05));
        assertThat(held.tremolo().depth()).isCloseTo(3, within(0.3));
    }

    @Test
    void aGlideIsFollowed() throws Exception {
        MadeUpNote note = new MadeUpNote(4, 0.1, 2)
                .held(200, 10, 0.03, 1.6, t -> 100 * Math.min(t, 1.6), t -> 0)
                .noise(40);
        HeldNote held = measured(note).held();
        assertThat(held.glideCents()).isCloseTo(160, within(15.0));
        assertThat(held.harmonics()).hasSize(10);
    }

    @ParameterizedTest
    @CsvSource({"0.02, 60, 1", "0.05, 20, 8"})
    void aSlowBeginningIsFoundUnderTheNoise(double rise, double snr, double withinMs) throws Exception {
        MadeUpNote note = new MadeUpNote(5, 0.213, 2)
                .held(250, 10, rise, 1.5, t -> 0, t -> 0)
                .noise(snr);
        assertThat(1000 * measured(note).onsetSeconds()).isCloseTo(213, within(withinMs));
    }

    @ParameterizedTest
    @Tag("long")
    @CsvSource({"0.06, 60, 3"})
    void moreASlowBeginningIsFoundUnderTheNoise(double rise, double snr, double withinMs) throws Exception {
        aSlowBeginningIsFoundUnderTheNoise(rise, snr, withinMs);
    }

    /** A bow that is set down softly and then leans in: the swell is not where the note begins. */
    @ParameterizedTest
    @ValueSource(doubles = {50, 120})
    void aNoteThatComesInSoftlyBeginsBeforeItSwells(double snr) throws Exception {
        MadeUpNote note = new MadeUpNote(5, 0.213, 2)
                .held(250, 10, 0.02, 1.5, t -> 0, t -> -14 + 14 * Math.max(0, Math.min(1, (t - 0.13) / 0.05)))
                .noise(snr);
        assertThat(1000 * measured(note).onsetSeconds()).isCloseTo(213, within(6.0));
    }

    /** A growl an octave under the note that comes and goes is no leap of its pitch. */
    @Test
    void anUndertoneThatComesAndGoesIsNoVibrato() throws Exception {
        MadeUpNote note = new MadeUpNote(8, 0.1, 3)
                .held(280, 12, 0.03, 2.6, t -> 0, t -> 0)
                .held(140, 5, 0.03, 2.6, t -> 0, t -> t % 0.9 < 0.35 ? -6 : -60)
                .noise(50);
        HeldNote held = measured(note).held();
        assertThat(held.f0Hz()).isCloseTo(280, within(0.5));
        assertThat(held.vibrato()).isNull();
    }

    @Test
    void whatDiesIsNotHeld() throws Exception {
        MadeUpNote struck =
                new MadeUpNote(6, 0.1, 2).string(200, 0, 0.2, 0.8, 1e-7, 12).noise(50);
        assertThat(measured(struck).held()).isNull();
        MadeUpNote bar =
                new MadeUpNote(7, 0.1, 2).mode(300, 0.3, 12).mode(827, 0.2, 9).noise(50);
        assertThat(measured(bar).held()).isNull();
    }

    @Test
    void twoPitchesAreNoHeldNote() {
        double[] a = new MadeUpNote(8, 0.1, 2)
                .held(200, 6, 0.03, 1.6, t -> 0, t -> 0)
                .held(271, 6, 0.03, 1.6, t -> 0, t -> 0)
                .samples();
        assertThat(HeldNote.measure(a, MadeUpNote.FS, (int) (0.1 * MadeUpNote.FS), true, 1e-10))
                .isNull();
    }

    /** A swing of the level by 10 dB looks like a row of notes, one of the pitch by a semitone nine times a second like none. */
    @ParameterizedTest
    @CsvSource({"9.5, 8"})
    void aNoteThatSwingsWidelyIsStillOneHeldNote(double vibratoHz, double tremoloHz) throws Exception {
        MadeUpNote note = new MadeUpNote(9, 0.1, 3)
                .held(
                        220,
                        12,
                        0.08,
                        2.6,
                        vibrato(vibratoHz, 100, 0.3, 0.3),
                        t -> 10 * Math.sin(2 * Math.PI * tremoloHz * t))
                .noise(45);
        Measurement m = measured(note);
        assertThat(m.held()).isNotNull();
        assertThat(m.held().vibrato().rateHz()).isCloseTo(vibratoHz, within(0.05));
        assertThat(m.held().vibrato().depth()).isCloseTo(100, within(4.0));
        assertThat(m.held().tremolo().rateHz()).isCloseTo(tremoloHz, within(0.1));
        assertThat(m.noteOnsets()).hasSize(1);
        assertThat(m.held().isOnePitch()).isTrue();
    }

    @ParameterizedTest
    @Tag("long")
    @CsvSource({"3, 8", "9.5, 3"})
    void moreANoteThatSwingsWidelyIsStillOneHeldNote(double vibratoHz, double tremoloHz) throws Exception {
        aNoteThatSwingsWidelyIsStillOneHeldNote(vibratoHz, tremoloHz);
    }

    @Test
    void twoNotesOfOnePitchAreTwo() throws Exception {
        MadeUpNote note = new MadeUpNote(10, 0.1, 2.6)
                .held(220, 12, 0.03, 2.2, t -> 0, t -> t > 0.9 && t < 1.1 ? -35 : 0)
                .noise(50);
        assertThat(measured(note).noteOnsets()).hasSize(2);
    }

    @Test
    void whatIsTooLowToBeHeardBelongsToNoNote() throws Exception {
        MadeUpNote note = new MadeUpNote(11, 0.1, 2.4)
                .held(220, 8, 0.05, 2, t -> 0, t -> 0)
                .held(3, 1, 0.05, 2, t -> 0, t -> 0)
                .noise(50);
        Measurement m = measured(note);
        assertThat(m.held()).isNotNull();
        assertThat(m.f0Hz()).isCloseTo(220, within(0.1));
    }

    @Test
    void whatSwellsFadesAndIsLetGoIsHeld() throws Exception {
        MadeUpNote fading = new MadeUpNote(12, 0.1, 3)
                .held(220, 8, 0.12, 2.4, t -> 0, t -> -3.4 * t)
                .noise(50);
        assertThat(measured(fading).held()).isNotNull();
        MadeUpNote dying = new MadeUpNote(12, 0.1, 3)
                .held(220, 8, 0.12, 2.9, t -> 0, t -> -12 * t)
                .noise(50);
        assertThat(measured(dying).held()).isNull();
    }

    /** Partials that beat leave hollows that look as if a key had been let go, and come back. */
    @Test
    void whatDiesInBeatsIsNotHeld() throws Exception {
        MadeUpNote bell = new MadeUpNote(13, 0.1, 6)
                .held(220, 8, 0.12, 5.8, t -> 0, t -> -8 * t + 6 * Math.sin(2 * Math.PI * t / 1.2))
                .noise(60);
        assertThat(measured(bell).held()).isNull();
    }
}
