package nightreed.recipe.part;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import nightreed.recipe.Recipe;
import nightreed.recipe.Recipes;
import nightreed.recipe.SubtractiveRecipe;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** Parts found and exchanged in whatever recipe, and macros made from two of them. */
class PartsTest {
    static List<Recipe> all() {
        return Recipes.all();
    }

    @ParameterizedTest
    @MethodSource("all")
    void everyEnvelopeIsFoundWhereItsValuesStand(Recipe r) {
        for (ParameterAccess.Found<Envelope> f : ParameterAccess.parts((Record) r, Envelope.class)) {
            assertThat(r.value(f.id() + ".attack")).isEqualTo(f.part().attackSeconds());
            assertThat(r.setting(f.id() + ".decay").parameter().id()).startsWith(f.id());
        }
    }

    @Test
    void aPartIsExchangedAndTheRestStays() {
        SubtractiveRecipe r = Recipes.brass();
        Envelope longer = Envelope.struck(0.5, 7, 1);
        Record changed = ParameterAccess.exchanged(r, r.amplitude(), longer);
        assertThat(((Recipe) changed).value("amp.decay")).isEqualTo(7);
        assertThat(ParameterAccess.exchanged(changed, longer, r.amplitude())).isEqualTo(r);
        assertThat(ParameterAccess.exchanged(r, Envelope.held(1, 1), longer))
                .as("not in it")
                .isSameAs(r);
    }

    @Test
    void aMacroGoesFromOneRecipeToAnother() {
        SubtractiveRecipe before = Recipes.brass();
        Recipe now =
                before.with("filter.cutoff", before.value("filter.cutoff") * 3).with("level", before.levelDb() - 9);
        Macro m = Macro.between("opened", before, (Record) now);
        assertThat(m.targets()).hasSize(2);
        Recipe with = now.withCommon(now.common().withMacros(List.of(m)));
        assertThat(with.played().value("level")).isCloseTo(now.value("level"), within(1e-9));
        String id = with.settings().stream()
                .map(v -> v.parameter())
                .filter(p -> p.name().equals("opened"))
                .findFirst()
                .orElseThrow()
                .id();
        Recipe back = with.with(id, 0).played();
        assertThat(back.value("level")).isCloseTo(before.levelDb(), within(1e-9));
        assertThat(back.value("filter.cutoff")).isCloseTo(before.value("filter.cutoff"), within(1e-6));
        double half = with.with(id, 0.5).played().value("filter.cutoff");
        assertThat(half / before.value("filter.cutoff")).as("by equal ratios").isCloseTo(Math.sqrt(3), within(1e-6));
        assertThat(Macro.between("none", before, before)).isNull();
    }
}
