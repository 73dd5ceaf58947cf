package nightreed.recipe;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import nightreed.recipe.part.Exciter;
import nightreed.recipe.part.KeyTracking;
import nightreed.recipe.part.Parameter;
import nightreed.recipe.part.VelocityMap;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;

/** The recipe's own promises; {@link #bar()} is the recipe that other tests play, too. */
public class RecipeTest {
    /** A plain slate-like bar on A3. */
    public static ResonatorRecipe bar() {
        return new ResonatorRecipe(
                57,
                -12,
                -12,
                new Exciter(0.8, -20, 15, 300, 6000),
                List.of(
                        new Mode(1, 0, 1.2, -1.5),
                        new Mode(2.756, -8, 0.8, 0.3),
                        new Mode(5.404, -15, 0.5, 2),
                        new Mode(8.933, -24, 0.3, -0.4)),
                new KeyTracking(0.7, 0.5),
                new VelocityMap(0.7, 24, 1.5),
                100);
    }

    static List<Recipe> all() {
        return Recipes.all();
    }

    @ParameterizedTest
    @MethodSource("all")
    void jsonGivesTheSameRecipeBack(Recipe r) throws Exception {
        assertThat(RecipeJson.parse(RecipeJson.text(r), "recipe.json")).isEqualTo(r);
    }

    @Test
    void theFirstSchemaIsStillRead() throws Exception {
        String first = RecipeJson.text(bar())
                .replace("recipe-3", "recipe-1")
                .replaceFirst(",\\s*\"floor\" : 0.0", "")
                .replaceFirst("(?s),\\s*\"body\" : \"MODES\"", "");
        assertThat(first).doesNotContain("floor");
        first = first.substring(0, first.indexOf(",\n  \"common\"")) + "\n}";
        assertThat(RecipeJson.parse(first, "old.json")).isEqualTo(bar());
    }

    @ParameterizedTest
    @MethodSource("all")
    void everyValueCanBeReadMovedAndPutBack(Recipe r) {
        List<String> ids = r.settings().stream().map(s -> s.parameter().id()).toList();
        assertThat(ids).doesNotHaveDuplicates();
        for (Recipe.Setting s : r.settings()) {
            Parameter p = s.parameter();
            if (p.id().endsWith(".target")) {
                continue; // what a route moves decides how far it may
            }
            double moved = p.at(Math.min(1, p.position(s.value()) + (p.law() == Parameter.Law.CHOICE ? 1 : 0.07)));
            moved = p.id().endsWith("copies") ? Math.rint(moved) : moved;
            Recipe there = r.with(p.id(), moved);
            assertThat(there.value(p.id())).as(p.id()).isCloseTo(moved, within(1e-9 * Math.abs(moved) + 1e-12));
            assertThat(there.with(p.id(), s.value())).as(p.id()).isEqualTo(r);
            assertThat(p.meaning()).endsWith(".");
            assertThat(p.meaning()).hasSizeGreaterThan(12);
            for (Recipe.Setting other : there.settings()) { // and nothing else has moved
                if (!other.parameter().id().equals(p.id())) {
                    assertThat(other.value())
                            .isEqualTo(r.value(other.parameter().id()));
                }
            }
        }
    }

    @Test
    void valuesBeyondTheRulerAreHeldAtItsEnd() {
        assertThat(bar().with("mode.1.t60", 1e9).value("mode.1.t60")).isEqualTo(30);
        assertThat(bar().with("noise.low", -5).value("noise.low")).isEqualTo(20);
    }

    @ParameterizedTest
    @ValueSource(strings = {"mode.9.t60", "mode.0.level", "mode.1.colour", "nonsense", "mode..t60"})
    void unknownValuesAreNamed(String id) {
        assertThatThrownBy(() -> bar().with(id, 1)).hasMessageContaining(id);
    }

