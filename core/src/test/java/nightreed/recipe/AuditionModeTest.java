package nightreed.recipe;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import nightreed.Tones;
import nightreed.recipe.AuditionMode.Element;
import nightreed.recipe.AuditionMode.Way;
import nightreed.voice.Renderer;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

class AuditionModeTest {
    static List<Recipe> all() {
        return Recipes.all();
    }

    @ParameterizedTest
    @MethodSource("all")
    void everyElementCanBeLeftOutHeardAloneAndExaggerated(Recipe r) {
        List<Element> elements = AuditionMode.elements(r);
        assertThat(elements).isNotEmpty();
        float[] whole = play(r);
        for (Element e : elements) {
            Recipe without = new AuditionMode(e, Way.WITHOUT).of(r);
            assertThat(without).as("without " + e.name()).isNotEqualTo(r);
            assertThat(AuditionMode.elements(without)).as("without " + e.name()).doesNotContain(e);
            Recipe alone = new AuditionMode(e, Way.ALONE).of(r);
            assertThat(AuditionMode.elements(alone).stream().filter(o -> o.source() == e.source()))
                    .as("only " + e.name())
                    .containsExactly(e);
            if (e.source() && elements.stream().filter(Element::source).count() > 1) {
                assertThat(play(without)).as("without " + e.name()).isNotEqualTo(whole);
            }
        }
        assertThat(Tones.rmsDb(whole, 0, whole.length)).isGreaterThan(-70);
    }

    private static float[] play(Recipe r) {
        return Renderer.asFitted(r, 0, 0.3, 48_000).channel(0);
    }
}
