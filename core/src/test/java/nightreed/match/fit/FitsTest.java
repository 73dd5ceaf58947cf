package nightreed.match.fit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Set;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicInteger;
import nightreed.machine.Machine;
import nightreed.machine.MachineJson;
import nightreed.match.advice.Adviser;
import nightreed.match.advice.Move;
import nightreed.match.advice.NextMoves;
import nightreed.match.advice.ResidualExplanation;
import nightreed.match.advice.Tolerances;
import nightreed.match.compare.Comparison;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.compare.PerceptualComparator;
import nightreed.match.method.MethodAdvice;
import nightreed.match.method.Starts;
import nightreed.match.sound.AnalysedSound;
import nightreed.recipe.FmPair;
import nightreed.recipe.FmRecipe;
import nightreed.recipe.LoopLoss;
import nightreed.recipe.Patch;
import nightreed.recipe.Recipe;
import nightreed.recipe.RecipeTest;
import nightreed.recipe.StringRecipe;
import nightreed.recipe.SubtractiveRecipe;
import nightreed.recipe.part.Common;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.Exciter;
import nightreed.recipe.part.Filter;
import nightreed.recipe.part.Oscillator;
import nightreed.recipe.part.Oscillator.Wave;
import nightreed.recipe.part.VelocityMap;
import nightreed.voice.Renderer;
import nightreed.work.Progress;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;

/** What a method made, the same method finds again; and what a fit, advice and a second layer promise, they keep. */
class FitsTest {
    private static final int FS = 48_000;
    private static AnalysedSound brass;
    private static Fitted fitted;

    private static AnalysedSound recorded(Recipe r, double held, double seconds) throws Exception {
        return ImitationRenderer.side(Renderer.asFitted(r, 0.2, held, seconds, FS), Progress.NONE);
    }

    static SubtractiveRecipe brass() {
        Filter filter =
                new Filter(Filter.Kind.LOW, Filter.Slope.DB_12, 500, 0.8, 1, 2.5, 1, 0, Envelope.held(0.09, 0.2));
        return new SubtractiveRecipe(
                53,
                6,
                -14,
                List.of(Oscillator.of(Wave.SAW, 1)),
                null,
                null,
                null,
                filter,
                Envelope.held(0.05, 0.15),
                null,
                VelocityMap.USUAL,
                Common.NONE);
    }

    /** A sideband of the second and the third pair fall where no start puts them at once. */
    private static FmRecipe threePairs() {
        Envelope bend = Envelope.struck(0, 1, 0.3);
        return new FmRecipe(
                60,
                -7,
                -12,
                List.of(
                        FmPair.of(0, 2.93, 6.01, 0.9, Envelope.struck(0.001, 1.9, 0.3), bend),
                        FmPair.of(-3, 7.11, 0.98, 2.3, Envelope.struck(0.003, 0.8, 0.3), bend),
                        FmPair.of(-7, 4.5, 2.49, 0.3, Envelope.struck(0.002, 3.1, 0.3), bend)),
                null,
                0.3,
                VelocityMap.USUAL,
                Common.NONE);
    }

    private static FmRecipe brightPair() {
        return new FmRecipe(
                62,
                8,
                -9,
                List.of(FmPair.of(0, 1, 1.4, 3, Envelope.struck(0.001, 2.5, 0.3), Envelope.struck(0, 4, 0.3))),
                null,
                0.3,
                VelocityMap.USUAL,
                Common.NONE);
    }

    static List<Recipe> struckSounds() {
        return List.of(
                RecipeTest.bar(),
                brightPair(),
                new StringRecipe(
                        50,
                        -5,
                        -10,
                        StringRecipe.Drive.PULSE,
                        new Exciter(0.8, -100, 20, 200, 8000),
                        new LoopLoss(LoopLoss.Kind.SHELVES, 2.5, 2500, 1.4),
                        0.13));
    }

    @BeforeAll
    static void fitTheBrass() throws Exception {
        brass = recorded(brass(), 1.2, 1.8);
        fitted = Fits.of("subtractive", brass, FitOptions.USUAL, Progress.NONE);
    }

