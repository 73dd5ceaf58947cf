package nightreed.match.start.fm;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.sound.AnalysedSound;
import nightreed.match.start.NonuniformStft;
import nightreed.recipe.FmPair;
import nightreed.recipe.FmRecipe;
import nightreed.recipe.part.Common;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.VelocityMap;
import nightreed.voice.Renderer;
import org.junit.jupiter.api.Test;

/** A walk from the seat beside the right one ends there; among all seats is one from which it comes home. */
class CarrierReassignmentTest {
    @Test
    void fromAWrongCarrierTheRightOneIsAmongTheSeats() throws Exception {
        Envelope amp = Envelope.struck(0.002, 4, 0.3);
        Envelope bend = Envelope.struck(0, 6, 0.3);
        FmPair right = FmPair.of(0, 0.5, 0.502, 4.2, amp, bend).withPhases(0.4, 1);
        FmRecipe recipe = new FmRecipe(60, 0, -14, List.of(right), null, 0, new VelocityMap(0.7, 24, 0), Common.NONE);
        AnalysedSound side = ImitationRenderer.rendered(Renderer.asFitted(recipe, 0.1, 3, 48_000));
        FmSpectralFit walk = new FmSpectralFit(NonuniformStft.of(side), recipe.f0Hz(), false, false);
        FmPair wrong = FmPair.of(-12, 1.002, 0.502, 3.6, amp, bend).withPhases(1.4, 1);
        double stuck = walk.misfit(walk.nearest(new FmModel(List.of(wrong), null), 20));
        double least = CarrierReassignment.of(new FmModel(List.of(wrong), null), 0)
                .filter(h -> Math.abs(h.pairs().get(0).carrierRatio() - 0.5) < 0.01)
                .mapToDouble(h -> walk.misfit(walk.nearest(h, 20)))
                .min()
                .orElseThrow();
        assertThat(least).isLessThan(0.005);
        assertThat(stuck).isGreaterThan(4 * least);
    }
}
