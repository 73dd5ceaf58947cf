package nightreed.match.fit;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import nightreed.recipe.FmPair;
import nightreed.recipe.FmRecipe;
import nightreed.recipe.part.Common;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.VelocityMap;
import org.junit.jupiter.api.Test;

class RenderCostTest {
    private static final Envelope FALL = Envelope.struck(0.002, 1.5, 0.3);

    private static double of(FmPair... pairs) {
        return RenderCost.of(
                new FmRecipe(57, 0, -14, List.of(pairs), null, 0.3, VelocityMap.USUAL, Common.NONE), 2, 48_000);
    }

    @Test
    void whatIsComputedMoreOftenCostsMore() {
        FmPair plain = FmPair.of(0, 1, 1, 2, FALL, FALL);
        double one = of(plain);
        assertThat(of(plain, plain)).isGreaterThan(1.4 * one);
        FmPair silent = FmPair.of(-80, 1, 1, 2, FALL, FALL);
        assertThat(of(plain, silent)).as("a silent pair costs nothing").isEqualTo(one);
        FmPair far = FmPair.of(0, 1, 30, 20, FALL, FALL);
        assertThat(of(far)).as("sidebands far above the rate").isGreaterThan(3 * one);
        FmRecipe fed = new FmRecipe(57, 0, -14, List.of(plain), null, 0.3, VelocityMap.USUAL, Common.NONE);
        assertThat(RenderCost.of(fed.with("pair.1.feedback", 0.8), 2, 48_000))
                .as("feedback is computed at twice the rate")
                .isGreaterThan(1.4 * one);
    }
}