    @Test
    void positionsAndValuesUndoEachOther() {
        for (Recipe.Setting s : bar().settings()) {
            double step = s.parameter().choices().isEmpty()
                    ? 0.125
                    : 1.0 / (s.parameter().choices().size() - 1);
            for (double p = 0; p <= 1; p += step) {
                assertThat(s.parameter().position(s.parameter().at(p))).isCloseTo(p, within(1e-9));
            }
        }
        Parameter ratio = bar().setting("mode.2.ratio").parameter().around(2.756);
        assertThat(ratio.most() / ratio.least()).isCloseTo(Math.pow(2, 1 / 6.0), within(1e-9));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "not json at all | is not JSON",
                "[] | is not a recipe.json",
                "{\"schema\":\"recipe-9\"} | not a recipe of schema",
                "{\"schema\":\"recipe-1\",\"method\":\"tea\"} | method 'tea'",
                "{\"schema\":\"recipe-1\",\"method\":\"resonators\"} | 'key' is missing",
                "{\"schema\":\"recipe-1\",\"method\":\"resonators\",\"key\":57.5} | 'key' must be a whole number, and is 57.5",
                "{\"schema\":\"recipe-3\",\"method\":\"resonators\",\"key\":\"57\"} | must be a whole number, and is \"57\"",
                "{\"schema\":\"recipe-3\",\"method\":\"fm\",\"pairs\":[{\"ratio\":1}]} | 'pairs[0].levelDb' is missing",
                "{\"schema\":\"recipe-3\",\"key\":1,\"key\":2} | a value twice (line 1, 'key')",
                "{\"schema\":\"recipe-3\"} {} | goes on after its end",
                "{\"schema\":\"patch-1\",\"layers\":[],\"mute\":true} | no value 'mute'",
                "{\"schema\":\"patch-1\",\"layers\":[{\"balanceDb\":\"loud\"}]} | 'layers[0].balanceDb' must be a number"
            })
    void badFilesAreExplained(String json, String why) {
        assertThatThrownBy(() -> RecipeJson.parsePatch(json, "mine.json"))
                .isInstanceOf(UnusableRecipe.class)
                .hasMessageContaining("mine.json")
                .hasMessageContaining(why);
    }

    @ParameterizedTest
    @CsvSource({"ratio, 0", "ratio, -3", "levelDb, 400", "t60Seconds, 0", "t60Seconds, 1e12", "contactMs, -1"})
    void absurdValuesInAFileAreRefused(String field, String value) {
        String json =
                RecipeJson.text(bar()).replaceFirst("\"" + field + "\" : [-0-9.]+", "\"" + field + "\" : " + value);
        assertThatThrownBy(() -> RecipeJson.parse(json, "mine.json"))
                .isInstanceOf(UnusableRecipe.class)
                .hasMessageContaining("must lie");
    }

    @Test
    void valuesThatAreNotNumbersAreRefusedEverywhere() {
        assertThatThrownBy(() -> new Mode(Double.NaN, 0, 1, 0)).hasMessageContaining("ratio");
        assertThatThrownBy(() -> new Mode(1, Double.NaN, 1, 0)).hasMessageContaining("level");
        assertThatThrownBy(() -> new Mode(1, 0, Double.NaN, 0)).hasMessageContaining("T60");
        assertThatThrownBy(() -> new Mode(1, 0, 1, Double.POSITIVE_INFINITY)).hasMessageContaining("phase");
        assertThatThrownBy(() -> new Exciter(Double.NaN, 0, 10, 100, 1000)).hasMessageContaining("contact");
        assertThatThrownBy(() -> bar().withModes(List.of())).hasMessageContaining("1 to 64 modes");
    }

    @Test
    void aRecipeMovedToAnotherKeyNameSoundsTheSame() {
        ResonatorRecipe near = bar().onKey(58);
        ResonatorRecipe far = bar().onKey(64);
        for (int i = 0; i < 4; i++) {
            double hz = bar().f0Hz() * bar().modes().get(i).ratio();
            assertThat(near.f0Hz() * near.modes().get(i).ratio()).isCloseTo(hz, within(1e-6 * hz));
            assertThat(far.f0Hz() * far.modes().get(i).ratio()).isCloseTo(hz, within(1e-6 * hz));
        }
        assertThat(far.key()).isEqualTo(64);
    }
}
