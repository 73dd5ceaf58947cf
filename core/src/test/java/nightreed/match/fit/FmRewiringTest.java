package nightreed.match.fit;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import nightreed.recipe.FmPair;
import nightreed.recipe.FmRecipe;
import nightreed.recipe.part.Common;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.VelocityMap;
import org.junit.jupiter.api.Test;

class FmRewiringTest {
    private static final Envelope FALL = Envelope.struck(0.002, 1.5, 0.3);

    private static FmRecipe of(FmPair... pairs) {
        return new FmRecipe(57, 0, -14, List.of(pairs), null, 0.3, VelocityMap.USUAL, Common.NONE);
    }

    /** Distance of the nearest line of first order to a frequency [in f0]. */
    private static double off(FmPair p, double at) {
        double near = Math.abs(p.carrierRatio() - at);
        for (int k : new int[] {-1, 1}) {
            near = Math.min(near, Math.abs(Math.abs(p.carrierRatio() + k * p.modulatorRatio()) - at));
        }
        return near;
    }

    @Test
    void aMissingPartialBecomesASidebandACarrierOrAnotherPair() {
        FmRecipe sine = of(FmPair.of(0, 1, 1, 0, FALL, FALL));
        double missing = 4.2 * sine.f0Hz();
        List<FmRecipe> others = FmRewiring.of(sine, List.of(missing));
        assertThat(others).doesNotContain(sine).doesNotHaveDuplicates();
        assertThat(others)
                .as("as a sideband, with an index at which it is heard")
                .anyMatch(r -> r.pairs().size() == 1
                        && r.pairs().get(0).carrierRatio() == 1
                        && r.pairs().get(0).index() > 0.2
                        && off(r.pairs().get(0), 4.2) < 1e-9)
                .as("as the carrier")
                .anyMatch(r -> Math.abs(r.pairs().get(0).carrierRatio() - 4.2) < 1e-9)
                .as("as a pair of its own, which leaves the first alone")
                .anyMatch(r -> r.pairs().size() == 2
                        && r.pairs().get(0).equals(sine.pairs().get(0))
                        && Math.abs(r.pairs().get(1).carrierRatio() - 4.2) < 1e-9);
    }

    @Test
    void thereAreNeverMorePairsThanARecipeMayHave() {
        FmPair p = FmPair.of(0, 1, 1, 2, FALL, FALL);
        List<FmRecipe> others = FmRewiring.of(of(p, p, p), List.of(1234.5, 0.5, 90_000.0));
        assertThat(others).isNotEmpty().allMatch(r -> r.pairs().size() == 3);
        assertThat(others)
                .allSatisfy(r -> assertThat(FmRewiring.changed(of(p, p, p), r)).matches("pair\\.[123]\\."));
    }

    @Test
    void aCarrierChangesPlacesWithItsSidebands() {
        FmRecipe bell = of(FmPair.of(0, 3, 1.4, 2, FALL, FALL));
        assertThat(FmRewiring.of(bell, List.of()))
                .anyMatch(r -> Math.abs(r.pairs().get(0).carrierRatio() - 1.6) < 1e-9
                        && r.pairs().get(0).modulatorRatio() == 1.4);
    }
}
