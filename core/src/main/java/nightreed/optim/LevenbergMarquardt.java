package nightreed.optim;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.BooleanSupplier;
import java.util.function.UnaryOperator;
import nightreed.optim.Solution.Ending;
import org.hipparchus.exception.MathRuntimeException;
import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.ArrayRealVector;
import org.hipparchus.linear.CholeskyDecomposition;

/** Damped Gauss-Newton steps, limited per parameter and kept within bounds; see the package for sources. Stateless. */
public final class LevenbergMarquardt {
    /**
     * How a search goes and when it ends.
     *
     * @param mostIterations      Jacobians that are computed at the most
     * @param costTolerance       least relative decrease of the cost by an accepted step for another iteration
     * @param initialDamping      first damping, relative to the diagonal of JᵀJ
     * @param leastDamping        lowest damping
     * @param increase            factor of the damping after a rejected step
     * @param decrease            divisor of the damping after an accepted step
     * @param mostRejections      rejected steps from one Jacobian before it ends
     * @param flatDamping         share of the largest diagonal entry that is damped beside each entry's own; keeps parameters
     *                            without effect where they are
     * @param absoluteDamping     damped beside that, in squared residuals per squared unit of a parameter; 0 where residuals have no
     *                            scale of their own
     * @param patience            iterations in a row that may gain less than the tolerance before it ends
     * @param trialDampings       factors of the damping that are tried at once; the best step is taken
     * @param keepsJacobian       whether accepted steps correct the Jacobian by Broyden's formula until one fails, for problems
     *                            whose Jacobian is dear
     */
    @RecordBuilder
    public record Options(
            int mostIterations,
            double costTolerance,
            double initialDamping,
            double leastDamping,
            double increase,
            double decrease,
            int mostRejections,
            double flatDamping,
            double absoluteDamping,
            int patience,
            List<Double> trialDampings,
            boolean keepsJacobian)
            implements LevenbergMarquardtOptionsBuilder.With {
        /** Marquardt's schedule; the tolerance is that of fits to noisy frames, whose last digits mean nothing. */
        public static final Options USUAL = new Options(25, 1e-4, 0.01, 1e-6, 4, 5, 8, 1e-3, 0, 1, List.of(1.0), false);

        public Options {
            if (!(mostIterations >= 0 && costTolerance >= 0 && initialDamping > 0 && increase > 1 && decrease > 1)) {
                throw new IllegalArgumentException(
                        "iterations and tolerance must be 0 or more, damping above 0, its factors"
                                + " above 1; got " + mostIterations + ", " + costTolerance + ", " + initialDamping
                                + ", "
                                + increase + ", " + decrease);
            }
            if (trialDampings.isEmpty()) {
                throw new IllegalArgumentException("there must be at least one damping to try");
            }
            trialDampings = List.copyOf(trialDampings);
        }

        /** For problems without flat parameters that are to be solved to many digits. */
        public Options precise() {
            return with(b -> b.initialDamping(1e-3)
                    .leastDamping(1e-12)
                    .increase(10)
                    .decrease(5)
                    .flatDamping(0)
                    .absoluteDamping(0));
        }

        /** Several dampings at once and a Jacobian that is corrected, for residuals that take milliseconds each. */
        public Options dearResiduals(List<Double> dampings) {
            return with(b -> b.trialDampings(dampings).keepsJacobian(true));
        }
    }

    /** Smallest pivot of the damped matrix, scaled to a unit diagonal, at which a step can be solved for. */
    private static final double LEAST_PIVOT = 1e-14;

    /** Share of the largest diagonal entry that is added wherever flat parameters are held; 1e-3 of their least damping. */
    private static final double LEAST_FLAT = 1e-6;

    /** Relative asymmetry of the damped matrix that rounding may leave. */
    private static final double ASYMMETRY = 1e-6;

    private LevenbergMarquardt() {}

    /**
     * The usual search over parameters of which 1 is a large change, with steps of 1 at the most and forward differences: a
     * trust region of the usual first radius jumps out of the basin that the start was chosen for.
     *
     * @return the best point that was met
     */
    public static double[] nearest(double[] start, UnaryOperator<double[]> residuals) {
        return minimize(LeastSquaresProblem.limited(1, residuals), start, Options.USUAL)
                .point();
    }

