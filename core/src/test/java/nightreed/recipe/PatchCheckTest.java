package nightreed.recipe;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import nightreed.recipe.part.Common;
import nightreed.recipe.part.Lfo;
import nightreed.recipe.part.Macro;
import nightreed.recipe.part.Route;
import org.junit.jupiter.api.Test;

class PatchCheckTest {
    private static List<String> texts(Recipe r) {
        return PatchCheck.of(r).stream().map(PatchCheck.Finding::text).toList();
    }

    @Test
    void aRecipeInOrderHasNoFindings() {
        assertThat(texts(RecipeTest.bar())).isEmpty();
        assertThat(texts(Recipes.fm())).isEmpty();
        assertThat(texts(Recipes.string())).isEmpty();
    }

    @Test
    void whatIsForgottenIsFound() {
        assertThat(texts(Recipes.brass().with("osc.2.level", -80))).anyMatch(t -> t.contains("Oscillator 2 is silent"));
        assertThat(texts(Recipes.fm().with("pair.2.level", -80))).anyMatch(t -> t.contains("Pair 2 is silent"));
        assertThat(texts(Recipes.ring().with("b.level", -80))).anyMatch(t -> t.contains("product is nothing"));
        Common forgotten = Common.NONE.withFirst(Lfo.USUAL);
        assertThat(texts(Recipes.fm().withCommon(forgotten))).anyMatch(t -> t.contains("first LFO moves nothing"));
        Common dangling = Common.NONE.withRoutes(List.of(new Route(Route.Source.LFO_2, Route.Target.PITCH, 10)));
        assertThat(texts(Recipes.fm().withCommon(dangling))).anyMatch(t -> t.contains("not there"));
        Common useless = Common.NONE
                .withFirst(Lfo.USUAL)
                .withRoutes(List.of(new Route(Route.Source.LFO_1, Route.Target.INDEX, 1)));
        assertThat(texts(Recipes.string().withCommon(useless))).anyMatch(t -> t.contains("does not have"));
        assertThat(texts(Recipes.fm().with("pan", -1))).anyMatch(t -> t.contains("Only the left side"));
        assertThat(texts(Recipes.fm().with("pair.1.carrierPhase", 1.5).with("pair.1.amp.attack", 0)))
                .anyMatch(t -> t.contains("clicks"));
        assertThat(texts(Recipes.string().with("drive", 0).with("noise.level", -100)))
                .anyMatch(t -> t.contains("noise is off"));
    }

    /** Each mend takes away the finding it belongs to, and nothing of what the recipe needs. */
    @Test
    void mendsMend() {
        Common forgotten = Common.NONE
                .withFirst(Lfo.USUAL)
                .withRoutes(List.of(new Route(Route.Source.LFO_2, Route.Target.PITCH, 10)));
        List<Recipe> amiss = List.of(
                Recipes.brass().with("osc.2.level", -80),
                Recipes.brass().with("filter.cutoff", 20).with("filter.envelope", 0),
                Recipes.fm().with("pair.2.level", -80),
                Recipes.fm().withCommon(forgotten),
                Recipes.fm().with("pan", -1),
                Recipes.fm().with("pair.1.carrierPhase", 1.5).with("pair.1.amp.attack", 0),
                Recipes.fm().withPart("reverb").with("reverb.mix", 0),
                Recipes.string().with("drive", 0).with("noise.level", -100),
                Recipes.formant().with("band.2.level", -80),
                Recipes.ring().with("b.level", -80));
        for (Recipe r : amiss) {
            List<PatchCheck.Finding> found = PatchCheck.of(r);
            assertThat(found).isNotEmpty();
            for (PatchCheck.Finding f : found) {
                if (f.mended() != null) {
                    assertThat(texts(f.mended())).as(f.text()).doesNotContain(f.text());
                }
            }
            assertThat(found).anyMatch(f -> f.mended() != null);
        }
    }

    @Test
    void whatStillMovesIsSaidAndCanBeStilled() {
        PatchCheck.Finding still = PatchCheck.of(Recipes.ring()).stream()
                .filter(f -> f.text().contains("Still moving"))
                .findFirst()
                .orElseThrow();
        assertThat(still.text()).contains("drift");
        assertThat(still.mended().value("drift.depth")).isZero();
    }

    @Test
    void aMacroSaysWhatItHolds() {
        Common held =
                Common.NONE.withMacros(List.of(new Macro("mist", 0.5, List.of(new Macro.Aim("level", -30, -6, 0)))));
        assertThat(texts(Recipes.fm().withCommon(held))).anyMatch(t -> t.contains("mist holds level"));
        Common idle = Common.NONE.withMacros(List.of(new Macro("fog", 0.5, List.of(new Macro.Aim("tea", 0, 1, 0)))));
        assertThat(texts(Recipes.fm().withCommon(idle))).anyMatch(t -> t.contains("fog moves nothing"));
    }

    @Test
    void layersComeBackFromTheirFile() throws Exception {
        Patch p = new Patch(
                List.of(new Layer(RecipeTest.bar(), -3, 12, 0, 60, 4), new Layer(Recipes.string(), 0, 0, 55, 127, 4)));
        assertThat(RecipeJson.parsePatch(RecipeJson.text(p), "layers.json")).isEqualTo(p);
        assertThat(RecipeJson.parsePatch(RecipeJson.text(Recipes.fm()), "one.json"))
                .isEqualTo(Patch.of(Recipes.fm()));
    }
}
