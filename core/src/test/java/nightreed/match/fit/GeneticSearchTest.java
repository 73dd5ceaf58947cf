package nightreed.match.fit;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Comparator;
import java.util.List;
import java.util.Set;
import java.util.stream.IntStream;
import nightreed.machine.Machine;
import nightreed.match.fit.RenderedLeastSquares.Candidate;
import nightreed.recipe.FmPair;
import nightreed.recipe.FmRecipe;
import nightreed.recipe.Recipe;
import nightreed.recipe.part.Common;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.VelocityMap;
import nightreed.work.Progress;
import org.junit.jupiter.api.Test;

/** Breeding by itself, against a plain target instead of a sound. */
class GeneticSearchTest {
    private static final List<String> AIMED = List.of("pair.1.index", "pair.1.amp.decay", "pair.2.level");

    private static FmRecipe two(double index, double decay, double level) {
        Envelope bend = Envelope.struck(0, 1, 0.3);
        return new FmRecipe(
                60,
                0,
                -12,
                List.of(
                        FmPair.of(0, 1, 1.4, index, Envelope.struck(0.001, decay, 0.3), bend),
                        FmPair.of(level, 3, 2, 1, Envelope.struck(0.001, 1, 0.3), bend)),
                null,
                0.3,
                VelocityMap.USUAL,
                Common.NONE);
    }

    /** Places on their rulers that the recipe is off by. */
    private static ResidualFunction towards(Recipe target) {
        return new ResidualFunction() {
            @Override
            public double[] differences(Recipe r) {
                return AIMED.stream()
                        .map(target::setting)
                        .mapToDouble(s -> s.parameter().position(s.value())
                                - s.parameter().position(r.value(s.parameter().id())))
                        .toArray();
            }

            @Override
            public double cost(Recipe r) {
                return 1;
            }
        };
    }

    private static RenderedLeastSquares polish(Recipe target) {
        return new RenderedLeastSquares(towards(target), Budget.endless(Progress.NONE), Progress.NONE, Machine.ANY);
    }

    private static List<Candidate> bred(Set<String> locked, int generations) {
        RenderedLeastSquares polish = polish(two(2, 3, -6));
        List<Candidate> parents = polish.at(List.of(two(9, 3, -50), two(0.1, 0.1, -6), two(5, 20, -30)));
        return new GeneticSearch(polish, locked, true).of(parents, generations);
    }

    private static List<Double> totals(List<Candidate> points) {
        return points.stream().map(Candidate::total).toList();
    }

    @Test
    void whatTwoParentsFoundComesTogether() {
        List<Candidate> before = bred(Set.of(), 0);
        List<Candidate> after = bred(Set.of(), 12);
        assertThat(after).hasSameSizeAs(before).isSortedAccordingTo(Comparator.comparingDouble(Candidate::total));
        assertThat(after.get(0).total()).isLessThan(0.3 * before.get(0).total());
        List<Double> later = totals(after);
        assertThat(IntStream.range(0, 3)
                        .allMatch(i -> later.get(i) <= totals(before).get(i)))
                .as("none got worse")
                .isTrue();
    }

    @Test
    void lockedValuesStayAndTheSameIsBredAgain() {
        List<Candidate> once = bred(Set.of("pair.1.index", "pair.2.level"), 6);
        assertThat(once)
                .allSatisfy(p ->
                        assertThat(List.of(9.0, 0.1, 5.0)).contains(p.recipe().value("pair.1.index")));
        assertThat(totals(bred(Set.of("pair.1.index", "pair.2.level"), 6))).isEqualTo(totals(once));
    }

    @Test
    void choicesChangeOnlyWhereTheyMay() {
        Recipe pulse = two(2, 3, -6).with("pair.1.kind", 1);
        ResidualFunction kind = new ResidualFunction() {
            @Override
            public double[] differences(Recipe r) {
                return new double[] {r.value("pair.1.kind") - pulse.value("pair.1.kind")};
            }

            @Override
            public double cost(Recipe r) {
                return 1;
            }
        };
        RenderedLeastSquares polish =
                new RenderedLeastSquares(kind, Budget.endless(Progress.NONE), Progress.NONE, Machine.ANY);
        List<Candidate> parents = polish.at(List.of(two(2, 3, -6)));
        assertThat(new GeneticSearch(polish, Set.of(), true)
                        .of(parents, 10)
                        .get(0)
                        .total())
                .isZero();
        assertThat(new GeneticSearch(polish, Set.of(), false).of(parents, 10)).isEqualTo(parents);
    }

    @Test
    void whereTimeIsOverTheParentsAreKept() {
        Recipe target = two(2, 3, -6);
        Progress late = new Progress() {
            @Override
            public void report(double fraction, String doing) {}

            @Override
            public boolean isEnough() {
                return true;
            }
        };
        RenderedLeastSquares polish =
                new RenderedLeastSquares(towards(target), new Budget(1000, late), Progress.NONE, Machine.ANY);
        List<Candidate> parents = polish(target).at(List.of(two(9, 3, -50), two(0.1, 0.1, -6)));
        assertThat(new GeneticSearch(polish, Set.of(), true).of(parents, 5))
                .containsExactlyInAnyOrderElementsOf(parents);
    }
}
