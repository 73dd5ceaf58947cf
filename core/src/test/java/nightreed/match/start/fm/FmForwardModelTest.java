package nightreed.match.start.fm;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.sound.AnalysedSound;
import nightreed.match.start.NonuniformStft;
import nightreed.match.start.fm.FmForwardModel.Placed;
import nightreed.recipe.FmPair;
import nightreed.recipe.FmRecipe;
import nightreed.recipe.part.Common;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.VelocityMap;
import nightreed.voice.Renderer;
import org.junit.jupiter.api.Test;

/** What is told of pairs beside what the voice plays of them. */
class FmForwardModelTest {
    private static final int FS = 48_000;
    private static final int KEY = 60;

    private static FmRecipe recipe(FmPair... pairs) {
        return new FmRecipe(KEY, 0, -14, List.of(pairs), null, 0, new VelocityMap(0.7, 24, 0), Common.NONE);
    }

    /** How much of the frames a recipe's own pairs leave over, as loud as they come nearest. */
    private static double misfit(FmRecipe recipe) throws Exception {
        AnalysedSound side = ImitationRenderer.rendered(Renderer.asFitted(recipe, 0.1, 3, FS));
        FmSpectralFit walk = new FmSpectralFit(NonuniformStft.of(side), recipe.f0Hz(), true, false);
        double least = 1;
        for (double db = -30; db <= 0; db += 0.25) {
            List<FmPair> pairs = new ArrayList<>();
            for (FmPair p : recipe.pairs()) {
                pairs.add(louder(p, db));
            }
            least = Math.min(least, walk.misfit(new FmModel(pairs, null)));
        }
        return least;
    }

    private static FmPair louder(FmPair p, double db) {
        return FmPair.of(p.levelDb() + db, p.carrierRatio(), p.modulatorRatio(), p.index(), p.amplitude(), p.bend())
                .withPhases(p.carrierPhaseRad(), p.modulatorPhaseRad());
    }

    /** A carrier at its modulator: half of the lines fold over, and one stands still and is not heard. */
    @Test
    void foldedLinesAreAsLoudAsTheVoicePlaysThem() throws Exception {
        Envelope slow = Envelope.struck(0.001, 4, 0.3);
        FmPair pair =
                FmPair.of(0, 0.5, 0.502, 4.6, slow, Envelope.struck(0, 8, 0.3)).withPhases(0.7, -1.1);
        assertThat(misfit(recipe(pair))).isLessThan(0.004);
    }

    /** Within a frame the level rises, and falls by more than 12 dB: its lines have skirts that steady ones have not. */
    @Test
    void skirtsOfWhatRisesAndFallsFastAreTold() throws Exception {
        FmPair pair = FmPair.of(0, 2, 5.2, 0.8, Envelope.struck(0.004, 0.4, 0.1), Envelope.struck(0, 0.3, 0.1));
        assertThat(misfit(recipe(pair))).isLessThan(0.01);
    }

    @Test
    void slopesAreWhatASmallStepChanges() throws Exception {
        FmPair pair = FmPair.of(0, 1.01, 0.99, 2.2, Envelope.struck(0.01, 2, 0.3), Envelope.struck(0.002, 1, 0.3))
                .withPhases(0.3, 2);
        FmRecipe recipe = recipe(pair);
        NonuniformStft frames = NonuniformStft.of(ImitationRenderer.rendered(Renderer.asFitted(recipe, 0.1, 3, FS)));
        FmForwardModel lines = new FmForwardModel(frames, new FrameBins(frames, 0), recipe.f0Hz());
        Placed placed = lines.placed(pair, lines.shape(pair));
        double small = 1e-6;
        List<FmPair> near = List.of(
                FmPair.of(0, 1.01 + small, 0.99, 2.2, pair.amplitude(), pair.bend())
                        .withPhases(0.3, 2),
                FmPair.of(0, 1.01, 0.99, 2.2 + small, pair.amplitude(), pair.bend())
                        .withPhases(0.3, 2),
                FmPair.of(0, 1.01, 0.99, 2.2, Envelope.struck(0.01 + small, 2, 0.3), pair.bend())
                        .withPhases(0.3, 2),
                FmPair.of(0, 1.01, 0.99, 2.2, pair.amplitude(), pair.bend()).withPhases(0.3, 2 + small));
        for (FmPair other : near) {
            double[][] told = placed.change(other);
            double[][] is = lines.placed(other, lines.shape(other)).value();
            for (int f = 0; f < told.length; f += 5) {
                double most = 0;
                for (double v : told[f]) {
                    most = Math.max(most, Math.abs(v));
                }
                for (int i = 0; i < told[f].length; i++) {
                    assertThat(is[f][i] - placed.value()[f][i])
                            .as("frame %d, value %d of %s", f, i, other)
                            .isCloseTo(told[f][i], within(0.02 * most + 1e-15));
                }
            }
        }
    }
}
