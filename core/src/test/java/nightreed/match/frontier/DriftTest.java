package nightreed.match.frontier;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.sound.AnalysedSound;
import nightreed.recipe.FirstRecipe;
import nightreed.recipe.Recipe;
import nightreed.recipe.SubtractiveRecipe;
import nightreed.recipe.part.Common;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.Filter;
import nightreed.recipe.part.Lfo;
import nightreed.recipe.part.Route;
import nightreed.recipe.part.Route.Source;
import nightreed.recipe.part.Route.Target;
import nightreed.voice.Renderer;
import nightreed.work.Progress;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What a held note does beside its recipe: slow swells that a fit has left over, and movement that it has dropped. */
class DriftTest {
    private static final int FS = 44_100;
    private static SubtractiveRecipe plain;

    @BeforeAll
    static void makeAPlainNote() {
        plain = ((SubtractiveRecipe) FirstRecipe.of("subtractive"))
                .withFilter(Filter.lowPass(1200, 0.71))
                .withAmplitude(Envelope.held(0.05, 0.2))
                .withCommon(Common.NONE);
    }

    private static Recipe with(Common c) {
        return plain.withCommon(c);
    }

    private static AnalysedSound heard(Recipe r) throws Exception {
        return ImitationRenderer.side(Renderer.asFitted(r, 0.1, 4, 4.5, FS), Progress.NONE);
    }

    @Test
    void aSwellOfTheLevelIsFoundAgain() throws Exception {
        Recipe swelling = with(Common.NONE
                .withEnvelope(new Envelope(0, 1.5, 0, 0, 3, 0, 0.5, 0.3))
                .withRoutes(List.of(new Route(Source.ENVELOPE, Target.LEVEL, 9))));
        AnalysedSound recording = heard(swelling);
        List<Recipe> found = Drift.added(recording, plain, ImitationRenderer.render(plain, recording));
        Route level = route(found, Target.LEVEL);
        assertThat(level.depth()).isCloseTo(9, within(2.0));
        Recipe best = found.stream()
                .filter(r -> r.common().routes().contains(level))
                .findFirst()
                .orElseThrow();
        assertThat(best.common().envelope().attackSeconds()).isEqualTo(1.5);
    }

    /** The centre of gravity of a spectrum moves less than the cutoff that moves it. */
    @ParameterizedTest
    @ValueSource(doubles = {1.5, -1.5})
    void aFilterThatOpensSlowlyIsToldFromOneThatCloses(double octaves) throws Exception {
        Recipe moving = with(Common.NONE
                .withEnvelope(new Envelope(0, 3, 0, 0, 3, 0, 1, 0.3))
                .withRoutes(List.of(new Route(Source.ENVELOPE, Target.CUTOFF, octaves))));
        AnalysedSound recording = heard(moving);
        List<Recipe> found = Drift.added(recording, plain, ImitationRenderer.render(plain, recording));
        double depth = route(found, Target.CUTOFF).depth();
        assertThat(Math.signum(depth)).isEqualTo(Math.signum(octaves));
        assertThat(Math.abs(depth)).isLessThan(1.5);
    }

    @Test
    void whatStaysAsItIsGetsNoSwell() throws Exception {
        AnalysedSound recording = heard(plain);
        assertThat(Drift.added(recording, plain, ImitationRenderer.render(plain, recording)))
                .isEmpty();
    }

    @Test
    void vibratoThatIsDroppedIsChargedAndKeptIsNot() throws Exception {
        Recipe moving =
                with(Common.NONE.withFirst(Lfo.USUAL).withRoutes(List.of(new Route(Source.LFO_1, Target.PITCH, 25))));
        Swing swing = new Swing(heard(moving));
        assertThat(swing.differenceJnd(plain)).isGreaterThan(3);
        assertThat(swing.differenceJnd(moving)).isLessThan(0.7);
        assertThat(swing.differenceJnd(with(moving.common()
                        .withFirst(
                                new Lfo(Lfo.Shape.SINE, 8, Lfo.Per.SECOND, 0, 0, 0, 0.5, 0, false, false, List.of())))))
                .isGreaterThan(3);
        assertThat(new Swing(heard(plain)).differenceJnd(plain)).isZero();
    }

    private static Route route(List<Recipe> found, Target target) {
        return found.stream()
                .flatMap(r -> r.common().routes().stream())
                .filter(r -> r.target() == target)
                .findFirst()
                .orElseThrow();
    }
}
