package nightreed.match.start;

import java.util.Arrays;
import java.util.function.UnaryOperator;
import org.hipparchus.exception.MathRuntimeException;
import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.ArrayRealVector;
import org.hipparchus.linear.RealMatrix;
import org.hipparchus.linear.RealVector;
import org.hipparchus.optim.nonlinear.vector.leastsquares.LeastSquaresBuilder;
import org.hipparchus.optim.nonlinear.vector.leastsquares.LevenbergMarquardtOptimizer;
import org.hipparchus.optim.nonlinear.vector.leastsquares.MultivariateJacobianFunction;
import org.hipparchus.util.Pair;

/** A walk along slopes to where residuals are least (K. Levenberg, 1944; D. Marquardt, 1963), with differences for slopes. */
final class NearestWalk {
    private static final int ROUNDS = 25;
    private static final double STEP = 1e-4;

    /** What is further off than so many times what matters is a stray, and counts hardly more for being further. */
    private static final double STRAY = 3;

    private NearestWalk() {}

    /** A residual over what matters, at the most {@link #STRAY} (after S. Geman, D. McClure, 1987). */
    static double bent(double r) {
        return r / Math.sqrt(1 + r * r / (STRAY * STRAY));
    }

    /**
     * The best place that was met, also where the walk has not come to its end.
     *
     * @param start     unknowns, each on a ruler on which 1 is far
     * @param residuals of unknowns; as many as ever
     */
    static double[] from(double[] start, UnaryOperator<double[]> residuals) {
        double[][] best = {start};
        double[] least = {Double.POSITIVE_INFINITY};
        MultivariateJacobianFunction model = at -> {
            double[] u = at.toArray();
            double[] value = residuals.apply(u);
            double cost = Arrays.stream(value).map(v -> v * v).sum();
            if (cost < least[0]) {
                least[0] = cost;
                best[0] = u;
            }
            return new Pair<RealVector, RealMatrix>(
                    new ArrayRealVector(value, false), new Array2DRowRealMatrix(slopes(u, value, residuals), false));
        };
        try {
            new LevenbergMarquardtOptimizer()
                    .withCostRelativeTolerance(1e-4)
                    .withParameterRelativeTolerance(1e-7)
                    .optimize(new LeastSquaresBuilder()
                            .start(start)
                            .model(model)
                            .target(new double[residuals.apply(start).length])
                            .maxEvaluations(ROUNDS)
                            .maxIterations(ROUNDS)
                            .build());
        } catch (MathRuntimeException e) {
            // a valley that is too flat, or too long
        }
        return best[0];
    }

    private static double[][] slopes(double[] u, double[] value, UnaryOperator<double[]> residuals) {
        double[][] out = new double[value.length][u.length];
        for (int k = 0; k < u.length; k++) {
            double[] moved = u.clone();
            moved[k] += STEP;
            double[] other = residuals.apply(moved);
            for (int i = 0; i < value.length; i++) {
                out[i][k] = (other[i] - value[i]) / STEP;
            }
        }
        return out;
    }
}
