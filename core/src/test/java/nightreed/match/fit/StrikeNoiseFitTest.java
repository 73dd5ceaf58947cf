package nightreed.match.fit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.method.Starts;
import nightreed.match.sound.AnalysedSound;
import nightreed.recipe.FmPair;
import nightreed.recipe.FmRecipe;
import nightreed.recipe.Recipe;
import nightreed.recipe.part.Common;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.Exciter;
import nightreed.recipe.part.VelocityMap;
import nightreed.voice.Renderer;
import org.junit.jupiter.api.Test;

class StrikeNoiseFitTest {
    private static FmRecipe bell(Exciter noise) {
        FmPair tone = FmPair.of(0, 1, 1.4, 2, Envelope.struck(0.001, 3, 0.3), Envelope.struck(0, 2, 0.3));
        return new FmRecipe(60, 0, -14, List.of(tone), noise, 0.3, new VelocityMap(0.7, 24, 0), Common.NONE);
    }

    private static AnalysedSound recorded(Recipe r) throws Exception {
        return ImitationRenderer.rendered(Renderer.asFitted(r, 0.1, 2, 48_000));
    }

    @Test
    void noiseBesideAToneIsToldByLevelDecayAndBand() throws Exception {
        AnalysedSound side = recorded(bell(new Exciter(1, 2, 40, 2000, 6000)));
        Recipe found = StrikeNoiseFit.of(bell(new Exciter(1, -30, 200, 100, 800)), side);
        assertThat(found.value("noise.level")).isCloseTo(2, within(2.5));
        assertThat(found.value("noise.t60")).isBetween(30.0, 55.0);
        double centre = Math.sqrt(found.value("noise.low") * found.value("noise.high"));
        assertThat(centre).isBetween(2600.0, 4600.0);
    }

    @Test
    void whereThereIsNoneItIsOff() throws Exception {
        AnalysedSound side = recorded(bell(new Exciter(1, -100, 40, 2000, 6000)));
        Recipe found = StrikeNoiseFit.of(bell(new Exciter(1, 0, 60, 300, 3000)), side);
        assertThat(found.value("noise.level")).isLessThan(-30);
    }

    /** Measured as held, since its tone stays; its beginning is that of a struck note all the same. */
    @Test
    void aStruckNoteThatStaysHasTheNoiseOfItsStrike() throws Exception {
        Envelope stays = new Envelope(0, 0.001, 0, 0, 0.3, 1, 0.07, 0.1);
        FmPair tone = FmPair.of(0, 1, 1, 0, stays, Envelope.struck(0, 2, 0.3));
        Exciter noise = new Exciter(1, -4, 30, 2000, 6000);
        AnalysedSound side =
                recorded(new FmRecipe(69, 0, -14, List.of(tone), noise, 0.3, new VelocityMap(0.7, 24, 0), Common.NONE));
        assertThat(side.measurement().held()).isNotNull();
        Recipe found = StrikeNoiseFit.of(Starts.levelled(Starts.of("fm", side).recipe(), side), side);
        assertThat(found.value("noise.level") + found.levelDb()).isCloseTo(-18, within(3.0));
        assertThat(found.value("noise.t60")).isBetween(20.0, 45.0);
    }
}
