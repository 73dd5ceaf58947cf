package nightreed.match.start;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import nightreed.Tones;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.method.Starts;
import nightreed.match.sound.AnalysedSound;
import nightreed.recipe.FmPair;
import nightreed.recipe.FmRecipe;
import nightreed.recipe.FormantBand;
import nightreed.recipe.FormantRecipe;
import nightreed.recipe.LoopLoss;
import nightreed.recipe.PatchCheck;
import nightreed.recipe.Recipe;
import nightreed.recipe.RecipeTest;
import nightreed.recipe.RingRecipe;
import nightreed.recipe.StringRecipe;
import nightreed.recipe.SubtractiveRecipe;
import nightreed.recipe.part.Common;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.Filter;
import nightreed.recipe.part.Lfo;
import nightreed.recipe.part.Oscillator;
import nightreed.recipe.part.Oscillator.Wave;
import nightreed.recipe.part.Route;
import nightreed.recipe.part.VelocityMap;
import nightreed.sound.Clip;
import nightreed.voice.Renderer;
import nightreed.work.Progress;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.FieldSource;
import org.junit.jupiter.params.provider.ValueSource;

/** What is put into a sound comes out of its measurement as a starting value. */
class StartsTest {
    private static final int FS = 48_000;
    static final List<String> METHODS = Starts.METHODS;
    private static AnalysedSound bar;

    private static AnalysedSound recorded(Recipe r, double seconds) throws Exception {
        return ImitationRenderer.side(Renderer.asFitted(r, 0.2, seconds, FS), Progress.NONE);
    }

    @BeforeAll
    static void aBar() throws Exception {
        bar = recorded(RecipeTest.bar(), 2.2);
    }

    @ParameterizedTest
    @FieldSource("METHODS")
    void everyMethodStartsAsLoudAndInTune(String method) throws Exception {
        Start s = Starts.of(method, bar);
        assertThat(s.recipe().method()).isEqualTo(method);
        assertThat(s.recipe().key()).isEqualTo(57);
        assertThat(s.recipe().tuningCents()).isCloseTo(-12, within(1.0));
        assertThat(s.originOf("tune").measured()).isTrue();
        float[] x = bar.clip().channel(0);
        float[] y = Renderer.asFitted(s.recipe(), 0.2, 2.2, FS).channel(0);
        assertThat(Tones.rmsDb(y, 9600, 38_000) - Tones.rmsDb(x, 9600, 38_000))
                .as(method + " " + s.recipe().levelDb())
                .isCloseTo(0, within(1.5));
        assertThat(PatchCheck.of(s.recipe()).stream().map(PatchCheck.Finding::text))
                .noneMatch(t -> t.contains("No ") || t.contains("never"));
    }

    @Test
    void aModulationGivesItsPair() throws Exception {
        FmRecipe r = new FmRecipe(
                62,
                8,
                -9,
                List.of(FmPair.of(0, 1, 1.4, 3, Envelope.struck(0.001, 2.5, 0.3), Envelope.struck(0, 4, 0.3))),
                null,
                0.3,
                VelocityMap.USUAL,
                Common.NONE);
        Start s = Starts.of("fm", recorded(r, 2.5));
        FmPair p = ((FmRecipe) s.recipe()).pairs().get(0);
        double scale = s.recipe().f0Hz() / r.f0Hz();
        assertThat(p.carrierRatio() * scale).isCloseTo(1, within(0.002));
        assertThat(p.modulatorRatio() * scale).isCloseTo(1.4, within(0.003));
        assertThat(p.index()).isCloseTo(3, within(0.5));
    }

    @Test
    void aRingGivesItsInterval() throws Exception {
        RingRecipe r = new RingRecipe(
                60,
                0,
                -9,
                Oscillator.of(Wave.SINE, 1),
                Oscillator.of(Wave.SINE, 1.57),
                null,
                null,
                null,
                0,
                -6,
                1,
                0,
                0,
                Envelope.struck(0.002, 2, 0.3),
                null,
                VelocityMap.USUAL,
                Common.NONE);
        Start s = Starts.of("ring", recorded(r, 2.5));
        RingRecipe got = (RingRecipe) s.recipe();
        assertThat(got.interval(1)).isCloseTo(1.57, within(0.002));
        assertThat(got.f0Hz() * got.a().ratio()).isCloseTo(r.f0Hz(), within(0.5));
        assertThat(got.dryDb()).isCloseTo(-6, within(3.0));
    }

