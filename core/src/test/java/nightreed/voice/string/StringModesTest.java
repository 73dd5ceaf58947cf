package nightreed.voice.string;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Comparator;
import java.util.List;
import nightreed.match.compare.ImitationRenderer;
import nightreed.measure.partial.Partial;
import nightreed.music.Pitch;
import nightreed.recipe.LoopLoss;
import nightreed.recipe.LoopLoss.Kind;
import nightreed.recipe.SecondString;
import nightreed.recipe.StringRecipe;
import nightreed.recipe.StringRecipe.Drive;
import nightreed.recipe.part.Exciter;
import nightreed.sound.UnusableSound;
import nightreed.voice.Renderer;
import nightreed.voice.string.StringModes.Mode;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What is foretold of a string is what a measurement of its sound finds. */
class StringModesTest {
    private static final int FS = 48_000;

    private static StringRecipe string(Kind kind, double stiffness, SecondString second) {
        StringRecipe r = new StringRecipe(
                        57,
                        0,
                        -12,
                        Drive.PULSE,
                        new Exciter(0.2, 3, 15, 300, 5000),
                        new LoopLoss(kind, 2, 3000, 1.5),
                        0)
                .with("stiffness", stiffness);
        return second == null ? r : r.withSecond(second);
    }

    private static List<Partial> measured(StringRecipe r) throws UnusableSound {
        return ImitationRenderer.rendered(Renderer.asFitted(r, 0.1, 4, FS))
                .measurement()
                .reliablePartials();
    }

    private static List<Mode> foretold(StringRecipe r, SecondString second) {
        return StringModes.of(FS, Pitch.hz(r.key()), r.loss(), r.stiffness(), r.inverted(), second, 6000);
    }

    private static Partial near(List<Partial> partials, double hz) {
        return partials.stream()
                .min(Comparator.comparingDouble(p -> Math.abs(p.frequencyHz() - hz)))
                .orElseThrow();
    }

    @ParameterizedTest
    @CsvSource({"SHELVES, 0, 0", "ONE_POLE, 0.0003, 0", "AVERAGE, 0.00002, 0", "SHELVES, 0.0001, 1"})
    void partialsLieAndDieWhereTheLoopHasThem(Kind kind, double stiffness, double inverted) throws Exception {
        StringRecipe r = string(kind, stiffness, null).with("inverted", inverted);
        List<Partial> found = measured(r);
        List<Mode> modes = foretold(r, null);
        assertThat(modes).hasSizeGreaterThan(10);
        for (Mode m : modes.subList(0, 10)) {
            Partial p = near(found, m.hz());
            assertThat(Pitch.cents(m.hz(), p.frequencyHz())).isCloseTo(0, within(0.05));
            assertThat(p.t60Seconds() / m.t60Seconds()).isCloseTo(1, within(0.02));
        }
    }

    /** Of strings that agree, the coupling takes nothing from what they do against each other. */
    @ParameterizedTest
    @CsvSource({"3, 0.02", "0.8, 0.04", "-6, 0"})
    void twoStringsShareTheirPartialsAtTheBridge(double cents, double coupling) throws Exception {
        SecondString second = new SecondString(cents, coupling, -3);
        StringRecipe r = string(Kind.SHELVES, 0, second);
        List<Partial> found = measured(r);
        List<Mode> alone = foretold(r, new SecondString(cents, 0, -3));
        List<Mode> modes = foretold(r, second);
        int apart = 0;
        for (int i = 4; i < 16; i++) {
            Mode m = modes.get(i);
            Partial p = near(found, m.hz());
            if (Math.abs(Pitch.cents(m.hz(), p.frequencyHz())) < 0.2) {
                assertThat(p.t60Seconds() / m.t60Seconds()).as(m + " " + p).isCloseTo(1, within(0.1));
                apart++;
            }
            assertThat(m.t60Seconds()).isLessThanOrEqualTo(alone.get(i).t60Seconds() * 1.0001);
        }
        assertThat(apart).isGreaterThanOrEqualTo(8);
    }

    @Test
    void aStrikeCallsUpEachPartialAsLoudAsItsSpectrumSays() throws Exception {
        StringRecipe r = string(Kind.SHELVES, 0.00005, null).with("pluck", 0.13);
        List<Partial> found = measured(r);
        List<Mode> modes = foretold(r, null).subList(0, 12);
        StringStrike strike = new StringStrike(FS, Pitch.hz(57), modes, Renderer.CHANCE_OF_NOTE);
        double[] bare =
                strike.levels(r.drive(), r.exciter(), strike.white(r.exciter().noiseT60Ms()));
        double[] comb = strike.comb(r.pluckPoint());
        double first = near(found, modes.get(0).hz()).levelDb() - bare[0] - comb[0];
        for (int k = 1; k < modes.size(); k++) {
            double level = near(found, modes.get(k).hz()).levelDb();
            assertThat(level - bare[k] - comb[k] - first)
                    .as("partial " + (k + 1))
                    .isCloseTo(0, within(0.3));
        }
    }
}
