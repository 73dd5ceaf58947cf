package nightreed.music;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import nightreed.music.ChordKind.Tone;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ChordNameTest {
    @ParameterizedTest
    @CsvSource({
        "D4 F4 A4 C5, D minor, Dm7, D4 F4 A4 C5",
        "62 65 69 72, D minor, Dm7, D4 F4 A4 C5",
        "70 73 77 80, Bb minor, Bbm7, Bb4 Db5 F5 Ab5",
        "F#3 A3 D4, , D/F#, F#3 A3 D4",
        "C4 Eb4 Gb4 A4, , Cdim7, C4 Eb4 Gb4 Bbb4",
        "C4 E4 Bb4 D5 A5, , C13, C4 E4 Bb4 D5 A5",
        "61 65 68, Db major, Db, Db4 F4 Ab4",
        "61 65 68, C# minor, C#, C#4 E#4 G#4",
        "71 75 78, Gb major, Cb, Cb5 Eb5 Gb5",
        "C2 D4 F#4 A4, , D7/C, C2 D4 F#4 A4"
    })
    void aChordIsNamedAndSpelled(String text, String key, String name, String notes) {
        ChordName c = ChordName.parse(text, key == null ? null : Tonality.of(key));
        assertThat(c.name()).isEqualTo(name);
        assertThat(String.join(" ", c.notes())).isEqualTo(notes);
    }

    /** Kinds that no other kind of the same notes hides, in voicings with any tone but those of sixths in the bass. */
    @Test
    void fiveHundredVoicingsOfAllKindsAreNamedAndNoLetterIsUsedTwice() {
        Random random = new Random(11);
        List<ChordKind> kinds = List.of(ChordKind.values());
        int right = 0;
        for (int i = 0; i < 500; i++) {
            ChordKind kind = kinds.get(random.nextInt(kinds.size()));
            int root = 36 + random.nextInt(24);
            List<Integer> keys = new ArrayList<>();
            List<Tone> tones = new ArrayList<>(kind.needed());
            tones.addAll(kind.optional());
            for (Tone t : tones) { // the root lowest, the others in any octave above it
                keys.add(root + t.semitones() % 12 + (t.semitones() == 0 ? 0 : 12 * random.nextInt(3)));
            }
            ChordName c = ChordName.of(keys, null);
            boolean spelled =
                    c.notes().stream().map(n -> n.charAt(0)).distinct().count()
                            == c.notes().size();
            for (int k = 0; k < c.notes().size(); k++) {
                assertThat(Pitch.key(c.notes().get(k))).isEqualTo(c.keys().get(k));
            }
            right += c.name().equals(c.root() + kind.symbol()) && c.root().pitchClass() == root % 12 && spelled ? 1 : 0;
        }
        assertThat(right).isGreaterThanOrEqualTo(495);
    }

    @Test
    void aNameIsReadBack() {
        for (ChordKind kind : ChordKind.values()) {
            ChordName c = ChordName.parse("Eb" + kind.symbol(), null);
            assertThat(c.name()).isEqualTo("Eb" + kind.symbol());
            assertThat(c.keys()).hasSize(kind.needed().size() + kind.optional().size());
        }
        assertThat(ChordName.parse("D/F#", null).notes().get(0)).startsWith("F#");
    }

    @Test
    void voicingsKeepTheNotesAndNextChordsShareThem() {
        Tonality in = Tonality.of("D minor");
        ChordName c = ChordName.parse("D4 F4 A4 C5", in);
        assertThat(Voicing.close(c)).containsExactly(62, 65, 69, 72);
        assertThat(Voicing.open(c)).containsExactly(62, 69, 77, 84);
        assertThat(Voicing.drop(c, 2)).containsExactly(57, 62, 65, 72);
        assertThat(Voicing.drop(c, 3)).containsExactly(53, 62, 69, 72);
        List<Voicing.Next> next = Voicing.next(c, in);
        assertThat(next).hasSize(6);
        assertThat(next.get(0).common()).isEqualTo(3);
        for (Voicing.Next n : next) {
            for (String note : n.chord().notes()) {
                assertThat(in.of(Math.floorMod(Pitch.key(note), 12))).as(note).isNotNull();
            }
        }
    }

    @Test
    void whatIsNoChordIsRefusedInWords() {
        assertThatThrownBy(() -> ChordName.parse("H7", null)).hasMessageContaining("no chord");
        assertThatThrownBy(() -> ChordName.parse("Cfoo", null)).hasMessageContaining("foo");
        assertThatThrownBy(() -> ChordName.parse("C4 C4", null)).hasMessageContaining("2 to");
        assertThatThrownBy(() -> ChordName.parse("C4 C#4 D4 Eb4", null)).hasMessageContaining("no chord");
        assertThatThrownBy(() -> Tonality.of("H major")).hasMessageContaining("no key");
    }
}
