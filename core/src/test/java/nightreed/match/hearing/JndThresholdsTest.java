package nightreed.match.hearing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import nightreed.match.compare.Comparison;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.compare.PartialDifference;
import nightreed.match.compare.PerceptualComparator;
import nightreed.match.sound.AnalysedSound;
import nightreed.match.sound.LoudnessTracks;
import nightreed.recipe.RecipeTest;
import nightreed.recipe.ResonatorRecipe;
import nightreed.sound.Clip;
import nightreed.voice.Renderer;
import nightreed.work.Progress;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The listener's ear: masking, silence, thresholds, and the paths that are followed. */
class JndThresholdsTest {
    private static final int FS = 48_000;
    private static AnalysedSound bar;

    @BeforeAll
    static void play() throws Exception {
        bar = ImitationRenderer.side(Renderer.asFitted(RecipeTest.bar(), 0.2, 2.2, FS), Progress.NONE);
    }

    @Test
    void maskingFallsFasterTowardsTheBassAndSpreadsUpwardWithLevel() {
        assertThat(JndThresholds.spread(0, 1000, 70)).isEqualTo(0);
        assertThat(JndThresholds.spread(-1, 1000, 70)).isEqualTo(-27);
        assertThat(JndThresholds.spread(1, 1000, 90)).isGreaterThan(JndThresholds.spread(1, 1000, 60));
        assertThat(JndThresholds.spread(2, 1000, 70)).isCloseTo(2 * JndThresholds.spread(1, 1000, 70), within(1e-9));
        assertThat(JndThresholds.spread(1, 1000, 200)).isEqualTo(-5); // no slope is turned round
    }

    @ParameterizedTest
    @CsvSource({"100, 15, 30", "1000, 1, 6", "3300, -6, -2", "12000, 15, 35"})
    void theThresholdInQuietIsLowestWhereTheEarIsKeenest(double hz, double least, double most) {
        assertThat(JndThresholds.quietDb(hz)).isBetween(least, most);
    }

    @Test
    void aPartialInTheShadowOfAStrongerOneWeighsLessThanTheSameOneAlone() throws Exception {
        ResonatorRecipe r = RecipeTest.bar();
        double first = r.modes().get(0).ratio();
        ResonatorRecipe beside = r.with("mode.2.ratio", first * 1.08).with("mode.2.level", -28);
        ResonatorRecipe apart = r.with("mode.2.ratio", first * 7.3).with("mode.2.level", -28);
        assertThat(weightOfSecond(beside)).isLessThan(0.3);
        assertThat(weightOfSecond(apart)).isGreaterThan(weightOfSecond(beside) + 0.3);
    }

    private static double weightOfSecond(ResonatorRecipe r) throws Exception {
        AnalysedSound s = ImitationRenderer.side(Renderer.asFitted(r, 0.2, 2.2, FS), Progress.NONE);
        double hz = r.modes().get(1).ratio() * r.f0Hz();
        return PerceptualComparator.compare(s, s).partials().stream()
                .filter(d -> Math.abs(d.either().frequencyHz() - hz) < 2)
                .mapToDouble(PartialDifference::weight)
                .max()
                .orElse(0);
    }

    @Test
    void theWorstAspectLeadsAndTheTotalIsTheRootMeanSquare() {
        Comparison c = ImitationRenderer.predict(bar, RecipeTest.bar().with("mode.1.t60", 0.3));
        double sum = 0;
        double worst = 0;
        for (Aspect a : Aspect.values()) {
            sum += c.jnd(a) * c.jnd(a);
            worst = Math.max(worst, c.jnd(a));
        }
        assertThat(c.totalJnd()).isCloseTo(Math.sqrt(sum / Aspect.values().length), within(1e-12));
        assertThat(c.worstJnd()).isEqualTo(worst);
        assertThat(c.jnd(c.worst())).isEqualTo(worst);
        assertThat(c.withinHearing()).isEqualTo(worst <= 1);
    }

    @Test
    void whatIsQuiteWrongCannotGetMoreWrong() {
        Comparison far = ImitationRenderer.predict(bar, RecipeTest.bar().with("tune", 100));
        assertThat(far.jnd(Aspect.PITCH)).isEqualTo(JndThresholds.MOST);
        for (Aspect a : Aspect.values()) {
            assertThat(far.jnd(a)).isLessThanOrEqualTo(JndThresholds.MOST);
        }
    }

    @Test
    void otherThresholdsScaleWhatTheyCount() {
        ResonatorRecipe sharp = RecipeTest.bar().with("tune", RecipeTest.bar().tuningCents() + 10);
        JndThresholds keen = JndThresholds.thresholds().get(0).set().apply(JndThresholds.USUAL, 2.5);
        double usual = ImitationRenderer.predict(bar, sharp).jnd(Aspect.PITCH);
        Comparison other = ImitationRenderer.predict(bar.heardBy(new ListenerProfile(keen, AspectWeights.NONE)), sharp);
        assertThat(usual).isCloseTo(2, within(0.05)); // ten cents at five
        assertThat(other.jnd(Aspect.PITCH)).isCloseTo(2 * usual, within(1e-6));
        assertThat(other.jnd(Aspect.LOUDNESS))
                .isCloseTo(ImitationRenderer.predict(bar, sharp).jnd(Aspect.LOUDNESS), within(1e-9));
    }

    @Test
    void aBackgroundIsTakenOffThePaths() {
        double[] x = bar.clip().mixed();
        double[] noisy = nightreed.Tones.noisy(x, 2e-4, 9);
        int onset = (int) Math.round(0.2 * FS);
        LoudnessTracks clean = LoudnessTracks.of(Clip.mono(x, FS), onset);
        LoudnessTracks heard = LoudnessTracks.of(Clip.mono(noisy, FS), onset);
        assertThat(heard.background()).isGreaterThan(0);
        for (int f = 0; f < 30; f++) {
            assertThat(10 * Math.log10(heard.power()[f] / clean.power()[f])).isCloseTo(0, within(0.1));
            assertThat(heard.bark()[f]).isCloseTo(clean.bark()[f], within(0.1));
        }
    }
}
