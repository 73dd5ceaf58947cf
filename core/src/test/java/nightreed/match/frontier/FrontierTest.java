package nightreed.match.frontier;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.concurrent.atomic.AtomicBoolean;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.compare.PerceptualComparator;
import nightreed.match.fit.FitOptions;
import nightreed.match.frontier.Frontier.Point;
import nightreed.match.frontier.Patches.Found;
import nightreed.match.hearing.Use;
import nightreed.match.sound.AnalysedSound;
import nightreed.recipe.FirstRecipe;
import nightreed.recipe.Mode;
import nightreed.recipe.Recipe;
import nightreed.recipe.RecipeTest;
import nightreed.recipe.ResonatorRecipe;
import nightreed.recipe.size.PatchSize;
import nightreed.voice.Renderer;
import nightreed.work.Progress;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;

class FrontierTest {
    private static final int FS = 44_100;
    private static AnalysedSound bar;
    private static Found found;

    /** A bar of few values, with modes in the recording that hardly anybody hears. */
    @BeforeAll
    static void makeABarSimpler() throws Exception {
        ResonatorRecipe few = RecipeTest.bar();
        List<Mode> modes = new ArrayList<>(few.modes());
        Random random = new Random(3);
        for (int i = 0; i < 12; i++) {
            modes.add(new Mode(2 + 14 * random.nextDouble(), -58 + 6 * random.nextDouble(), 0.2, 0));
        }
        bar = ImitationRenderer.side(Renderer.asFitted(few.with(b -> b.modes(modes)), 0.1, 1.5, FS), Progress.NONE);
        found = Patches.of("resonators", bar, FitOptions.USUAL, Progress.NONE);
    }

    @Test
    void eachPointIsNearerThanAnySimplerOne() {
        List<Point> points = found.frontier().points();
        assertThat(points).hasSizeGreaterThan(3);
        for (int i = 1; i < points.size(); i++) {
            assertThat(points.get(i).size()).isGreaterThan(points.get(i - 1).size());
            assertThat(points.get(i).totalJnd()).isLessThan(points.get(i - 1).totalJnd());
        }
    }

    @Test
    void sizeAndDistanceAreThoseOfAFreshRender() throws Exception {
        for (Point p : found.frontier().points()) {
            assertThat(p.size()).isEqualTo(PatchSize.of(p.recipe()));
            AnalysedSound fresh = ImitationRenderer.rendered(ImitationRenderer.render(p.recipe(), bar));
            assertThat(PerceptualComparator.compare(bar, fresh).totalJnd()).isCloseTo(p.totalJnd(), within(0.05));
        }
    }

    @Test
    void theRecommendedPatchIsMuchSimplerAndHardlyFurther() {
        Point best = found.frontier().recommended(Use.ALONE);
        assertThat(best.size()).isLessThan(PatchSize.of(found.nearest().recipe()) / 2 + 1);
        assertThat(best.totalJnd()).isLessThan(1.2);
        assertThat(found.frontier().recommended(Use.BACKGROUND).size()).isLessThan(best.size());
        assertThat(found.frontier().words(best, "Resonators"))
                .startsWith("Resonators: ")
                .contains(best.size() + " values");
    }

    @Test
    void whatIsLockedStaysAllTheWay() throws Exception {
        Recipe first = found.nearest().recipe();
        double locked = first.value("mode.1.t60") * 1.1;
        FitOptions plan = FitOptions.USUAL.keeping(first.with("mode.1.t60", locked), Set.of("mode.1.t60"));
        for (Point p : Patches.of("resonators", bar, plan.trying(0.3), Progress.NONE)
                .frontier()
                .points()) {
            assertThat(p.recipe().value("mode.1.t60")).isCloseTo(locked, within(1e-9));
        }
    }

    @Test
    void whatItHasIsKeptWhenItIsToldThatThisIsEnough() throws Exception {
        AtomicBoolean enough = new AtomicBoolean();
        Progress stopping = new Progress() {
            @Override
            public void report(double fraction, String doing) {
                enough.compareAndSet(false, fraction > 0.55);
            }

            @Override
            public boolean isEnough() {
                return enough.get();
            }
        };
        Found soon = Patches.of("resonators", bar, FitOptions.USUAL, stopping);
        assertThat(soon.frontier().points()).isNotEmpty();
        assertThat(soon.frontier().nearest().totalJnd()).isLessThan(2);
    }

    @Test
    void patchesThatAreBeatenAreLeftOut() {
        Recipe a = FirstRecipe.of("ring");
        Recipe b = FirstRecipe.of("fm");
        Frontier f = Frontier.of(List.of(
                new Point(9, a, 2),
                new Point(4, b, 3),
                new Point(12, a, 2.1),
                new Point(30, b, 1),
                new Point(9, b, 2.5)));
        assertThat(f.points()).extracting(Point::size).containsExactly(4, 9, 30);
        assertThat(f.atMost(8).size()).isEqualTo(4);
        assertThat(f.atMost(1).size()).isEqualTo(4);
        assertThat(f.within(2).size()).isEqualTo(9);
        assertThat(f.within(0.5).size()).isEqualTo(30);
        assertThat(f.by("ring").points()).hasSize(1);
        assertThat(f.by("string")).isNull();
        assertThat(f.recommended(Use.ALONE).size()).isEqualTo(30);
        assertThat(f.recommended(Use.AMONG_OTHERS).size()).isEqualTo(9);
        assertThat(f.recommended(Use.BACKGROUND).size()).isEqualTo(4);
    }
}