    @Test
    void aStringGivesItsDecaysStiffnessAndPluckPoint() throws Exception {
        LoopLoss law = new LoopLoss(LoopLoss.Kind.SHELVES, 5, 1800, 1.3);
        double f0 = 110.3;
        Tones.P[] partials = new Tones.P[24];
        for (int n = 1; n <= partials.length; n++) {
            double hz = n * f0 * Math.sqrt(1 + 1.5e-4 * n * n);
            double amplitude = 0.2 * Math.abs(Math.sin(Math.PI * n * 0.14)) / n;
            partials[n - 1] = new Tones.P(amplitude, hz, law.t60At(hz), 0.3 * n);
        }
        double[] x = Tones.noisy(Tones.struck(FS, 0.2, 3.5, partials), 1e-5, 4);
        Start s = Starts.of("string", ImitationRenderer.side(Clip.mono(x, FS), Progress.NONE));
        StringRecipe got = (StringRecipe) s.recipe();
        assertThat(got.stiffness()).isCloseTo(1.5e-4, within(3e-5));
        for (int n = 1; n <= 12; n++) {
            double hz = n * f0;
            assertThat(got.loss().t60At(hz) / law.t60At(hz)).as("partial " + n).isBetween(0.8, 1.25);
        }
        assertThat(got.pluckPoint()).isCloseTo(0.14, within(0.02));
        assertThat(got.drive()).isEqualTo(StringRecipe.Drive.PULSE);
    }

    @Test
    void twoStringsOutOfTuneAreReadOffTheirPairsOfPartials() throws Exception {
        double f0 = 146.8;
        double cents = -6.5;
        Tones.P[] partials = new Tones.P[20];
        for (int n = 1; n <= 10; n++) {
            double hz = n * f0;
            partials[2 * n - 2] = new Tones.P(0.2 / n, hz, 5, 0.3 * n);
            partials[2 * n - 1] = new Tones.P(0.1 / n, hz * Math.pow(2, cents / 1200), 5, 0.7 * n);
        }
        double[] x = Tones.noisy(Tones.struck(FS, 0.2, 4, partials), 1e-5, 4);
        StringRecipe got = (StringRecipe) Starts.of("string", ImitationRenderer.side(Clip.mono(x, FS), Progress.NONE))
                .recipe();
        assertThat(got.second()).isNotNull();
        assertThat(got.second().detuneCents()).isCloseTo(cents, within(0.5));
        assertThat(got.second().levelDb()).isCloseTo(-6, within(2.0));
    }

    @Test
    void aHeldNoteGivesWaveVibratoAndRise() throws Exception {
        SubtractiveRecipe r = held(Lfo.late(5.5, 0.4, 0.3), 25, null, 0);
        float[] y = new float[3 * FS];
        System.arraycopy(
                Renderer.played(nightreed.recipe.Patch.of(r), 57, 0.7, 2.4, 2.7, FS)
                        .channel(0),
                0,
                y,
                9600,
                (int) (2.7 * FS));
        Start s = Starts.of("subtractive", ImitationRenderer.side(Clip.mono(y, FS), Progress.NONE));
        SubtractiveRecipe got = (SubtractiveRecipe) s.recipe();
        assertThat(got.common().first().rate()).isCloseTo(5.5, within(0.15));
        assertThat(got.common().routes().get(0).depth()).isCloseTo(25, within(4.0));
        assertThat(got.oscillators().get(0).wave()).isIn(Wave.SAW, Wave.MEASURED);
        assertThat(got.amplitude().sustain()).isEqualTo(1);
        assertThat(got.amplitude().attackSeconds()).isBetween(0.04, 0.16);
    }

    @Test
    void bandsShareAFewCoursesAndFollowARecordingOnlyWhenAsked() throws Exception {
        FormantRecipe got = (FormantRecipe) Starts.of("formant", bar).recipe();
        assertThat(got.bands().size()).isBetween(8, 32);
        assertThat(got.bands()).allMatch(b -> b.pathDb().isEmpty() && b.envelope() != null);
        assertThat(got.bands().stream().map(FormantBand::envelope).distinct().count())
                .isBetween(1L, 3L);
        FormantRecipe follows = (FormantRecipe) Starts.following(bar);
        assertThat(follows.bands()).allMatch(b -> b.pathDb().size() > 50);
    }

    @Test
    void aToneThatComesAfterItsBreathIsWaitedFor() throws Exception {
        double[] x = Tones.noisy(new double[3 * FS], 0.001, 3);
        for (int i = 0; i < x.length - 4800; i++) {
            double t = i / (double) FS - 0.06;
            double level = Math.max(0, Math.min(1, t / 0.02)) * 0.1;
            for (int n = 1; n < 12; n++) {
                x[i + 4800] += level / n * Math.sin(2 * Math.PI * 220 * n * t);
            }
            x[i + 4800] += t > -0.06 ? 0.004 * Math.sin(2 * Math.PI * 220 * t) : 0;
        }
        AnalysedSound side = ImitationRenderer.side(Clip.mono(x, FS), Progress.NONE);
        SubtractiveRecipe got =
                (SubtractiveRecipe) Starts.of("subtractive", side).recipe();
        double begins = side.measurement().onsetSeconds() + got.amplitude().delaySeconds();
        assertThat(begins).isCloseTo(0.1 + 0.06, within(0.012));
        assertThat(got.amplitude().attackSeconds()).isBetween(0.008, 0.04);
    }

