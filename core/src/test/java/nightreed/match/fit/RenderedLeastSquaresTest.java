package nightreed.match.fit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Map;
import java.util.concurrent.atomic.AtomicInteger;
import nightreed.machine.Machine;
import nightreed.match.fit.RenderedLeastSquares.Candidate;
import nightreed.match.start.Anchor;
import nightreed.recipe.Recipe;
import nightreed.recipe.RecipeTest;
import nightreed.work.Progress;
import org.junit.jupiter.api.Test;

/** Values of a recipe moved to where given residuals are least; nothing is rendered. */
class RenderedLeastSquaresTest {
    private static final List<String> IDS = List.of("mode.1.level", "mode.1.t60", "noise.level", "exciter.contact");

    private final AtomicInteger asked = new AtomicInteger();

    /** How far values lie from those of a target on their rulers, bent so that no single step gets there. */
    private ResidualFunction towards(Recipe target) {
        return new ResidualFunction() {
            @Override
            public double[] differences(Recipe r) {
                asked.incrementAndGet();
                double[] out = new double[2 * IDS.size()];
                for (int i = 0; i < IDS.size(); i++) {
                    var p = target.setting(IDS.get(i)).parameter();
                    double off = p.position(r.value(IDS.get(i))) - p.position(target.value(IDS.get(i)));
                    out[2 * i] = 10 * off;
                    out[2 * i + 1] = 10 * off * off * off;
                }
                return out;
            }

            @Override
            public double cost(Recipe r) {
                return 1;
            }
        };
    }

    private RenderedLeastSquares fit(Recipe target, Budget budget, Machine machine) {
        return new RenderedLeastSquares(towards(target), budget, Progress.NONE, machine);
    }

    private static Recipe far() {
        return RecipeTest.bar()
                .with("mode.1.level", -30)
                .with("mode.1.t60", 0.2)
                .with("noise.level", -60)
                .with("exciter.contact", 9);
    }

    @Test
    void allValuesReachTheirTargetsTogether() {
        Recipe target = RecipeTest.bar();
        RenderedLeastSquares fit = fit(target, Budget.endless(Progress.NONE), Machine.ANY);
        Candidate end = fit.run(fit.at(far()), Map.of(), IDS, 12);
        for (String id : IDS) {
            var p = target.setting(id).parameter();
            assertThat(p.position(end.recipe().value(id)))
                    .as(id)
                    .isCloseTo(p.position(target.value(id)), within(0.01)); // it ends where a step gains under 1 %
        }
    }

    @Test
    void whatIsNotNamedStays() {
        RenderedLeastSquares fit = fit(RecipeTest.bar(), Budget.endless(Progress.NONE), Machine.ANY);
        Candidate end = fit.run(fit.at(far()), Map.of(), List.of("noise.level"), 12);
        assertThat(end.recipe().with("noise.level", -60)).isEqualTo(far());
    }

    @Test
    void aMeasuredValueGivesWayOnlyAsFarAsItIsUnsure() {
        Recipe target = RecipeTest.bar();
        RenderedLeastSquares fit = fit(target, Budget.endless(Progress.NONE), Machine.ANY);
        Anchor sure = new Anchor(-30, false, 0.01, 1);
        Candidate end = fit.run(fit.at(far()), Map.of("mode.1.level", sure), IDS, 12);
        assertThat(end.recipe().value("mode.1.level")).isCloseTo(-30, within(0.5));
        assertThat(end.recipe().value("noise.level")).isCloseTo(target.value("noise.level"), within(3.0));
    }

    /** A correction of the Jacobian by its own steps saves most of the renders of a new one. */
    @Test
    void mostIterationsNeedNoNewJacobian() {
        RenderedLeastSquares fit = fit(RecipeTest.bar(), Budget.endless(Progress.NONE), Machine.ANY);
        fit.run(fit.at(far()), Map.of(), IDS, 3);
        int jacobians = 3 * IDS.size();
        int trials = (asked.get() - jacobians) / 4; // four dampings at once
        assertThat(trials).isGreaterThan(3);
    }

    @Test
    void aBudgetThatIsSpentLeavesTheStart() {
        Budget spent = new Budget(1, Progress.NONE);
        RenderedLeastSquares fit = fit(RecipeTest.bar(), spent, Machine.ANY);
        Candidate start = fit.at(far());
        assertThat(fit.run(start, Map.of(), IDS, 12)).isEqualTo(start);
    }
}