    /** Searches without a way to stop it. */
    public static Solution minimize(LeastSquaresProblem problem, double[] start, Options options) {
        return minimize(problem, start, options, () -> false);
    }

    /**
     * Searches the least sum of squares from a start. The result is never worse than the start.
     *
     * @param start   parameters; not changed
     * @param stopped asked before every Jacobian, and before a step from a corrected one; then the best point so far is returned. A
     *                Jacobian that was computed is made use of
     */
    public static Solution minimize(
            LeastSquaresProblem problem, double[] start, Options options, BooleanSupplier stopped) {
        return new Search(problem, start, options, stopped).run();
    }

    /** One search; holds the accepted point and what is known there. */
    private static final class Search {
        private final LeastSquaresProblem problem;
        private final Options options;
        private final BooleanSupplier stopped;
        private double[] point;
        private double[] residuals;
        private double cost;
        private double[][] jacobian;
        private double damping;
        private int steps;

        Search(LeastSquaresProblem problem, double[] start, Options options, BooleanSupplier stopped) {
            this.problem = problem;
            this.options = options;
            this.stopped = stopped;
            point = problem.bounded(start.clone());
            residuals = problem.residuals(point);
            cost = dot(residuals, residuals);
            damping = options.initialDamping;
        }

        Solution run() {
            Ending ending = Ending.ITERATION_LIMIT;
            int stuck = 0;
            for (int i = 0; i < options.mostIterations; i++) {
                if (stopped.getAsBoolean()) {
                    return ended(Ending.STOPPED);
                }
                double[][] fresh = problem.jacobian(point, residuals);
                if (fresh == null) {
                    return ended(Ending.STOPPED);
                }
                jacobian = fresh;
                double before = cost;
                boolean accepted = step();
                while (accepted && options.keepsJacobian && !stopped.getAsBoolean()) {
                    double last = cost;
                    accepted = step();
                    if (last - cost <= options.costTolerance * last) {
                        break;
                    }
                }
                stuck = before - cost <= options.costTolerance * before ? stuck + 1 : 0;
                if (stuck >= options.patience) {
                    ending = cost < before ? Ending.COST_CONVERGED : Ending.NO_DECREASE;
                    break;
                }
            }
            return ended(ending);
        }

        private Solution ended(Ending ending) {
            return new Solution(point, residuals, cost, steps, ending, jacobian);
        }

        /** Steps with growing damping until one lowers the cost. @return whether one did */
        private boolean step() {
            Normal normal = Normal.of(residuals, jacobian);
            double[] limits = problem.stepLimits(point);
            for (int tries = 0; tries < options.mostRejections; tries++) {
                steps++;
                List<double[]> points = new ArrayList<>();
                for (double factor : options.trialDampings) {
                    double[] step = normal.step(damping * factor, options);
                    if (step != null) {
                        points.add(problem.bounded(moved(point, step, limits)));
                    }
                }
                List<double[]> there = problem.residualsOfAll(points);
                int best = -1;
                double least = cost;
                for (int i = 0; i < there.size(); i++) {
                    double c = there.get(i) == null ? Double.NaN : dot(there.get(i), there.get(i));
                    if (c < least) {
                        least = c;
                        best = i;
                    }
                }
                if (best >= 0) {
                    if (options.keepsJacobian) {
                        correct(points.get(best), there.get(best));
                    }
                    point = points.get(best);
                    residuals = there.get(best);
                    cost = least;
                    double factor = points.size() == options.trialDampings.size() ? options.trialDampings.get(best) : 1;
                    damping = Math.max(options.leastDamping, damping * factor / options.decrease);
                    return true;
                }
                damping *= options.increase;
            }
            return false;
        }

        /** Broyden's rank-one update, so that the Jacobian explains the step that was just made. */
        private void correct(double[] to, double[] there) {
            double length = 0;
            double[] step = new double[to.length];
            for (int k = 0; k < step.length; k++) {
                step[k] = to[k] - point[k];
                length += step[k] * step[k];
            }
            if (length < 1e-24) {
                return;
            }
            for (int i = 0; i < there.length; i++) {
                double predicted = 0;
                for (int k = 0; k < step.length; k++) {
                    predicted += jacobian[k][i] * step[k];
                }
                double missed = (there[i] - residuals[i] - predicted) / length;
                for (int k = 0; k < step.length; k++) {
                    jacobian[k][i] += missed * step[k];
                }
            }
        }
    }