    @ParameterizedTest
    @MethodSource("struckSounds")
    void whatAMethodMadeItFindsAgain(Recipe truth) throws Exception {
        AnalysedSound side = recorded(truth, Double.POSITIVE_INFINITY, 1.7);
        Set<Thread> tellers = ConcurrentHashMap.newKeySet();
        Fitted f =
                Fits.of(truth.method(), side, FitOptions.USUAL, (share, doing) -> tellers.add(Thread.currentThread()));
        assertThat(tellers).as("progress is told by one thread").containsExactly(Thread.currentThread());
        assertThat(f.comparison().totalJnd())
                .as(f.comparison().aspects().toString())
                .isLessThan(1);
    }

    @Test
    @Tag("long")
    void threePairsAreFoundAgain() throws Exception {
        whatAMethodMadeItFindsAgain(threePairs());
    }

    /** What is fitted to the noise of a strike must not give it to a machine that has none. */
    @ParameterizedTest
    @ValueSource(strings = {"fm", "ring"})
    void nothingOfASearchIsMoreThanAMachineCanPlay(String method) throws Exception {
        Machine quiet =
                MachineJson.parse("{\"schema\": \"machine-1\", \"name\": \"Quiet\", \"noise\": false}", "quiet");
        Recipe bar = RecipeTest.bar().with("noise.level", 6).with("noise.t60", 40);
        AnalysedSound side = recorded(bar, Double.POSITIVE_INFINITY, 1);
        FitOptions plan = FitOptions.USUAL.on(quiet).trying(0.05);
        List<Recipe> starts = Starts.several(method, side, true, Progress.NONE).stream()
                .map(quiet::limited)
                .toList();
        assertThat(new FitStrategy(plan, starts, new PerceptualResiduals(side, 4), new BestSoFar(), Progress.NONE)
                        .found())
                .allSatisfy(r -> assertThat(quiet.missing(r)).isEmpty());
    }

    @Test
    void aFitComesCloserThanItsStartAndSaysTheTruth() throws Exception {
        Recipe start = Starts.of("subtractive", brass).recipe();
        Comparison before = PerceptualComparator.compare(brass, ImitationRenderer.imitation(brass, start));
        Comparison after = PerceptualComparator.compare(brass, ImitationRenderer.imitation(brass, fitted.recipe()));
        assertThat(after.totalJnd()).isCloseTo(fitted.comparison().totalJnd(), within(1e-6));
        assertThat(after.totalJnd()).isLessThan(1).isLessThan(0.6 * before.totalJnd());
        assertThat(after.gainDb()).isBetween(-0.3, 0.3);
    }

    @Test
    void whatIsLockedStays() throws Exception {
        Recipe dull = fitted.recipe().with("filter.cutoff", 300).with("filter.q", 3);
        FitOptions plan = FitOptions.USUAL.from(dull, Set.of("filter.cutoff", "filter.q"));
        Fitted f = Fits.of("subtractive", brass, plan, Progress.NONE);
        assertThat(f.recipe().value("filter.cutoff")).isEqualTo(300);
        assertThat(f.recipe().value("filter.q")).isEqualTo(3);
        double was = PerceptualComparator.compare(brass, ImitationRenderer.imitation(brass, dull))
                .totalJnd();
        assertThat(f.comparison().totalJnd()).isLessThan(was);
    }

    @Test
    void aLockedLevelStaysAndASlowSearchIsEnded() throws Exception {
        FitOptions plan = FitOptions.USUAL.within(0.01).from(fitted.recipe().with("level", -31), Set.of("level"));
        Fitted f = Fits.of("subtractive", brass, plan, Progress.NONE);
        assertThat(f.recipe().settings())
                .as("no time for anything: it stays where it was")
                .isEqualTo(fitted.recipe().with("level", -31).settings());
        Recipe asLoud = f.recipe().with("level", fitted.recipe().levelDb());
        assertThat(PerceptualComparator.compare(brass, ImitationRenderer.imitation(brass, asLoud))
                        .totalJnd())
                .isCloseTo(fitted.comparison().totalJnd(), within(0.05));
    }

