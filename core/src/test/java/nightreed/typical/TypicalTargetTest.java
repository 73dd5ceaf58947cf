package nightreed.typical;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import com.fasterxml.jackson.databind.ObjectMapper;
import java.util.List;
import java.util.Map;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.compare.PerceptualComparator;
import nightreed.match.hearing.ListenerProfile;
import nightreed.match.method.Starts;
import nightreed.match.sound.AnalysedSound;
import nightreed.measure.Measurement;
import nightreed.measure.Measurer;
import nightreed.measure.Typical;
import nightreed.measure.partial.Partial;
import nightreed.recipe.Patch;
import nightreed.recipe.Recipe;
import nightreed.sheet.PatchSheet;
import nightreed.work.Progress;
import org.junit.jupiter.api.Test;

class TypicalTargetTest {
    private static TypicalTarget of(String words) throws Exception {
        return TypicalTarget.of(read(words), Progress.NONE);
    }

    private static Description read(String words) {
        Words.Read read = Words.read(words, Description.of(Families.all().get(0)));
        assertThat(read.unknown()).isEmpty();
        return read.description();
    }

    @Test
    void whatIsMeasuredOfEachFamilyIsWhatItsNumbersSay() throws Exception {
        for (Family f : Families.all()) {
            TypicalTarget t = TypicalTarget.of(Description.of(f), Progress.NONE);
            Measurement m = t.measurement();
            assertThat(m.f0Hz())
                    .as(f.id())
                    .isCloseTo(t.note().f0Hz(), within(0.01 * t.note().f0Hz()));
            assertThat(m.held() != null).as(f.id()).isEqualTo(f.isHeld());
            assertThat(m.typical().words()).contains(f.title());
            assertThat(m.typical().sources()).isNotEmpty();
            for (TypicalNote.Line l : t.note().lines()) {
                if (l.levelDb() < -20) {
                    continue; // faint ones, of which a short sound may hide some
                }
                double hz = l.ratio() * t.note().f0Hz();
                Partial near = m.partials().stream()
                        .min(java.util.Comparator.comparingDouble(p -> Math.abs(p.frequencyHz() - hz)))
                        .orElseThrow();
                assertThat(near.frequencyHz()).as(f.id() + " " + l.ratio()).isCloseTo(hz, within(0.01 * hz));
            }
        }
    }

    /** What it says of its partials is what a measurement of the sound finds. */
    @Test
    void theNumbersOfAStruckNoteAreThoseOfItsSound() throws Exception {
        TypicalTarget t = of("bar tuned 1:4, A3");
        List<Partial> measured = Measurer.measure(t.clip()).partials();
        assertThat(measured).hasSameSizeAs(t.measurement().partials());
        for (int i = 0; i < measured.size(); i++) {
            Partial said = t.measurement().partials().get(i);
            Partial found = measured.get(i);
            assertThat(found.frequencyHz()).isCloseTo(said.frequencyHz(), within(1e-4 * said.frequencyHz()));
            assertThat(found.t60Seconds()).isCloseTo(said.t60Seconds(), within(0.05 * said.t60Seconds()));
            assertThat(found.levelDb()).isCloseTo(said.levelDb(), within(0.3));
            assertThat(found.amplitude()).isCloseTo(said.amplitude(), within(0.03 * said.amplitude()));
        }
    }

    @Test
    void slidersDoWhatTheySayOnEveryFamily() {
        for (Family f : Families.all()) {
            Description usual = Description.of(f);
            TypicalNote note = TypicalNote.of(usual);
            assertThat(TypicalNote.of(usual.withBright(1)).centroidHz())
                    .as(f.id())
                    .isGreaterThan(note.centroidHz());
            assertThat(TypicalNote.of(usual.withBright(-1)).centroidHz())
                    .as(f.id())
                    .isLessThan(note.centroidHz());
            assertThat(TypicalNote.of(usual.withLength(1)).seconds()).as(f.id()).isGreaterThanOrEqualTo(note.seconds());
            assertThat(TypicalNote.of(usual.withHard(1)).lines().get(0).riseSeconds())
                    .as(f.id())
                    .isLessThan(note.lines().get(0).riseSeconds());
            assertThat(TypicalNote.of(usual.withNoisy(1)).noise().levelDb())
                    .isGreaterThan(note.noise().levelDb());
            TypicalNote still = TypicalNote.of(usual.withMoving(-1));
            TypicalNote moving = TypicalNote.of(usual.withMoving(1));
            assertThat(moving.vibratoCents() + moving.lines().get(0).splitHz())
                    .as(f.id())
                    .isGreaterThan(still.vibratoCents() + still.lines().get(0).splitHz());
            assertThat(TypicalNote.of(usual.withVelocity(1)).centroidHz()).isGreaterThan(note.centroidHz());
        }
    }

