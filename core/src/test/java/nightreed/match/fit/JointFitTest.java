package nightreed.match.fit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.compare.PerceptualComparator;
import nightreed.match.fit.JointFit.Note;
import nightreed.match.fit.JointFit.Result;
import nightreed.match.sound.AnalysedSound;
import nightreed.recipe.FirstRecipe;
import nightreed.recipe.Layer;
import nightreed.recipe.Mode;
import nightreed.recipe.Patch;
import nightreed.recipe.ResonatorRecipe;
import nightreed.recipe.part.Exciter;
import nightreed.recipe.part.KeyTracking;
import nightreed.recipe.part.VelocityMap;
import nightreed.voice.Renderer;
import nightreed.work.Progress;
import org.junit.jupiter.api.Test;

/** What follows key and strength is found again from notes that a known recipe played. */
class JointFitTest {
    private static final int FS = 48_000;

    private static ResonatorRecipe instrument() {
        return new ResonatorRecipe(
                60,
                0,
                -14,
                new Exciter(0.6, -12, 12, 300, 7000),
                List.of(new Mode(1, 0, 0.9, 0), new Mode(2.76, -9, 0.5, 0), new Mode(5.4, -16, 0.25, 0)),
                new KeyTracking(1.1, 0.4),
                new VelocityMap(0.6, 30, 2.4),
                10);
    }

    private static Note note(int key, double velocity) throws Exception {
        return new Note(
                ImitationRenderer.rendered(
                        Renderer.at(instrument(), key, velocity, 0.1, Double.POSITIVE_INFINITY, 1.6, FS)),
                key,
                velocity);
    }

    @Test
    void whatFollowsKeyAndStrengthComesOut() throws Exception {
        List<Note> notes = new ArrayList<>();
        for (int key : new int[] {53, 60, 69}) {
            for (double v : new double[] {0.35, 0.85}) {
                notes.add(note(key, v));
            }
        }
        Result r =
                JointFit.of("resonators", notes, JointFit.middle(notes), FitOptions.USUAL.trying(0.3), Progress.NONE);
        assertThat(r.notes()).hasSize(6);
        assertThat(r.meanJnd()).isLessThan(0.8);
        assertThat(r.maps().get("velocity.level")).isCloseTo(30, within(3.0));
        assertThat(r.maps().get("track.decay")).isCloseTo(1.1, within(0.15));
        assertThat(r.notes()).allMatch(n -> Math.abs(n.levelDb()) < 2);
    }

    @Test
    void whatNotesCannotTellIsNotGiven() throws Exception {
        Note low = note(53, 0.6);
        Note high = note(69, 0.6);
        Result keys = JointFit.of("resonators", List.of(low, high), low, FitOptions.USUAL.trying(0.05), Progress.NONE);
        assertThat(keys.maps()).containsOnlyKeys("track.decay", "track.strike");
        Note soft = new Note(note(53, 0.4).recording(), 53, 0.4, false);
        Note hard = new Note(note(53, 0.9).recording(), 53, 0.9, false);
        Result strengths =
                JointFit.of("resonators", List.of(soft, hard), soft, FitOptions.USUAL.trying(0.05), Progress.NONE);
        assertThat(strengths.maps()).containsOnlyKeys("velocity.hardness");
        assertThat(strengths.recipe().value("velocity.level")).isEqualTo(VelocityMap.USUAL.levelDb());
    }

    /** The layer that is fitted is found beside the other; without it, what is heard is another sound. */
    @Test
    void aLayerIsFittedToSeveralNotesBesideTheOthers() throws Exception {
        Patch truth = Patch.of(instrument())
                .with(Layer.of(FirstRecipe.of("subtractive").with("level", -22)).withTranspose(7));
        List<Note> notes = new ArrayList<>();
        for (int key : new int[] {55, 65}) {
            notes.add(new Note(
                    ImitationRenderer.rendered(Renderer.at(truth, key, 0.6, 0.1, Double.POSITIVE_INFINITY, 1.2, FS)),
                    key,
                    0.6,
                    true));
        }
        Patch off = truth.withFirst(truth.first().with("mode.1.level", -12).with("mode.2.t60", 1.5));
        FitOptions beside = FitOptions.USUAL.from(off, Set.of()).trying(0.2);
        FitOptions alone = FitOptions.USUAL.from(off.first(), Set.of()).trying(0.2);
        double near = JointFit.of("resonators", notes, notes.get(0), beside, Progress.NONE)
                .meanJnd();
        double far = JointFit.of("resonators", notes, notes.get(0), alone, Progress.NONE)
                .meanJnd();
        double begun = 0;
        for (Note n : notes) {
            AnalysedSound start =
                    ImitationRenderer.rendered(Renderer.at(off, n.key(), 0.6, 0.1, Double.POSITIVE_INFINITY, 1.2, FS));
            begun += PerceptualComparator.compare(n.recording(), start).totalJnd() / notes.size();
        }
        assertThat(near)
                .as("begun at " + begun + ", alone " + far)
                .isLessThan(0.7 * begun)
                .isLessThan(0.5 * far);
    }

    @Test
    void theMiddleOneIsSeenFrom() throws Exception {
        Note low = note(48, 0.5);
        Note middle = note(60, 0.5);
        Note high = note(72, 0.5);
        assertThat(JointFit.middle(List.of(high, low, middle))).isEqualTo(middle);
        assertThat(JointFit.strengths(
                        List.of(low.recording(), note(48, 0.8).recording(), high.recording()), List.of(48, 48, 72)))
                .satisfies(v -> assertThat(v.get(1) - v.get(0)).isBetween(0.2, 0.6))
                .satisfies(v -> assertThat(v.get(2)).isEqualTo(0.7));
        assertThatThrownBy(() -> JointFit.of("fm", List.of(low), low, FitOptions.USUAL, Progress.NONE))
                .hasMessageContaining("two notes or more");
    }
}
