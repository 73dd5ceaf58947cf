package nightreed.machine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import nightreed.match.advice.LimitCosts;
import nightreed.match.advice.LimitCosts.Price;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.fit.FitOptions;
import nightreed.match.fit.Fits;
import nightreed.match.fit.Fitted;
import nightreed.match.method.Starts;
import nightreed.match.sound.AnalysedSound;
import nightreed.recipe.FmRecipe;
import nightreed.recipe.FormantRecipe;
import nightreed.recipe.Recipe;
import nightreed.recipe.ResonatorRecipe;
import nightreed.recipe.SubtractiveRecipe;
import nightreed.recipe.UnusableRecipe;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.Filter;
import nightreed.recipe.part.Oscillator.Wave;
import nightreed.recipe.part.ParameterAccess;
import nightreed.room.RecordingRoom;
import nightreed.work.Progress;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.FieldSource;

/** What a machine makes of recipes, and what its limits cost. */
class MachineTest {
    private static final String SMALL = """
            {"schema": "machine-1", "name": "Small", "resonators": 3, "bands": 6, "followers": false, "loops": 1,
             "oscillators": 2, "feedback": false, "waves": ["PULSE"], "unison": false, "filters": ["LOW"],
             "slopes": ["DB_6"], "envelopes": 2, "lfos": 0, "noise": false, "keyTracking": false}""";
    private static AnalysedSound bar;
    private static AnalysedSound horn;

    static final List<String> METHODS = Starts.METHODS;

    @BeforeAll
    static void record() throws Exception {
        bar = ImitationRenderer.side(
                RecordingRoom.record(RecordingRoom.instrument("slate-bars"), 62, 0.7, 4), Progress.NONE);
        horn = ImitationRenderer.side(
                RecordingRoom.record(RecordingRoom.instrument("ferry-horn"), 50, 0.7, 4), Progress.NONE);
    }

    private static long envelopes(Recipe r) {
        return ParameterAccess.parts((Record) r, Envelope.class).stream()
                .map(ParameterAccess.Found::part)
                .distinct()
                .count();
    }

    @ParameterizedTest
    @FieldSource("METHODS")
    void whateverAMachineIsGivenItCanPlayWhatItMakesOfIt(String method) throws Exception {
        Machine small = MachineJson.parse(SMALL, "small");
        for (AnalysedSound side : List.of(bar, horn)) {
            for (Recipe r : Starts.several(method, side, true, Progress.NONE)) {
                Recipe limited = small.limited(r);
                assertThat(small.missing(limited)).isEmpty();
                assertThat(small.limited(limited)).isEqualTo(limited);
                assertThat(envelopes(limited)).isLessThanOrEqualTo(2);
                assertThat(Machine.ANY.limited(r)).isSameAs(r);
                for (Feature f : small.missing(r)) {
                    assertThat(small.only(f).missing(r)).containsExactly(f);
                }
            }
        }
    }

    @Test
    void countsAndKindsAreKept() throws Exception {
        Machine small = MachineJson.parse(SMALL, "small");
        Recipe modes = Starts.of("resonators", bar).recipe();
        assertThat(((ResonatorRecipe) small.limited(modes)).modes()).hasSize(3);
        FmRecipe fm = (FmRecipe) small.limited(Starts.of("fm", bar).recipe());
        assertThat(fm.pairs()).hasSize(1);
        SubtractiveRecipe saw =
                (SubtractiveRecipe) Starts.of("subtractive", horn).recipe();
        SubtractiveRecipe pulse = (SubtractiveRecipe) small.limited(saw);
        assertThat(pulse.oscillators()).allMatch(o -> o.wave() == Wave.PULSE);
        assertThat(pulse.filter().slope()).isEqualTo(Filter.Slope.DB_6);
        assertThat(pulse.common().first()).isNull();
        assertThat(pulse.common().routes()).isEmpty();
        for (Recipe r : Starts.several("formant", horn, true, Progress.NONE)) {
            FormantRecipe bank = (FormantRecipe) small.limited(r);
            assertThat(bank.bands())
                    .hasSizeLessThanOrEqualTo(6)
                    .allMatch(b -> b.pathDb().isEmpty());
        }
    }

