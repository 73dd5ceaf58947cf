package nightreed.match.start.fm;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.sound.AnalysedSound;
import nightreed.match.start.EnvelopeFit;
import nightreed.match.start.NonuniformStft;
import nightreed.match.start.StartContext;
import nightreed.match.start.fm.FrameIndexSearch.Course;
import nightreed.music.Pitch;
import nightreed.recipe.FmPair;
import nightreed.recipe.FmRecipe;
import nightreed.recipe.part.Common;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.VelocityMap;
import nightreed.voice.Renderer;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Carrier, modulator and index out of a sound in which they are known. */
class FrameIndexSearchTest {
    private static final int FS = 48_000;
    private static final int KEY = 55;
    private static final Envelope BODY = Envelope.struck(0.001, 3, 0.3);

    private static AnalysedSound sound(FmPair... pairs) throws Exception {
        FmRecipe r = new FmRecipe(KEY, 0, -14, List.of(pairs), null, 0.3, new VelocityMap(0.7, 24, 0), Common.NONE);
        return ImitationRenderer.rendered(Renderer.asFitted(r, 0.1, 2.5, FS));
    }

    @ParameterizedTest
    @CsvSource({"1, 1.4, 2", "2.981, 0.987, 1.8", "3.5, 1, 4", "1.003, 0.9925, 1.4"})
    void aPairIsFoundWhereItIs(double carrier, double modulator, double index) throws Exception {
        AnalysedSound side = sound(FmPair.of(0, carrier, modulator, index, BODY, Envelope.struck(0, 2, 0.3)));
        StartContext g = new StartContext(side);
        Course c = new FrameIndexSearch(NonuniformStft.of(side))
                .pairs(g.lines(), g.f0(), 1)
                .get(0);
        double hz = Pitch.hz(KEY);
        assertThat(c.modulatorHz()).isCloseTo(modulator * hz, within(0.3));
        // sidebands that fold may be those of the mirrored carrier: the same lattice
        double up = Math.IEEEremainder(c.carrierHz() - carrier * hz, modulator * hz);
        double down = Math.IEEEremainder(c.carrierHz() + carrier * hz, modulator * hz);
        assertThat(Math.min(Math.abs(up), Math.abs(down))).isLessThan(0.5);
        double fallen = Math.pow(10, -3 * NonuniformStft.of(side).seconds()[0] / 2);
        assertThat(c.index()[0]).isCloseTo(index * fallen, within(0.15 * index));
    }

    @Test
    void aLineBesideAPairGetsOneOfItsOwn() throws Exception {
        AnalysedSound side = sound(
                FmPair.of(0, 1, 1.4, 1.5, BODY, Envelope.struck(0, 2, 0.3)),
                FmPair.of(-8, 5.13, 1, 0, Envelope.struck(0.001, 1, 0.3), BODY));
        FmRecipe start = FmStart.of(new StartContext(side));
        assertThat(start.pairs()).hasSizeBetween(2, 3);
        FmPair second = start.pairs().get(1);
        double hz = second.carrierRatio() * Pitch.hz(start.key()) * Math.pow(2, start.tuningCents() / 1200);
        assertThat(hz).isCloseTo(5.13 * Pitch.hz(KEY), within(2.0));
        assertThat(second.index()).isLessThan(0.5);
        assertThat(second.amplitude().at(0.5, 1)).isCloseTo(Math.pow(10, -1.5), within(0.02)); // T60 1 s
    }

    @Test
    void aCourseIsFittedWithItsTop() {
        Envelope e = new Envelope(0, 0.001, 0, 0, 0.6, 1, 0.3, 0.2);
        double[] t = new double[18];
        double[] v = new double[t.length];
        double[] w = new double[t.length];
        for (int i = 0; i < t.length; i++) {
            t[i] = 0.05 * Math.pow(1.25, i);
            v[i] = 1.4 * e.at(t[i], 1);
            w[i] = 1;
        }
        for (EnvelopeFit f : List.of(EnvelopeFit.of(t, v, w, 0.001, 0.2), EnvelopeFit.ofLevel(t, v, w, 0.001, 0.2))) {
            assertThat(f.top()).isCloseTo(1.4, within(0.15));
            for (int i = 0; i < t.length; i++) {
                assertThat(f.top() * f.envelope().at(t[i], 1)).isCloseTo(v[i], within(0.06));
            }
        }
    }
}
