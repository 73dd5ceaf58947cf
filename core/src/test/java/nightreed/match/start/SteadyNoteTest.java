package nightreed.match.start;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.sound.AnalysedSound;
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

class SteadyNoteTest {
    private static final int FS = 48_000;
    private static final double SECONDS = 2.0;

    /** A sine whose pitch and level swing is a plain sine again: all of its power lies at its frequency. */
    @Test
    void whatSwingsStandsStill() throws Exception {
        Common swings = new Common(
                120,
                0,
                null,
                null,
                Lfo.late(6, 0.3, 0.4),
                Lfo.late(4.3, 0, 0),
                null,
                List.of(new Route(Source.LFO_1, Target.PITCH, 100), new Route(Source.LFO_2, Target.LEVEL, 5)),
                Common.NONE.effects(),
                null,
                List.of(),
                null);
        FmPair sine = FmPair.of(0, 1, 1, 0, Envelope.held(0.002, 0.1), Envelope.held(0, 0.1));
        FmRecipe r = new FmRecipe(69, 0, -12, List.of(sine), null, 0, VelocityMap.USUAL, swings);
        AnalysedSound side = ImitationRenderer.rendered(Renderer.asFitted(r, 0.1, 2.4, 2.6, FS));
        double[] as = SteadyNote.samples(side, Common.NONE);
        double[] still = SteadyNote.samples(side, swings);
        assertThat(shareAt(440, as)).isLessThan(0.3);
        assertThat(shareAt(440, still)).isCloseTo(1, within(0.01));
    }

    /** Share of the power that a line has from 0.05 s on. */
    private static double shareAt(double hz, double[] x) {
        double re = 0;
        double im = 0;
        double power = 0;
        int from = (int) (0.05 * FS);
        int n = (int) (SECONDS * FS);
        for (int i = from; i < from + n; i++) {
            re += x[i] * Math.cos(2 * Math.PI * hz * i / FS);
            im += x[i] * Math.sin(2 * Math.PI * hz * i / FS);
            power += x[i] * x[i];
        }
        return 2 * (re * re + im * im) / n / power;
    }
}
