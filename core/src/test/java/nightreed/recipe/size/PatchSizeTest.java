package nightreed.recipe.size;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import nightreed.recipe.FirstRecipe;
import nightreed.recipe.FormantRecipe;
import nightreed.recipe.Mode;
import nightreed.recipe.RandomRecipes;
import nightreed.recipe.Recipe;
import nightreed.recipe.ResonatorRecipe;
import nightreed.recipe.SubtractiveRecipe;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.Exciter;
import nightreed.recipe.part.KeyTracking;
import nightreed.recipe.part.VelocityMap;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class PatchSizeTest {
    private static ResonatorRecipe modes(List<Mode> modes) {
        return new ResonatorRecipe(
                60, 0, -12, Exciter.USUAL, modes, new KeyTracking(0.7, 0.5), new VelocityMap(0.7, 24, 1), 10);
    }

    private static int of(List<Mode> modes) {
        return PatchSize.of(modes(modes));
    }

    @Test
    void whatFollowsNoLawCountsOneByOne() {
        List<Mode> free = List.of(
                new Mode(1, 0, 1.37, 0),
                new Mode(2.81, -3.1, 0.62, 0),
                new Mode(5.39, -11.4, 0.71, 0),
                new Mode(7.07, -9.2, 0.11, 0));
        assertThat(of(free)).isEqualTo(4 + 3 + 4); // a level of 0 dB needs no saying
    }

    @Test
    void aSeriesADecayLawAndASlopeCountAsTheirOwnValues() {
        List<Mode> string = new ArrayList<>();
        for (int n = 1; n <= 10; n++) {
            double ratio = n * Math.sqrt((1 + 4e-4 * n * n) / (1 + 4e-4));
            string.add(new Mode(ratio, -6 * Math.log(ratio) / Math.log(2) - 1, 2 * Math.pow(ratio, -0.7), 0));
        }
        ResonatorRecipe r = modes(string);
        assertThat(PatchSize.of(r)).isEqualTo(2 + 2 + 2); // body and stiffness, T60 and power, level and slope
        assertThat(PatchSize.of(r.with("mode.4.t60", 1.5))).isEqualTo(7);
        assertThat(PatchSize.of(r.with("mode.4.ratio", 4.3)))
                .isEqualTo(10); // itself, the gap that it leaves, and that its T60 and level are now off their laws
    }

    @Test
    void membersOfASeriesThatAreLeftOutHaveToBeSaid() {
        List<Mode> few = List.of(
                new Mode(1, -1.3, 1, 0), new Mode(2, -2.2, 1, 0), new Mode(7, -6.9, 1, 0), new Mode(8, -3.4, 1, 0));
        assertThat(of(few)).isEqualTo(1 + 1 + 4 + 1); // harmonic, the gap, levels, one T60 for all
    }

    @Test
    void bandsThatShareAnEnvelopeAndAreEvenlySpacedCountThemOnce() {
        FormantRecipe bank = (FormantRecipe) FirstRecipe.of("formant");
        Envelope shared = new Envelope(0, 0.02, 0, 0, 0.4, 1, 0.5, 0.2);
        FormantRecipe one = bank.withBands(
                bank.bands().stream().map(b -> b.withEnvelope(shared)).toList());
        FormantRecipe each = bank.withBands(bank.bands().stream()
                .map(b -> b.withEnvelope(shared.withDecaySeconds(b.centreHz() / 1000)))
                .toList());
        assertThat(PatchSize.of(each) - PatchSize.of(one))
                .isEqualTo(4 * (bank.bands().size() - 1)); // attack, decay, sustain and release of each
    }

    @Test
    void whatMakesNoDifferenceCountsNothing() {
        SubtractiveRecipe r = (SubtractiveRecipe) FirstRecipe.of("subtractive");
        int size = PatchSize.of(r);
        assertThat(PatchSize.of(r.with("level", -30).with("tune", 20))).isEqualTo(size);
        assertThat(PatchSize.of(r.with("velocity.level", 40))).isEqualTo(size); // belongs to the keyboard
        SubtractiveRecipe silent = r.withExciter(new Exciter(0.5, -100, 77, 333, 4444));
        assertThat(PatchSize.of(silent)).isEqualTo(PatchSize.of(r.withExciter(null)));
    }

    @Test
    void storedCoursesOfARecordingCountOneByOne() {
        FormantRecipe bank = (FormantRecipe) FirstRecipe.of("formant");
        FormantRecipe follows = bank.withBands(List.of(bank.bands().get(0).withPathDb(List.of(-3.0, -4.0, -9.0))));
        assertThat(PatchSize.followsRecording(follows)).isTrue();
        assertThat(PatchSize.followsRecording(bank)).isFalse();
        assertThat(PatchSize.of(follows)).isGreaterThanOrEqualTo(3);
    }

    /** Every value that is counted can be moved, moves what it says, and can be moved back. */
    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12})
    void countedValuesAreHandles(long seed) {
        Recipe r = RandomRecipes.next(new Random(seed));
        for (FreeValue v : FreeValues.of(r)) {
            double now = v.value(r);
            assertThat(v.ids()).as(v.id()).isNotEmpty();
            if (!v.isNumber()) {
                continue;
            }
            double half = v.parameter().at(v.parameter().position(now) > 0.5 ? 0.49 : 0.51);
            double other = v.parameter().decimals() == 0 ? Math.rint(half) : half;
            Recipe moved = attempt(v, r, other);
            if (moved != null) {
                assertThat(v.value(moved)).as(v.id()).isCloseTo(other, within(1e-6 + 1e-3 * Math.abs(other)));
            }
        }
    }

    private static Recipe attempt(FreeValue v, Recipe r, double value) {
        try {
            return v.with(r, value);
        } catch (IllegalArgumentException touches) { // such as a band that would pass its neighbour
            return null;
        }
    }

    @Test
    void aLawMovesAllThatFollowIt() {
        List<Mode> bar = new ArrayList<>();
        for (double ratio : new double[] {1, 2.756, 5.404, 8.933, 13.344}) {
            bar.add(new Mode(ratio, -ratio, 2 / ratio, 0));
        }
        ResonatorRecipe r = modes(bar);
        FreeValue power = FreeValues.of(r).stream()
                .filter(v -> v.id().equals("mode.t60.law"))
                .findFirst()
                .orElseThrow();
        assertThat(power.value(r)).isCloseTo(-1, within(1e-6));
        ResonatorRecipe even = (ResonatorRecipe) power.with(r, 0);
        assertThat(even.modes()).allSatisfy(m -> assertThat(m.t60Seconds()).isCloseTo(2, within(1e-6)));
    }

    @Test
    void valuesArePutOnALawByName() {
        List<Mode> rough = new ArrayList<>();
        Random random = new Random(5);
        for (int n = 1; n <= 8; n++) {
            rough.add(new Mode(
                    n * (1 + 1e-3 * random.nextGaussian()), -n, 2.0 / n * (1 + 0.05 * random.nextGaussian()), 0));
        }
        Recipe r = modes(rough);
        assertThat(PatchSize.of(r)).isGreaterThan(20);
        for (String title : List.of("ratios of a harmonic", "T60 by frequency")) {
            r = ListLaws.puts(r).stream()
                    .filter(p -> p.whole() && p.title().equals(title))
                    .findFirst()
                    .orElseThrow()
                    .on()
                    .apply(r);
        }
        assertThat(PatchSize.of(r)).isEqualTo(1 + 2 + 8); // body, T60 and power, levels
        assertThat(r.value("mode.3.t60")).isCloseTo(2.0 / 3, within(0.08));
    }
}