    private static double[] moved(double[] point, double[] step, double[] limits) {
        double[] out = point.clone();
        for (int k = 0; k < out.length; k++) {
            out[k] += Math.max(-limits[k], Math.min(limits[k], step[k]));
        }
        return out;
    }

    /** JᵀJ and -Jᵀr: the same for every damping. */
    private record Normal(double[][] matrix, double[] right, double largest) {
        static Normal of(double[] residuals, double[][] jacobian) {
            int n = jacobian.length;
            double[][] matrix = new double[n][n];
            double[] right = new double[n];
            double largest = 0;
            for (int k = 0; k < n; k += 2) {
                for (int l = 0; l <= k; l += 2) {
                    fill(matrix, jacobian, k, l);
                }
            }
            for (int k = 0; k < n; k++) {
                for (int l = 0; l < k; l++) {
                    matrix[l][k] = matrix[k][l];
                }
                right[k] = -dot(jacobian[k], residuals);
                largest = Math.max(largest, matrix[k][k]);
            }
            return new Normal(matrix, right, largest);
        }

        /** Products of two rows with two others in one pass over memory: twice as fast as one by one. */
        private static void fill(double[][] matrix, double[][] rows, int k, int l) {
            int nextK = Math.min(rows.length - 1, k + 1);
            int nextL = Math.min(rows.length - 1, l + 1);
            double[] a = rows[k];
            double[] b = rows[nextK];
            double[] c = rows[l];
            double[] d = rows[nextL];
            double ac = 0;
            double ad = 0;
            double bc = 0;
            double bd = 0;
            for (int i = 0; i < a.length; i++) {
                ac += a[i] * c[i];
                ad += a[i] * d[i];
                bc += b[i] * c[i];
                bd += b[i] * d[i];
            }
            matrix[k][l] = ac;
            matrix[k][nextL] = ad;
            matrix[nextK][l] = bc;
            matrix[nextK][nextL] = bd;
        }

        /** Solves the damped equations; null if they cannot be solved. Scaled to a unit diagonal first. */
        double[] step(double damping, Options options) {
            int n = right.length;
            double[] scale = new double[n];
            for (int k = 0; k < n; k++) {
                double diagonal = matrix[k][k] * (1 + damping)
                        + damping * (options.flatDamping * largest + options.absoluteDamping)
                        + (options.flatDamping > 0 ? LEAST_FLAT * largest : 0);
                scale[k] = diagonal > 0 ? 1 / Math.sqrt(diagonal) : 0;
            }
            double[][] damped = new double[n][n];
            double[] scaled = new double[n];
            for (int k = 0; k < n; k++) {
                for (int l = 0; l < n; l++) {
                    damped[k][l] = matrix[k][l] * scale[k] * scale[l];
                }
                damped[k][k] = 1;
                scaled[k] = right[k] * scale[k];
            }
            try {
                double[] x = new CholeskyDecomposition(new Array2DRowRealMatrix(damped, false), ASYMMETRY, LEAST_PIVOT)
                        .getSolver()
                        .solve(new ArrayRealVector(scaled, false))
                        .toArray();
                for (int k = 0; k < n; k++) {
                    x[k] *= scale[k];
                }
                return Arrays.stream(x).allMatch(Double::isFinite) ? x : null;
            } catch (MathRuntimeException degenerate) {
                return null;
            }
        }
    }

    /** Sum of products; in four sums, since each addition waits for the one before it. */
    static double dot(double[] a, double[] b) {
        double first = 0;
        double second = 0;
        double third = 0;
        double fourth = 0;
        int i = 0;
        for (; i + 3 < a.length; i += 4) {
            first += a[i] * b[i];
            second += a[i + 1] * b[i + 1];
            third += a[i + 2] * b[i + 2];
            fourth += a[i + 3] * b[i + 3];
        }
        for (; i < a.length; i++) {
            first += a[i] * b[i];
        }
        return first + second + third + fourth;
    }
}
