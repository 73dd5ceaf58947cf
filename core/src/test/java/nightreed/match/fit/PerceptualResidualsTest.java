package nightreed.match.fit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import nightreed.match.compare.Comparison;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.compare.PerceptualComparator;
import nightreed.match.sound.AnalysedSound;
import nightreed.recipe.FmPair;
import nightreed.recipe.FmRecipe;
import nightreed.recipe.Patch;
import nightreed.recipe.part.Common;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.Exciter;
import nightreed.recipe.part.VelocityMap;
import nightreed.voice.Renderer;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class PerceptualResidualsTest {
    /** Wherever the onset of what comes in slowly was put: a recipe is no different from its own sound. */
    @ParameterizedTest
    @ValueSource(doubles = {0.003, 0.2, 0.5})
    void aRecipeIsItselfHoweverSlowlyItComesIn(double attack) throws Exception {
        FmRecipe made = new FmRecipe(
                53,
                0,
                -14,
                List.of(FmPair.of(
                        0,
                        1.003,
                        0.9925,
                        2.5,
                        new Envelope(0, attack, 0, 0, 3, 1, 0, 0.2),
                        new Envelope(0, attack, 0, 0, 2, 1, 0, 0.2))),
                null,
                0.3,
                new VelocityMap(0.7, 24, 0),
                Common.NONE);
        AnalysedSound sound = ImitationRenderer.rendered(Renderer.asFitted(made, 0.1, 2.4, 48_000));
        OneNote note = new OneNote(new PerceptualResiduals(sound, 4));
        double self = PerceptualResiduals.total(note.differences(ImitationRenderer.asLoud(made, sound)));
        double other = PerceptualResiduals.total(note.differences(made.with("pair.1.index", 4)));
        assertThat(self).isLessThan(0.3);
        assertThat(other).isGreaterThan(1);
    }

    /** Of three sines the one that an imitation leaves out, and not those it has. */
    @Test
    void whatAnImitationLacksIsTold() throws Exception {
        Envelope fall = Envelope.struck(0.002, 1.5, 0.3);
        List<FmPair> sines = List.of(
                FmPair.of(0, 1, 1, 0, fall, fall),
                FmPair.of(-6, 2.76, 1, 0, fall, fall),
                FmPair.of(-9, 5.4, 1, 0, fall, fall));
        FmRecipe made = new FmRecipe(60, 0, -14, sines, null, 0.3, VelocityMap.USUAL, Common.NONE);
        PerceptualResiduals ear =
                new PerceptualResiduals(ImitationRenderer.rendered(Renderer.asFitted(made, 0.1, 1.2, 48_000)), 4);
        FmRecipe without = made.withPairs(List.of(sines.get(0), sines.get(2)));
        List<Double> lacking = ear.lacking(new OneNote(ear).differences(without));
        assertThat(lacking.get(0)).isCloseTo(2.76 * made.f0Hz(), within(0.5));
    }

    /** A sine 57 dB under another, far from it and from the noise of the strike: a comparison misses it, and so does a search. */
    @Test
    void aWeakPartialThatIsMissingIsHeard() throws Exception {
        Envelope fall = Envelope.struck(0.002, 0.5, 0.3);
        List<FmPair> both = List.of(FmPair.of(0, 1, 1, 0, fall, fall), FmPair.of(-57, 7.3, 1, 0, fall, fall));
        FmRecipe with =
                new FmRecipe(69, 0, -14, both, new Exciter(1, -20, 10, 200, 3000), 0.3, VelocityMap.USUAL, Common.NONE);
        FmRecipe without = with.withPairs(List.of(both.get(0)));
        AnalysedSound sound = ImitationRenderer.rendered(Renderer.asFitted(with, 0.1, 1.5, 48_000));
        Comparison heard = PerceptualComparator.compare(
                sound,
                ImitationRenderer.rendered(
                        ImitationRenderer.render(Patch.of(ImitationRenderer.asLoud(without, sound)), sound)));
        double quick = PerceptualResiduals.total(new OneNote(new PerceptualResiduals(sound, 4)).differences(without));
        assertThat(heard.totalJnd()).isGreaterThan(1);
        assertThat(quick).isGreaterThan(0.5 * heard.totalJnd());
    }
}
