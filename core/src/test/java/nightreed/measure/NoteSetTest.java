package nightreed.measure;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import nightreed.sound.Clip;
import nightreed.work.Progress;
import org.junit.jupiter.api.Test;

/** Several notes of one instrument whose laws are known. */
class NoteSetTest {
    /** A bar that dies by f^-0.7 and whose upper modes come out with strength. */
    private static Measurement note(long seed, double hz, double strength) throws Exception {
        double t60 = 1.2 * Math.pow(hz / 1000, -0.7);
        double upper = 0.25 * strength * Math.sqrt(strength);
        return Measurer.measure(new MadeUpNote(seed, 0.2, 2)
                .mode(hz, 0.3 * strength, t60)
                .mode(2.756 * hz, upper, 0.5 * t60)
                .mode(5.404 * hz, 0.6 * upper, 0.3 * t60)
                .noise(60)
                .clip());
    }

    @Test
    void decayFollowsTheKeyAndBrightnessTheStrength() throws Exception {
        List<Measurement> notes = new ArrayList<>();
        double[] hz = {180, 260, 390, 540, 800};
        for (int i = 0; i < hz.length; i++) {
            notes.add(note(2 * i, hz[i], 1));
            notes.add(note(2 * i + 1, hz[i], 0.25));
        }
        NoteSet set = NoteSet.of(notes);
        assertThat(set.notes()).hasSize(10);
        assertThat(set.decay().exponent()).isCloseTo(0.7, within(0.03));
        assertThat(set.decay().t60At(400)).isCloseTo(1.2 * Math.pow(0.4, -0.7), within(0.1));
        assertThat(set.brightnessOctavesPer10Db())
                .isGreaterThan(5 * set.brightnessSe())
                .isBetween(0.1, 1.0);
    }

    @Test
    void anOffsetThatAllNotesShareIsThatOfTheRecording() throws Exception {
        double fast = Math.pow(2, 27 / 1200.0);
        NoteSet set = NoteSet.of(List.of(note(1, 220 * fast, 1), note(2, 329.63 * fast, 1), note(3, 523.25 * fast, 1)));
        assertThat(set.commonCents()).isCloseTo(27, within(0.2));
        assertThat(NoteSet.of(List.of(note(1, 220, 1), note(2, 333, 1), note(3, 515, 1)))
                        .commonCents())
                .isNull();
    }

    @Test
    void notesThatAreAlikeTellNoLaw() throws Exception {
        NoteSet set = NoteSet.of(List.of(note(1, 300, 1), note(2, 300, 0.9), note(3, 310, 1)));
        assertThat(set.decay()).isNull();
        assertThat(set.brightnessOctavesPer10Db()).isNull();
    }

    @Test
    void theNotesOfAFileAreMeasuredOneByOne() throws Exception {
        float[] x = new float[4 * MadeUpNote.FS];
        double[] hz = {220, 330, 440};
        for (int i = 0; i < hz.length; i++) {
            float[] one = new MadeUpNote(i, 0.1, 1.2)
                    .mode(hz[i], 0.3, 0.8)
                    .mode(2.756 * hz[i], 0.1, 0.4)
                    .clip()
                    .channel(0);
            for (int k = 0; k < one.length; k++) {
                x[k + i * 60_000] += one[k];
            }
        }
        List<Measurement> notes = Measurer.notes(Clip.mono(x, MadeUpNote.FS), Progress.NONE);
        assertThat(notes).hasSize(3);
        for (int i = 0; i < hz.length; i++) {
            assertThat(notes.get(i).f0Hz()).isCloseTo(hz[i], within(0.1));
            assertThat(notes.get(i).onsetSeconds()).isCloseTo(0.1 + i * 1.25, within(0.002));
        }
    }
}
