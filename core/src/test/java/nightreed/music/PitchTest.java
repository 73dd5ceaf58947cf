package nightreed.music;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class PitchTest {
    @ParameterizedTest
    @CsvSource({"A4,69", "C4,60", "c4,60", "Eb4,63", "F#2,42", "C-1,0", "G9,127", "Cb4,59", "57,57", "B#3,60"})
    void keysAreReadByNameAndNumber(String text, int key) {
        assertThat(Pitch.key(text)).isEqualTo(key);
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "H2", "A", "128", "G#9", "-1", "A 4", "4A", "nonsense"})
    void anythingElseIsRefusedWithAHint(String text) {
        assertThatThrownBy(() -> Pitch.key(text))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining(text);
    }

    @Test
    void namesAndKeysUndoEachOther() {
        for (int key = 0; key < 128; key++) {
            assertThat(Pitch.key(Pitch.name(key))).isEqualTo(key);
        }
    }

    @Test
    void frequenciesAndKeysUndoEachOther() {
        for (double m = 0; m < 127; m += 0.37) {
            assertThat(Pitch.midi(Pitch.hz(m))).isCloseTo(m, within(1e-10));
        }
        assertThat(Pitch.hz(60)).isCloseTo(261.6256, within(1e-4));
        assertThat(Pitch.cents(440, 880)).isCloseTo(1200, within(1e-9));
        assertThat(Pitch.centsFromNearest(440 * Math.pow(2, 0.3 / 12))).isCloseTo(30, within(1e-9));
        assertThat(Pitch.nearestKey(440 * Math.pow(2, 0.3 / 12))).isEqualTo(69);
    }

    @Test
    void barkFollowsItsTable() { // Traunmüller states 0.05 Bark against Zwicker's edges; the corrections hold at the
        // ends
        for (int b = 1; b <= 24; b++) {
            assertThat(Bark.of(Bark.edgeHz(b))).isCloseTo(b, within(0.12));
        }
        assertThat(Bark.band(1000)).isEqualTo(8);
        assertThat(Bark.band(10)).isEqualTo(-1);
        assertThat(Bark.band(Double.NaN)).isEqualTo(-1);
        assertThat(Bark.band(16_000)).isEqualTo(-1);
    }

    @Test
    void barkAndFrequencyUndoEachOther() {
        for (double hz = 30; hz < 20_000; hz *= 1.13) {
            assertThat(Bark.hz(Bark.of(hz))).isCloseTo(hz, within(1e-6 * hz));
        }
    }

    @Test
    void timesAreNamedAsNoteValues() {
        assertThat(NoteValue.nearest(0.5, 120).name()).isEqualTo("1/4");
        assertThat(NoteValue.nearest(0.375, 120).name()).isEqualTo("1/8 dotted");
        assertThat(NoteValue.nearest(1 / 6.0, 120).name()).isEqualTo("1/8 triplet");
        NoteValue late = NoteValue.nearest(0.26, 120);
        assertThat(late.name()).isEqualTo("1/8");
        assertThat(late.offShare()).isCloseTo(0.04, within(1e-9));
        assertThatThrownBy(() -> NoteValue.nearest(0, 120)).hasMessageContaining("above 0");
    }
}