    @Test
    void wordsAreReadAgainAsTheyAreWritten() {
        for (String words : List.of(
                "bright brass, slow start, C3",
                "very dull bell",
                "slightly noisy flute with vibrato A5 velocity 0.9",
                "two sets harpsichord, short",
                "not bright bowed, roomy",
                "soft plucked string, hard start")) {
            Description d = read(words);
            assertThat(read(d.words())).as(words).isEqualTo(d);
        }
        assertThat(read("bright brass, slow start, C3").family().id()).isEqualTo("brass");
        assertThat(read("two sets harpsichord").family().id()).isEqualTo("harpsichord-two");
        Words.Read some = Words.read("wobbly bell", Description.of(Families.of("brass")));
        assertThat(some.unknown()).containsExactly("wobbly");
        assertThat(some.description().family().id()).isEqualTo("bell");
        // what a line does not speak of stays
        Description was = read("bright brass, C3");
        assertThat(Words.read("noisy", was).description()).isEqualTo(was.withNoisy(Words.PLAINLY));
    }

    @Test
    void nonsenseIsRefused() {
        Description brass = Description.of(Families.of("brass"));
        assertThatThrownBy(() -> brass.withVelocity(0)).isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> brass.withBright(Double.NaN)).hasMessageContaining("-1 to 1");
        assertThatThrownBy(() -> brass.withKey(200)).hasMessageContaining("0 to 127");
        assertThatThrownBy(() -> Families.of("kazoo")).hasMessageContaining("plain-bar");
    }

    @Test
    void theHighestKeysAndLongestNotesStillSound() throws Exception {
        for (Family f : Families.all()) {
            for (int key : f.id().startsWith("b") ? new int[] {12, 108} : new int[] {108}) {
                Description d = Description.of(f)
                        .withKey(key)
                        .withLength(key < 50 ? 1 : -1)
                        .withRoomy(1);
                TypicalNote note = TypicalNote.of(d);
                assertThat(note.lines()).as(f.id() + " " + key).isNotEmpty();
                double[] x = TypicalSound.of(note).clip().mixed();
                double peak = 0;
                for (double v : x) {
                    peak = Math.max(peak, Math.abs(v));
                }
                assertThat(peak).as(f.id() + " " + key).isBetween(0.1, 0.9);
                assertThat(x.length / 44_100.0).isLessThan(15);
            }
        }
    }

    /** What differs no more than instruments of a family do is within what is asked for. */
    @Test
    void aComparisonAsksForNothingThatNobodyKnows() throws Exception {
        TypicalTarget asked = of("bar tuned 1:3, C5");
        TypicalTarget other = of("slightly bright bar tuned 1:3, C5");
        AnalysedSound target = new AnalysedSound(asked.clip(), asked.measurement());
        AnalysedSound near = ImitationRenderer.rendered(other.clip());
        Measurement recorded = asked.measurement().withTypical(null);
        double typical = PerceptualComparator.compare(target, near).totalJnd();
        double finely = PerceptualComparator.compare(new AnalysedSound(asked.clip(), recorded), near)
                .totalJnd();
        assertThat(typical).isLessThan(1).isLessThan(0.6 * finely);
        assertThat(target.heardBy(ListenerProfile.USUAL).listener().hearing().levelDb())
                .isEqualTo(Typical.LEVEL_DB);
        Recipe start = Starts.of("resonators", target).recipe();
        String sheet = PatchSheet.html(
                "Project",
                "Bar",
                asked.measurement(),
                Patch.of(start),
                start,
                Map.of(),
                PerceptualComparator.compare(target, near),
                "");
        assertThat(sheet)
                .contains("Built against a typical target, not a recording: bar tuned 1:3, C5")
                .contains("Partials of the target")
                .doesNotContain("Partials of the recording");
    }

    @Test
    void aRecordingThatComesLaterSaysWhatItChanged() throws Exception {
        Measurement typical = of("brass, C4").measurement();
        assertThat(TypicalTarget.changes(typical, typical)).isEmpty();
        Measurement recorded =
                of("very bright brass, very hard start, vibrato, D4").measurement();
        assertThat(String.join("; ", TypicalTarget.changes(typical, recorded)))
                .contains("pitch +200")
                .contains("brighter")
                .contains("vibrato");
        assertThat(String.join(
                        "; ", TypicalTarget.changes(typical, of("bell, C4").measurement())))
                .contains("dies by itself");
    }

    @Test
    void itIsStoredWithWhatItStandsFor() throws Exception {
        Typical t = new Typical("brass, C4", List.of("a book"));
        ObjectMapper json = new ObjectMapper();
        assertThat(json.readValue(json.writeValueAsString(t), Typical.class)).isEqualTo(t);
    }
}
