package nightreed.match.start;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import nightreed.match.Matcher;
import nightreed.match.Side;
import nightreed.match.start.Ground.Line;
import nightreed.recipe.FmPair;
import nightreed.recipe.FmRecipe;
import nightreed.recipe.part.Common;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.Lfo;
import nightreed.recipe.part.Route;
import nightreed.recipe.part.Route.Source;
import nightreed.recipe.part.Route.Target;
import nightreed.recipe.part.VelocityMap;
import nightreed.voice.Renderer;
import org.junit.jupiter.api.Test;

/** A held note of a modulation off its pitch, with a vibrato. */
class SteadyLinesTest {
    private static final FmRecipe BOWED = bowed();

    private static FmRecipe bowed() {
        Envelope held = Envelope.held(0.05, 0.1);
        Common vibrato = Common.NONE
                .withFirst(Lfo.late(6, 0.3, 0.2))
                .withRoutes(List.of(new Route(Source.LFO_1, Target.PITCH, 70)));
        List<FmPair> pairs = List.of(FmPair.of(-6, 5.05, 0.992, 5, held, held));
        return new FmRecipe(57, 0, -14, pairs, null, 0, new VelocityMap(0.7, 24, 0), vibrato);
    }

    @Test
    void sidebandsAreFoundWhereTheyLieUnderAVibrato() throws Exception {
        Side side = Matcher.rendered(Renderer.asFitted(BOWED, 0.1, 2.4, 3, 48_000));
        assertThat(side.measurement().held().vibrato().depth()).isCloseTo(70, within(0.7));

        List<Line> lines = SteadyLines.of(SteadySpectrum.of(side, new Ground(side).movementWithoutTremolo()));

        for (double ratio : new double[] {5.05, 5.05 - 0.992, 5.05 - 2 * 0.992, 6 * 0.992 - 5.05}) {
            double hz = ratio * BOWED.f0Hz();
            assertThat(lines).anySatisfy(l -> assertThat(l.hz()).isCloseTo(hz, within(0.5)));
        }
    }

    @Test
    void aNoteShorterThanAWindowHasNone() throws Exception {
        Side side = Matcher.rendered(Renderer.asFitted(BOWED, 0.05, 0.2, 0.35, 48_000));
        assertThat(SteadyLines.of(SteadySpectrum.of(side, Common.NONE))).isEmpty();
    }

    /** Soft lines a few hertz off are enough, and single hertz, as of lines not quite told, are not. */
    @Test
    void linesOffTheMultiplesOfAPitchAreToldFromHarmonics() {
        Line first = new Line(200.4, 1, null, null, 0);
        Line second = new Line(399.2, 0.5, null, null, 0);
        Line soft = new Line(604, 0.1, null, null, 0);
        assertThat(SteadyLines.areBesideHarmonics(List.of(first, second), 200)).isFalse();
        assertThat(SteadyLines.areBesideHarmonics(List.of(first, second, soft), 200))
                .isTrue();
        assertThat(SteadyLines.areBesideHarmonics(List.of(), 200)).isFalse();
    }
}
