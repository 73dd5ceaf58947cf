package nightreed.match;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Random;
import nightreed.Tones;
import nightreed.match.advice.Move;
import nightreed.match.advice.NextMoves;
import nightreed.match.advice.Tolerances;
import nightreed.match.compare.Comparison;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.compare.PartialDifference;
import nightreed.match.compare.PerceptualComparator;
import nightreed.match.fit.FitOptions;
import nightreed.match.fit.Fits;
import nightreed.match.frontier.Wanted;
import nightreed.match.hearing.Aspect;
import nightreed.match.method.Starts;
import nightreed.match.sound.AnalysedSound;
import nightreed.music.Pitch;
import nightreed.recipe.Recipe;
import nightreed.recipe.RecipeTest;
import nightreed.recipe.ResonatorRecipe;
import nightreed.recipe.part.Parameter;
import nightreed.room.RecordingRoom;
import nightreed.sound.Clip;
import nightreed.sound.UnusableSound;
import nightreed.voice.Renderer;
import nightreed.work.Progress;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class MatchTest {
    private static final int FS = 48_000;
    private static AnalysedSound reference;
    private static ResonatorRecipe recipe;

    @BeforeAll
    static void playTheReference() throws Exception {
        recipe = RecipeTest.bar();
        reference = ImitationRenderer.side(Renderer.asFitted(recipe, 0.2, 2.2, FS), Progress.NONE);
    }

    private static Comparison heard(ResonatorRecipe other) throws UnusableSound {
        return PerceptualComparator.compare(
                reference, ImitationRenderer.side(Renderer.asFitted(other, 0.2, 2.2, FS), Progress.NONE));
    }

    @Test
    void aSoundIsAsCloseToItselfAsCanBe() {
        Comparison c = PerceptualComparator.compare(reference, reference);
        assertThat(c.totalJnd()).isCloseTo(0, within(1e-9));
        assertThat(c.withinHearing()).isTrue();
    }

    @ParameterizedTest
    @ValueSource(doubles = {0.1, 0.5, 2})
    void gainDoesNotMatter(double gain) throws Exception {
        AnalysedSound other = ImitationRenderer.side(reference.clip().scaled(gain), Progress.NONE);
        Comparison c = PerceptualComparator.compare(reference, other);
        assertThat(c.totalJnd()).isLessThan(0.05);
        assertThat(c.gainDb()).isCloseTo(-20 * Math.log10(gain), within(0.05));
    }

    @Test
    void theMomentOfTheOnsetDoesNotMatter() throws Exception {
        AnalysedSound later = ImitationRenderer.side(Renderer.asFitted(recipe, 0.5, 2.5, FS), Progress.NONE);
        assertThat(PerceptualComparator.compare(reference, later).totalJnd()).isLessThan(0.1);
    }

    @ParameterizedTest
    @CsvSource({
        "tune, -12, -7, 3, PITCH",
        "mode.1.t60, 1.2, 1.8, 2.6, DECAYS",
        "mode.2.level, -8, -12, -18, PARTIALS",
        "noise.level, -20, -5, 5, NOISE"
    })
    void theFurtherAValueMovesTheMoreItIsHeard(String id, double at, double near, double far, Aspect aspect)
            throws Exception {
        assertThat(recipe.value(id)).isEqualTo(at);
        Comparison a = heard(recipe.with(id, near));
        Comparison b = heard(recipe.with(id, far));
        assertThat(a.jnd(aspect)).isGreaterThan(0.3);
        assertThat(b.jnd(aspect)).isGreaterThan(a.jnd(aspect));
        assertThat(b.totalJnd()).isGreaterThan(a.totalJnd());
    }

    @Test
    void oneJndIsWhatTheLiteratureSays() throws Exception {
        assertThat(heard(recipe.with("tune", -7)).jnd(Aspect.PITCH)).isCloseTo(1, within(0.02));
        Comparison longer = heard(recipe.with("mode.1.t60", 1.2 * 1.4));
        PartialDifference first = longer.partials().get(0);
        assertThat(first.decayJnd()).isCloseTo(1, within(0.03));
    }

    @Test
    void aMissingPartialIsHeardAndNamed() throws Exception {
        Comparison c = heard(recipe.withModes(recipe.modes().subList(0, 3)));
        assertThat(c.partials()).hasSize(4);
        PartialDifference gone = c.partials().get(3);
        assertThat(gone.imitation()).isNull();
        assertThat(gone.heardJnd()).isGreaterThan(1);
        Comparison back = PerceptualComparator.compare(
                ImitationRenderer.side(
                        Renderer.asFitted(recipe.withModes(recipe.modes().subList(0, 3)), 0.2, 2.2, FS), Progress.NONE),
                reference);
        assertThat(back.partials().get(3).recording()).isNull(); // one too many is heard as well
        assertThat(back.jnd(Aspect.PARTIALS)).isGreaterThan(1);
    }

    @Test
    void whatIsPredictedIsWhatIsMeasured() throws Exception {
        for (String id : List.of("mode.2.level", "mode.1.t60", "noise.level")) {
            ResonatorRecipe other = recipe.with(id, recipe.value(id) * 0.7);
            assertThat(ImitationRenderer.predict(reference, other).totalJnd())
                    .as(id)
                    .isCloseTo(heard(other).totalJnd(), within(0.25));
        }
    }

    @ParameterizedTest
    @CsvSource({"50, 0.4, 11", "72, 0.3, 14", "79, 1.0, 15"})
    void barsFromTheRecordingRoomAreMatched(int key, double velocity, long seed) throws Exception {
        Clip clip = RecordingRoom.record(RecordingRoom.instrument("slate-bars"), key, velocity, seed);
        Match m = Matcher.match(clip, List.of("resonators"), FitOptions.USUAL, Wanted.NEAREST, Progress.NONE);
        assertThat(m.comparison().totalJnd()).isLessThanOrEqualTo(1.5);
        assertThat(m.comparison().worstJnd()).isLessThanOrEqualTo(3);
        for (PartialDifference d : m.comparison().partials()) {
            if (d.recording() != null && d.imitation() != null) {
                assertThat(Math.abs(Pitch.cents(
                                d.recording().frequencyHz(), d.imitation().frequencyHz())))
                        .isLessThan(1);
            }
        }
        assertThat(m.imitation().length()).isEqualTo(clip.length());
        assertThat(m.comparison().gainDb()).isCloseTo(0, within(0.3));
        assertThat(m.recipe().key()).isEqualTo(key);
    }

    @ParameterizedTest
    @Tag("long")
    @CsvSource({"57, 0.9, 12", "64, 0.6, 13", "86, 0.7, 16"})
    void moreBarsFromTheRecordingRoomAreMatched(int key, double velocity, long seed) throws Exception {
        barsFromTheRecordingRoomAreMatched(key, velocity, seed);
    }

    @Test
    void aFitOfTheSameSoundIsTheSame() throws Exception {
        Recipe first = Fits.of("resonators", reference, FitOptions.USUAL, Progress.NONE)
                .recipe();
        assertThat(Fits.of("resonators", reference, FitOptions.USUAL, Progress.NONE)
                        .recipe())
                .isEqualTo(first);
    }

    @Test
    void whatHasNoPitchIsMadeOfBandsAndOtherMethodsSayWhyNot() throws Exception {
        Clip noise = Clip.mono(Tones.noisy(new double[FS], 0.1, 3), FS);
        assertThatThrownBy(() ->
                        Matcher.match(noise, List.of("resonators"), FitOptions.USUAL, Wanted.USUAL, Progress.NONE))
                .isInstanceOf(UnusableSound.class)
                .hasMessageContaining("nothing for resonators to ring at");
        Match m = Matcher.match(noise, Starts.METHODS, FitOptions.USUAL, Wanted.NEAREST, Progress.NONE);
        assertThat(m.ranking()).extracting(r -> r.fitted().method()).containsExactly("formant");
        assertThat(m.comparison().totalJnd()).isLessThan(2.5);
    }

    /** Every move that is shown has to keep its promise, and ten in a row may never make it worse. */
    @Test
    void movesLowerTheDistance() throws Exception {
        movesLowerTheDistance(1);
    }

    @ParameterizedTest
    @Tag("long")
    @ValueSource(longs = {2, 3})
    void movesLowerTheDistance(long seed) throws Exception {
        AnalysedSound note = ImitationRenderer.side(Renderer.asFitted(recipe, 0.1, 1.1, FS), Progress.NONE);
        Random r = new Random(seed);
        ResonatorRecipe at = recipe;
        for (String id : List.of("mode.2.t60", "mode.3.level", "noise.level", "mode.1.ratio")) {
            Parameter p = at.setting(id).parameter().around(at.value(id));
            at = at.with(id, p.at(p.position(at.value(id)) + (r.nextBoolean() ? 0.1 : -0.1)));
        }
        double total = ImitationRenderer.predict(note, at).totalJnd();
        double first = total;
        for (int step = 0; step < 6; step++) {
            List<Move> moves = NextMoves.of(note, at, ImitationRenderer.predict(note, at), Progress.NONE);
            if (moves.isEmpty()) {
                break;
            }
            assertThat(moves.get(0).why()).isNotBlank();
            at = at.with(moves.get(0).parameter().id(), moves.get(0).to());
            double now = ImitationRenderer.predict(note, at).totalJnd();
            assertThat(now).isLessThan(total).isCloseTo(moves.get(0).predictedJnd(), within(1e-6));
            total = now;
        }
        assertThat(total).isLessThan(0.5 * first);
    }

    @Test
    void tolerancesHoldTheValueAndEndWhereItIsHeard() {
        var spans = Tolerances.of(reference, recipe, Progress.NONE);
        assertThat(spans).doesNotContainKey("velocity.level").hasSize(6 + 2 + 12);
        spans.forEach((id, span) -> {
            assertThat(span.low()).as(id).isLessThanOrEqualTo(recipe.value(id));
            assertThat(span.high()).as(id).isGreaterThanOrEqualTo(recipe.value(id));
            assertThat(span.effect()).isNotNegative();
        });
        assertThat(spans.get("tune").high() - recipe.value("tune")).isCloseTo(5, within(0.3));
        assertThat(spans.get("mode.1.t60").high()).isCloseTo(1.2 * 1.4, within(0.05));
        assertThat(spans.get("mode.1.t60").low()).isCloseTo(1.2 * 0.75, within(0.05));
    }
}
