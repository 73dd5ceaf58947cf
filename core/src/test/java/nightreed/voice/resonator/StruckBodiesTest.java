package nightreed.voice.resonator;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import nightreed.Tones;
import nightreed.recipe.Mode;
import nightreed.recipe.RecipeTest;
import nightreed.recipe.ResonatorRecipe;
import nightreed.recipe.part.Exciter;
import nightreed.voice.Renderer;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What a strike makes of modes and combs. */
class StruckBodiesTest {
    private static final int FS = 48_000;

    /** Once round a low comb takes longer than the strike: it must still be there when it comes back. */
    @ParameterizedTest
    @ValueSource(ints = {21, 28, 40, 52, 57, 64})
    void combsRingInTheirTimeOnAnyKey(int key) {
        ResonatorRecipe combs = RecipeTest.bar()
                .withBody(ResonatorRecipe.Body.COMBS)
                .withModes(List.of(new Mode(1, 0, 1.2, 0)))
                .withExciter(new Exciter(0.8, -100, 15, 300, 6000))
                .withKey(key);
        float[] y = Renderer.asFitted(combs, 0, 1, FS).channel(0);
        double fall = Tones.rmsDb(y, FS / 5, FS / 2) - Tones.rmsDb(y, FS / 2, FS * 4 / 5);
        assertThat(60 * 0.3 / fall).isCloseTo(1.2, within(0.12));
    }

    /** A contact of many periods excites the body little, but what it excites is all that is heard of it. */
    @ParameterizedTest
    @ValueSource(doubles = {0.2, 2, 8, 20})
    void aLongContactGivesNoThump(double contactMs) {
        ResonatorRecipe bar = RecipeTest.bar()
                .withModes(List.of(new Mode(1, 0, 0.8, 0.4)))
                .withExciter(new Exciter(contactMs, -100, 15, 300, 6000))
                .withKey(76);
        float[] y = Renderer.asFitted(bar, 0, 0.5, FS).channel(0);
        float[] low = Tones.lowPassed(Tones.lowPassed(y, FS, 150), FS, 150);
        assertThat(peakDb(low) - peakDb(y)).isLessThan(-25);
        double level = Tones.amplitudeAt(y, FS, bar.f0Hz(), FS / 10, FS / 10);
        double decay = Math.pow(10, -3 * 0.15 / 0.8); // to the middle of that stretch
        assertThat(20 * Math.log10(level / decay)).isCloseTo(bar.levelDb(), within(0.5));
    }

    private static double peakDb(float[] x) {
        double most = 0;
        for (float v : x) {
            most = Math.max(most, Math.abs(v));
        }
        return 20 * Math.log10(most);
    }
}
