package nightreed.recipe.part;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import nightreed.recipe.FormantRecipe;
import nightreed.recipe.Recipe;
import nightreed.recipe.Recipes;
import nightreed.recipe.ValueDifferences;
import org.junit.jupiter.api.Test;

class LendingTest {
    @Test
    void partsThatBothCanHaveAreOfferedAndTakenOver() {
        Recipe brass = Recipes.brass();
        Recipe bell = Recipes.fm();
        assertThat(Lending.possible((Record) bell, (Record) brass))
                .extracting(Lending.Lent::path)
                .contains("common.first", "common.effects", "common.effects.reverb", "common.routes")
                .doesNotContain("filter", "pairs");
        Recipe moved = (Recipe) Lending.lent((Record) bell, (Record) brass, "common.first");
        assertThat(moved.common().first()).isEqualTo(brass.common().first());
        assertThat(moved.withCommon(bell.common())).isEqualTo(bell);
        assertThat(ValueDifferences.of(bell, moved))
                .extracting(ValueDifferences.Difference::before)
                .contains("–");
        assertThatThrownBy(() -> Lending.lent((Record) bell, (Record) brass, "filter"))
                .isInstanceOf(IllegalArgumentException.class);
    }

    @Test
    void aBankOfBandsGoesOverAsAWhole() {
        FormantRecipe bank = Recipes.formant();
        FormantRecipe other = bank.withBands(bank.bands().subList(0, 1));
        FormantRecipe then = Lending.lent(other, bank, "bands");
        assertThat(then).isEqualTo(bank);
        assertThat(Lending.possible(bank, bank)).isEmpty();
    }
}
