package nightreed.match.fit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import nightreed.match.Matcher;
import nightreed.match.Side;
import nightreed.measure.Measurement;
import nightreed.music.Pitch;
import nightreed.recipe.FmPair;
import nightreed.recipe.FmRecipe;
import nightreed.recipe.part.Common;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.VelocityMap;
import nightreed.voice.Renderer;
import org.junit.jupiter.api.Test;

class FmFaintTest {
    private static final Envelope LEVEL = Envelope.struck(0.001, 1.5, 0.3);
    private static final Envelope STILL = Envelope.held(0, 0.3);

    private static FmRecipe of(FmPair... pairs) {
        return new FmRecipe(69, 0, -14, List.of(pairs), null, 0.3, new VelocityMap(0.7, 24, 0), Common.NONE);
    }

    private static Measurement measured(FmRecipe recipe) throws Exception {
        Side side = Matcher.rendered(Renderer.asFitted(recipe, 0.1, 2, 48_000));
        return side.measurement();
    }

    @Test
    void aWeakSidebandGivesTheModulatorTheIndexAndHowItFalls() throws Exception {
        Envelope index = Envelope.struck(0, 1, 0.3);
        Measurement m = measured(of(FmPair.of(0, 1, 3.75, 0.03, LEVEL, index)));
        FmRecipe bare = of(FmPair.of(0, 1, 2, 0, LEVEL, STILL));
        List<FmRecipe> told = FmFaint.of(bare, m, List.of(4.75 * bare.f0Hz()));
        assertThat(told).anySatisfy(r -> {
            FmPair p = r.pairs().get(0);
            assertThat(p.carrierRatio()).isEqualTo(1);
            assertThat(p.modulatorRatio()).isCloseTo(3.75, within(0.002));
            assertThat(p.index()).isCloseTo(0.03, within(0.002));
            assertThat(p.bend().at(0.5, 1)).isCloseTo(index.at(0.5, 1), within(0.03));
            assertThat(p.amplitude()).isEqualTo(LEVEL);
        });
        assertThat(told).as("as a pair of its own, as loud").anySatisfy(r -> {
            assertThat(r.pairs()).hasSize(2);
            assertThat(r.pairs().get(1).levelDb()).isCloseTo(20 * Math.log10(0.015), within(0.5));
            assertThat(r.pairs().get(1).amplitude().at(0.5, 1)).isCloseTo(Math.pow(10, -3 * 0.5 / 0.6), within(0.01));
        });
    }

    @Test
    void aPairThatIsModulatedKeepsItsSidebandsAndThereAreNeverTooMany() throws Exception {
        FmPair bell = FmPair.of(0, 1, 3.75, 0.5, LEVEL, STILL);
        Measurement m = measured(of(bell));
        assertThat(FmFaint.of(of(bell, bell, bell), m, List.of(4.75 * of(bell).f0Hz())))
                .isEmpty();
        assertThat(FmFaint.of(of(bell), m, List.of(1234.5)))
                .as("of nothing that was measured")
                .isEmpty();
    }

    @Test
    void aPartialHigherThanAnyRatioReachesGivesNone() throws Exception {
        Measurement m = measured(of(FmPair.of(0, 1, 1, 0, LEVEL, STILL), FmPair.of(-30, 6, 1, 0, LEVEL, STILL)));
        double c1 = Pitch.hz(24);
        FmPair same = FmPair.of(0, 440 / c1, 1, 0, LEVEL, STILL);
        FmRecipe low = new FmRecipe(24, 0, -14, List.of(same), null, 0.3, new VelocityMap(0.7, 24, 0), Common.NONE);
        assertThat(6 * 440 / c1).isGreaterThan(60);
        assertThat(FmFaint.of(low, m, List.of(6 * 440.0))).isEmpty();
    }
}
