package nightreed.voice.explain;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.util.List;
import nightreed.music.Pitch;
import nightreed.recipe.LoopLoss;
import nightreed.recipe.Recipe;
import nightreed.recipe.Recipes;
import nightreed.recipe.StringRecipe;
import nightreed.recipe.Unison;
import nightreed.recipe.part.Exciter;
import nightreed.voice.fm.Sidebands;
import nightreed.voice.string.LoopTable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

class ArithmeticTest {
    static List<Recipe> all() {
        return Recipes.all();
    }

    @ParameterizedTest
    @MethodSource("all")
    void everyRecipeHasItsTablesOnEveryKey(Recipe r) throws Exception {
        for (int key : new int[] {0, 24, 60, 96, 127}) {
            JsonNode o = new ObjectMapper().readTree(ArithmeticJson.text(r, key));
            assertThat(o.path("tables")).isNotEmpty();
            for (JsonNode t : o.path("tables")) {
                assertThat(t.path("columns").size()).isGreaterThan(1);
                for (JsonNode row : t.path("rows")) {
                    assertThat(row.size()).isEqualTo(t.path("columns").size());
                    row.forEach(v -> assertThat(v.isNull() || Double.isFinite(v.asDouble()))
                            .isTrue());
                }
            }
        }
    }

    @Test
    void anUncompensatedLoopIsOffAsTheBooksSay() {
        // a two-point average adds half a sample: C7 at 48 kHz is 42 cents flat when the delay is rounded
        StringRecipe r = new StringRecipe(
                96, 0, -6, StringRecipe.Drive.PULSE, Exciter.USUAL, new LoopLoss(LoopLoss.Kind.AVERAGE, 1, 5000, 2), 0);
        LoopTable t = LoopTable.of(r, 96, Pitch.hz(96), 48_000);
        assertThat(t.lossSamples()).isCloseTo(0.5, within(1e-9));
        assertThat(t.uncompensatedCents()).isCloseTo(-42, within(1.0));
        assertThat(t.errorCents()).isCloseTo(0, within(1e-3));
    }

    @Test
    void noiseGainsInALoop() {
        StringRecipe r = new StringRecipe(
                60,
                0,
                -6,
                StringRecipe.Drive.PULSE,
                Exciter.USUAL,
                new LoopLoss(LoopLoss.Kind.ONE_POLE, 2.63, 100_000, 2),
                0);
        LoopTable t = LoopTable.of(r, 60, Pitch.hz(60), 48_000);
        double g = t.partials().get(0).reachedGain();
        assertThat(g).isCloseTo(0.99, within(0.001));
        assertThat(t.noiseGainDb()).isCloseTo(17, within(0.5));
    }

    @Test
    void phasesDecideWhatIsLeftOfTheFundamental() {
        // 1:1 at index 2: -18 dB at one phase, -5 dB at another
        double one = Sidebands.lines(100, 100, 2, 0, 0, 1000).get(0).levelDb();
        double other = Sidebands.lines(100, 100, 2, 0, Math.PI / 2, 1000).get(0).levelDb();
        assertThat(Math.min(one, other)).isCloseTo(-18, within(0.6));
        assertThat(Math.max(one, other)).isCloseTo(-5, within(0.6));
    }

    @Test
    void unisonBeatsInProportionToTheHarmonic() {
        Table beats = Arithmetic.of(Recipes.brass().withUnison(new Unison(3, 20, true, 0)), 69).stream()
                .filter(t -> t.title().equals("beats"))
                .findFirst()
                .orElseThrow();
        double spread = 440 * (Math.pow(2, 10 / 1200.0) - Math.pow(2, -10 / 1200.0));
        assertThat(beats.rows().get(0).get(2)).isCloseTo(spread, within(0.01));
        assertThat(beats.rows().get(3).get(2)).isCloseTo(4 * spread, within(0.04));
    }
}
