package nightreed.match.fit;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.sound.AnalysedSound;
import nightreed.recipe.FmPair;
import nightreed.recipe.FmRecipe;
import nightreed.recipe.Recipe;
import nightreed.recipe.RecipeTest;
import nightreed.recipe.part.Common;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.Exciter;
import nightreed.recipe.part.VelocityMap;
import nightreed.voice.Renderer;
import org.junit.jupiter.api.Test;

class OnsetVariantsTest {
    private static FmRecipe struck(double delay, double attack) {
        Envelope level = new Envelope(delay, attack, 0, 0, 1.2, 1, 0, 0.2);
        FmPair pair = FmPair.of(0, 1, 3.5, 0.8, level, new Envelope(0, 0.001, 0, 0, 0.6, 1, 0, 0.2));
        return new FmRecipe(
                69, 0, -9, List.of(pair), new Exciter(0.5, -6, 12, 800, 6000), 0, VelocityMap.USUAL, Common.NONE);
    }

    @Test
    void tonesMayComeLaterThanTheNoiseOfTheStrike() throws Exception {
        AnalysedSound side = ImitationRenderer.rendered(Renderer.asFitted(struck(0.011, 0.024), 0.1, 1.2, 48_000));
        OneNote note = new OneNote(new PerceptualResiduals(side, 0.5));
        Recipe early = struck(0, 0.012);
        double before = PerceptualResiduals.total(note.differences(early));
        double after = OnsetVariants.of(early).stream()
                .mapToDouble(r -> PerceptualResiduals.total(note.differences(r)))
                .min()
                .orElseThrow();
        assertThat(after).isLessThan(0.4 * before);
    }

    @Test
    void whatHasNoSuchRiseIsLeftAlone() {
        assertThat(OnsetVariants.of(RecipeTest.bar())).isEmpty();
        assertThat(OnsetVariants.of(struck(0, 0.01)))
                .doesNotContain(struck(0, 0.01))
                .doesNotHaveDuplicates();
    }
}
