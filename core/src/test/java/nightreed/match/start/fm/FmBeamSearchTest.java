package nightreed.match.start.fm;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Comparator;
import java.util.List;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.sound.AnalysedSound;
import nightreed.match.start.StartContext;
import nightreed.match.start.fm.FmBeamSearch.Found;
import nightreed.music.Pitch;
import nightreed.recipe.FmPair;
import nightreed.recipe.FmRecipe;
import nightreed.recipe.part.Common;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.Exciter;
import nightreed.recipe.part.VelocityMap;
import nightreed.voice.Renderer;
import org.junit.jupiter.api.Test;

/** Several pairs at once out of sounds in which they are known. */
class FmBeamSearchTest {
    private static final int FS = 48_000;
    private static final int KEY = 60;

    private static AnalysedSound sound(Exciter noise, FmPair... pairs) throws Exception {
        FmRecipe r = new FmRecipe(KEY, 0, -14, List.of(pairs), noise, 0.3, new VelocityMap(0.7, 24, 0), Common.NONE);
        return ImitationRenderer.rendered(Renderer.asFitted(r, 0.1, 3, FS));
    }

    private static List<FmPair> found(AnalysedSound side) throws Exception {
        Found f = new FmBeamSearch(new StartContext(side)).found().get(0);
        assertThat(f.misfit()).isLessThan(0.1); // noise is told by what is to be expected of it
        return f.model().pairs().stream()
                .sorted(Comparator.comparingDouble(p -> -p.levelDb()))
                .toList();
    }

    /** Of frequencies, relative to the key that was played. */
    private static double ratio(AnalysedSound side, double found) {
        return found * side.measurement().f0Hz() / Pitch.hz(KEY);
    }

    @Test
    void threePairsOfWhichTwoAreSinesAreTold() throws Exception {
        AnalysedSound side = sound(
                null,
                FmPair.of(0, 0.583, 2.515, 2.15, Envelope.struck(0.002, 5, 0.3), Envelope.struck(0, 9, 0.3))
                        .withPhases(2, -2.7),
                FmPair.of(-8, 6.927, 1, 0, Envelope.struck(0.001, 3.4, 0.3), Envelope.struck(0, 1, 0.3)),
                FmPair.of(-11, 8.518, 1, 0, Envelope.struck(0.001, 3.9, 0.3), Envelope.struck(0, 1, 0.3)));
        List<FmPair> pairs = found(side);
        assertThat(pairs).hasSize(3);
        assertThat(ratio(side, pairs.get(0).carrierRatio())).isCloseTo(0.583, within(0.002));
        assertThat(ratio(side, pairs.get(0).modulatorRatio())).isCloseTo(2.515, within(0.002));
        assertThat(pairs.get(0).index() * pairs.get(0).bend().at(0.1, 1))
                .isCloseTo(2.15 * Math.pow(10, -3 * 0.1 / 9), within(0.05));
        assertThat(ratio(side, pairs.get(1).carrierRatio())).isCloseTo(6.927, within(0.004));
        assertThat(ratio(side, pairs.get(2).carrierRatio())).isCloseTo(8.518, within(0.004));
        assertThat(pairs.get(2).index()).isLessThan(0.05);
    }

    /** Lines fold so close to others that they beat, and the noise of the strike lies over the first of it. */
    @Test
    void aPairWhoseFoldedLinesBeatIsToldUnderTheNoiseOfAStrike() throws Exception {
        AnalysedSound side = sound(
                new Exciter(1, 4, 40, 200, 1500),
                FmPair.of(0, 0.999, 1.008, 3.2, Envelope.struck(0.02, 4, 0.3), Envelope.struck(0, 12, 0.3))
                        .withPhases(1.2, 0.4));
        FmPair pair = found(side).get(0);
        assertThat(ratio(side, pair.modulatorRatio())).isCloseTo(1.008, within(0.001));
        double index = pair.index() * pair.bend().at(0.5, 1);
        assertThat(index).isCloseTo(3.2 * Math.pow(10, -3 * 0.5 / 12), within(0.15));
    }
}