    @Test
    void whatGivesNothingIsExplained() throws Exception {
        AnalysedSound noise = ImitationRenderer.side(Clip.mono(Tones.noisy(new double[FS], 0.1, 3), FS), Progress.NONE);
        for (String method : METHODS) {
            if (!method.equals("formant")) {
                assertThatThrownBy(() -> Starts.of(method, noise)).as(method).hasMessageContaining("recording");
            }
        }
        FormantRecipe bands =
                (FormantRecipe) Starts.of("formant", noise).recipe(); // noise through bands needs no pitch
        assertThat(bands.source().silent()).isTrue();
        assertThat(bands.bands()).allMatch(b -> b.noiseShare() == 1);
        assertThatThrownBy(() -> Starts.of("tea", bar)).hasMessageContaining("resonators, fm");
    }

    private static SubtractiveRecipe held(Lfo first, double cents, Lfo second, double db) {
        List<Route> routes = new ArrayList<>();
        if (first != null) {
            routes.add(new Route(Route.Source.LFO_1, Route.Target.PITCH, cents));
        }
        if (second != null) {
            routes.add(new Route(Route.Source.LFO_2, Route.Target.LEVEL, db));
        }
        Common moving = new Common(
                120, 0, null, null, first, second, null, routes, Common.NONE.effects(), null, List.of(), null);
        return new SubtractiveRecipe(
                57,
                0,
                -12,
                List.of(Oscillator.of(Wave.SAW, 1)),
                null,
                null,
                null,
                Filter.lowPass(1800, 0.71),
                Envelope.held(0.08, 0.1),
                null,
                VelocityMap.USUAL,
                moving);
    }

    private static Lfo moving(Lfo.Shape shape, double hz, double degrees) {
        return new Lfo(shape, hz, Lfo.Per.SECOND, degrees, 0, 0, 0.5, 0, false, false, List.of());
    }

    private static Common startOf(Recipe r) throws Exception {
        AnalysedSound side = ImitationRenderer.rendered(Renderer.asFitted(r, 0.1, 2.5, 3, FS));
        return Starts.of("subtractive", side).recipe().common();
    }

    @Test
    void aSteadyLevelHasNoSteps() throws Exception {
        assertThat(startOf(held(moving(Lfo.Shape.SINE, 5.1, 0), 20, null, 0)).second())
                .isNull();
    }

    @ParameterizedTest
    @ValueSource(doubles = {0, 130, 250})
    void aSwingStartsWhereItDidInTheNote(double degrees) throws Exception {
        Common found = startOf(held(moving(Lfo.Shape.SINE, 5.1, degrees), 30, null, 0));
        double cycles = (found.first().startDegrees() - degrees) / 360;
        assertThat(cycles - Math.rint(cycles)).isCloseTo(0, within(0.06));
    }

    @ParameterizedTest
    @ValueSource(doubles = {1.2, -1.2})
    void aFilterThatMovesAgainstThePitchStillDoes(double octaves) throws Exception {
        SubtractiveRecipe still = held(moving(Lfo.Shape.SINE, 5.1, 0), 30, null, 0);
        List<Route> routes = new ArrayList<>(still.common().routes());
        routes.add(new Route(Route.Source.LFO_1, Route.Target.CUTOFF, octaves));
        Common found = startOf(still.withCommon(still.common().withRoutes(routes)));
        Route cutoff = found.routes().stream()
                .filter(r -> r.target() == Route.Target.CUTOFF)
                .findFirst()
                .orElseThrow();
        assertThat(cutoff.source()).isEqualTo(Route.Source.LFO_1);
        assertThat(cutoff.depth() * octaves).isPositive();
    }

    /** Whether a level swings by an LFO or by pairs that beat is left to the search. */
    @Test
    void modulatedPairsAreOfferedWithATremoloAndWithout() throws Exception {
        Lfo tremolo = moving(Lfo.Shape.SINE, 4.4, 90);
        Common swings = new Common(
                120,
                0,
                null,
                null,
                null,
                tremolo,
                null,
                List.of(new Route(Route.Source.LFO_2, Route.Target.LEVEL, 3)),
                Common.NONE.effects(),
                null,
                List.of(),
                null);
        FmPair pair = FmPair.of(0, 1, 1, 1.5, Envelope.held(0.08, 0.2), Envelope.held(0.08, 0.2));
        FmRecipe r = new FmRecipe(57, 0, -12, List.of(pair), null, 0, VelocityMap.USUAL, swings);
        AnalysedSound side = ImitationRenderer.rendered(Renderer.asFitted(r, 0.1, 2.2, 2.7, FS));
        List<Recipe> starts = Starts.several("fm", side, false, Progress.NONE);
        assertThat(starts).anyMatch(s -> s.common().routes().isEmpty());
        assertThat(starts)
                .flatExtracting(s -> s.common().routes())
                .anySatisfy(route -> assertThat(route.depth()).isCloseTo(3, within(0.5)));
        assertThat(Starts.of("fm", side).recipe().common().routes()).hasSize(1);
    }
}