    @Test
    void lockedPhasesAreNotTurned() throws Exception {
        FmRecipe bright = brightPair();
        Recipe at = bright.with("pair.1.carrierPhase", 1.1).with("pair.1.modulatorPhase", -0.4);
        FitOptions plan = FitOptions.USUAL
                .from(at.with("pair.1.index", 1.2), Set.of("pair.1.carrierPhase", "pair.1.modulatorPhase"))
                .trying(0.2);
        Recipe found = Fits.of("fm", recorded(bright, Double.POSITIVE_INFINITY, 1.7), plan, Progress.NONE)
                .recipe();
        assertThat(found.value("pair.1.carrierPhase")).isEqualTo(1.1);
        assertThat(found.value("pair.1.modulatorPhase")).isEqualTo(-0.4);
        assertThat(found.value("pair.1.index")).isCloseTo(3, within(0.6));
    }

    @Test
    void whatWasFoundSoFarMayBeEnough() throws Exception {
        AtomicInteger reports = new AtomicInteger();
        AtomicInteger after = new AtomicInteger(); // reports once it was enough
        Progress soon = new Progress() {
            @Override
            public void report(double fraction, String doing) {
                reports.incrementAndGet();
                after.addAndGet(isEnough() ? 1 : 0);
            }

            @Override
            public boolean isEnough() {
                return reports.get() > 30;
            }
        };
        List<Fitted> found = Fits.of(List.of("subtractive", "ring"), brass, FitOptions.USUAL, soon);
        assertThat(found).hasSizeBetween(1, 2); // as many as were under way
        double start = PerceptualComparator.compare(
                        brass,
                        ImitationRenderer.imitation(
                                brass, Starts.of(found.get(0).method(), brass).recipe()))
                .totalJnd();
        assertThat(found.get(0).comparison().totalJnd()).isLessThanOrEqualTo(start + 0.01);
        assertThat(after.get()).isLessThan(60); // of many hundreds
    }

    @Test
    void aFitCanBeStopped() {
        Progress stop = (fraction, doing) -> {
            if (fraction > 0.1) {
                throw new CancellationException();
            }
        };
        assertThatThrownBy(() -> Fits.of("fm", brass, FitOptions.USUAL, stop))
                .isInstanceOf(CancellationException.class);
    }

    @Test
    void movesOfAnyMethodKeepTheirPromiseAndLeaveWhatIsLocked() throws Exception {
        Recipe off = fitted.recipe()
                .with("filter.cutoff", 0.6 * fitted.recipe().value("filter.cutoff"))
                .with("amp.attack", 0.14);
        double total = Double.POSITIVE_INFINITY;
        Recipe at = off;
        for (int step = 0; step < 3; step++) {
            Comparison now = PerceptualComparator.compare(brass, ImitationRenderer.imitation(brass, at));
            assertThat(now.totalJnd()).isLessThan(total);
            total = now.totalJnd();
            List<Move> moves = NextMoves.of(brass, at, Set.of("amp.attack"), now, Progress.NONE);
            assertThat(moves).allSatisfy(m -> assertThat(m.parameter().id()).isNotEqualTo("amp.attack"));
            if (moves.isEmpty()) {
                break;
            }
            Move first = moves.get(0);
            at = at.with(first.parameter().id(), first.to());
            Comparison then = PerceptualComparator.compare(brass, ImitationRenderer.imitation(brass, at));
            assertThat(then.totalJnd()).isEqualTo(first.predictedJnd());
            assertThat(first.why()).contains("JND");
        }
    }