    @Test
    void aMethodThatItLacksIsNotTried() throws Exception {
        Machine m = MachineJson.parse(
                "{\"schema\": \"machine-1\", \"name\": \"Loop\", \"oscillators\": 0, \"resonators\": 0}", "loop");
        assertThat(METHODS.stream().filter(m::can)).containsExactly("string");
        assertThatThrownBy(() -> Fits.of(List.of("fm", "ring"), bar, FitOptions.USUAL.on(m), Progress.NONE))
                .hasMessageContaining("'Loop' can play none of these methods");
    }

    @Test
    void whatAMachineCannotPlayIsNotKeptWhenAFitGoesOnFromIt() throws Exception {
        Machine small = MachineJson.parse(SMALL, "small");
        Recipe saw = Starts.of("subtractive", horn).recipe();
        assertThat(small.missing(saw)).isNotEmpty();
        FitOptions onward = FitOptions.USUAL.from(saw, Set.of()).on(small).within(0.01); // no time to find another
        assertThat(small.missing(
                        Fits.of("subtractive", horn, onward, Progress.NONE).recipe()))
                .isEmpty();
    }

    @Test
    void aFitStaysWithinTheMachineAndEachLimitHasItsPrice() throws Exception {
        Machine two = MachineJson.parse(
                "{\"schema\": \"machine-1\", \"name\": \"Two\", \"resonators\": 2, \"keyTracking\": false}", "two");
        FitOptions plan = FitOptions.USUAL.on(two).trying(0.15);
        Fitted f = Fits.of("resonators", bar, plan, Progress.NONE);
        assertThat(((ResonatorRecipe) f.recipe()).modes()).hasSize(2);
        List<Price> prices = LimitCosts.of(bar, f, plan, Progress.NONE);
        assertThat(EnumSet.copyOf(prices.stream().map(Price::feature).toList()))
                .containsExactlyInAnyOrder(Feature.RESONATORS, Feature.KEY_TRACKING);
        assertThat(prices.get(0).feature()).isEqualTo(Feature.RESONATORS);
        assertThat(prices.get(0).jnd()).isGreaterThan(0.3);
        assertThat(prices.get(0).words()).startsWith("resonators: 2 costs ");
        assertThat(prices.get(1).words()).isEqualTo("no key tracking costs nothing on this note");
    }

    @Test
    void writtenAndReadAgainItIsTheSame() throws Exception {
        Machine small = MachineJson.parse(SMALL, "small");
        assertThat(MachineJson.parse(MachineJson.text(small), "again")).isEqualTo(small);
        assertThat(small.has(Feature.SLOPES)).isEqualTo("6 dB/oct");
        assertThat(small.has(Feature.NOISE)).isEqualTo("none");
        assertThat(small.has(Feature.MODULATION)).isEqualTo("any");
    }

    @ParameterizedTest
    @EnumSource(Feature.class)
    void oneLimitIsChangedAndTheOthersStay(Feature f) throws Exception {
        Machine small = MachineJson.parse(SMALL, "small");
        Object limit = f.isCounted() ? (Object) f.most() : f.kinds().isEmpty() ? true : Set.copyOf(f.kinds());
        Machine other = small.with(f, limit);
        for (Feature each : Feature.values()) {
            assertThat(other.limit(each)).isEqualTo(each == f ? limit : small.limit(each));
        }
        assertThat(other.with(f, small.limit(f))).isEqualTo(small);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "{}|is not the description of a machine",
                "{'schema': 'machine-1'}|a machine needs a name",
                "{'schema': 'machine-1', 'name': 'x', 'oscillators': -2}|'oscillators' must be 0 to 16, got -2",
                "{'schema': 'machine-1', 'name': 'x', 'oscillators': 'two'}|'oscillators' must be a whole number, and is \"two\"",
                "{'schema': 'machine-1', 'name': 'x', 'waves': []}|'waves' must name at least one",
                "{'schema': 'machine-1', 'name': 'x', 'waves': ['SQUARE']}|'waves[0]' must be one of",
                "{'schema': 'machine-1', 'name': 'x', 'buttons': 3}|there is no value 'buttons'",
                "machine|is not JSON"
            })
    void whatIsNoMachineIsToldSo(String json, String word) {
        assertThatThrownBy(() -> MachineJson.parse(json.replace('\'', '"'), "bad.json"))
                .isInstanceOf(UnusableRecipe.class)
                .hasMessageStartingWith("bad.json")
                .hasMessageContaining(word);
    }
}
