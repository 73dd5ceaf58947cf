package nightreed.project;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import nightreed.match.compare.Comparison;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.sound.AnalysedSound;
import nightreed.recipe.RecipeTest;
import nightreed.recipe.ResonatorRecipe;
import nightreed.voice.Renderer;
import nightreed.work.Progress;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;

class TakePictureTest {
    private static AnalysedSound bar;

    @BeforeAll
    static void play() throws Exception {
        bar = ImitationRenderer.side(Renderer.asFitted(RecipeTest.bar(), 0.2, 2.2, 48_000), Progress.NONE);
    }

    @Test
    void aPerfectMatchStandsAsHighAsItHangs() {
        TakePicture p = TakePicture.of(ImitationRenderer.predict(bar, RecipeTest.bar()));
        assertThat(p.strokes()).isNotEmpty();
        double last = 0;
        for (TakePicture.Stroke s : p.strokes()) {
            assertThat(s.imitationDb()).isCloseTo(s.recordingDb(), within(0.5));
            assertThat(s.recordingDb()).isLessThanOrEqualTo(1e-9); // the strongest is the reference
            assertThat(s.jnd()).isLessThan(0.5);
            assertThat(s.hz()).isGreaterThan(last);
            last = s.hz();
        }
    }

    @Test
    void aPartialThatIsMissingHasNoLevelOnThatSide() {
        ResonatorRecipe r = RecipeTest.bar();
        Comparison c = ImitationRenderer.predict(
                bar, r.withModes(r.modes().subList(0, r.modes().size() - 1)));
        TakePicture p = TakePicture.of(c);
        double gone = r.modes().get(r.modes().size() - 1).ratio() * r.f0Hz();
        TakePicture.Stroke s = p.strokes().stream()
                .filter(q -> Math.abs(q.hz() - gone) < 2)
                .findFirst()
                .orElseThrow();
        assertThat(s.imitationDb()).isNull();
        assertThat(s.recordingDb()).isNotNull();
    }

    @Test
    void aBentPartialIsHeardInThePicture() {
        TakePicture p =
                TakePicture.of(ImitationRenderer.predict(bar, RecipeTest.bar().with("mode.1.level", -12)));
        assertThat(p.strokes()).anyMatch(s -> s.jnd() > 1);
    }
}