    /** A filter that is shut so far that little steps are hardly heard. */
    @Test
    void whereSmallMovesDoLittleALargeOneIsFound() throws Exception {
        Recipe shut = brass().with("filter.cutoff", 40).with("filter.envelope", 0);
        Comparison now = PerceptualComparator.compare(brass, ImitationRenderer.imitation(brass, shut));
        List<Move> moves = NextMoves.of(brass, shut, Set.of("filter.kind", "filter.slope"), now, Progress.NONE);
        assertThat(moves).isNotEmpty();
        assertThat(moves.get(0).gainJnd()).isGreaterThan(0.2 * now.totalJnd());
        assertThat(moves.stream().map(m -> m.parameter().id())).doesNotHaveDuplicates();
    }

    @Test
    void tolerancesOfAnyMethodHoldTheValueAndAreNarrowWhereItMatters() {
        var spans = Tolerances.of(brass, fitted.recipe(), Progress.NONE);
        assertThat(spans).containsKeys("tune", "filter.cutoff", "amp.attack");
        spans.forEach((id, span) -> {
            double v = fitted.recipe()
                    .setting(id)
                    .parameter()
                    .clamp(fitted.recipe().value(id));
            assertThat(span.low()).as(id).isLessThanOrEqualTo(v + 1e-6);
            assertThat(span.high()).as(id).isGreaterThanOrEqualTo(v - 1e-6);
        });
        // of what was recorded: the quick ear's attack can jump within a cent of where a search has ended
        assertThat(Tolerances.of(brass, brass(), Progress.NONE).get("tune").high() - brass().value("tune"))
                .isBetween(1.0, 25.0);
        assertThat(spans.get("filter.cutoff").effect()).isGreaterThan(0.1);
    }

    @Test
    void theAdviserPutsResultsInOrderAndSaysWhatTheyTake() throws Exception {
        Fitted worse = Fits.of("string", brass, FitOptions.USUAL.within(1), Progress.NONE);
        List<Adviser.Ranked> ranked = Adviser.after(List.of(worse, fitted));
        assertThat(ranked.get(0).fitted()).isSameAs(fitted);
        assertThat(ranked.get(0).why()).contains("1 oscillator, 2 envelopes");
        assertThat(MethodAdvice.of(brass.measurement()))
                .extracting(MethodAdvice::method)
                .containsExactlyInAnyOrderElementsOf(Starts.METHODS);
        assertThat(ResidualExplanation.of(worse.recipe(), worse.comparison())).isNotEmpty();
    }

    @Test
    void aSecondLayerCarriesWhatTheFirstLeavesOver() throws Exception {
        AnalysedSound bar = recorded(RecipeTest.bar(), Double.POSITIVE_INFINITY, 1.2);
        Recipe silent = Starts.of("resonators", bar).recipe().with("noise.level", -100);
        Fitted bare = new Fitted(
                silent,
                ImitationRenderer.render(silent, bar),
                PerceptualComparator.compare(
                        bar, ImitationRenderer.side(ImitationRenderer.render(silent, bar), Progress.NONE)),
                true,
                0);
        Layers.Layered two = Layers.of(bar, bare, FitOptions.USUAL, Progress.NONE);
        assertThat(two.comparison().totalJnd()).isLessThan(bare.comparison().totalJnd());
        assertThat(two.carries()).hasSameSizeAs(two.patch().layers());
        assertThat(two.patch().layers()).hasSize(2);

        // on from there: what lies under it sounds with everything that is tried, and stays
        Patch louder = two.patch().withFirst(two.patch().first().with("level", silent.levelDb() - 12));
        Comparison off = PerceptualComparator.compare(bar, ImitationRenderer.imitation(bar, louder));
        Fitted on = Fits.of(
                "resonators", bar, FitOptions.USUAL.from(louder, Set.of()).trying(0.3), Progress.NONE);
        Comparison fresh =
                PerceptualComparator.compare(bar, ImitationRenderer.imitation(bar, louder.withFirst(on.recipe())));
        assertThat(on.comparison().totalJnd()).isCloseTo(fresh.totalJnd(), within(1e-9));
        assertThat(fresh.totalJnd()).isLessThan(0.8 * off.totalJnd());
    }
}
