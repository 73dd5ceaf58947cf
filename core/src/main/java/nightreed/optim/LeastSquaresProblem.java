package nightreed.optim;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.UnaryOperator;

/** A vector of residuals that depends on a vector of parameters; the sum of its squares is to be as small as possible. */
@FunctionalInterface
public interface LeastSquaresProblem {
    /** Step of a parameter for a forward difference, in its own unit; chosen: callers scale parameters so that 1 is large. */
    double DIFFERENCE_STEP = 1e-4;

    /**
     * Residuals at a point.
     *
     * @param point parameters; not to be changed
     * @return new array, of the same length for every point
     */
    double[] residuals(double[] point);

    /** Residuals at several points; a problem may compute them in parallel. A null entry means that it was not computed. */
    default List<double[]> residualsOfAll(List<double[]> points) {
        List<double[]> out = new ArrayList<>();
        points.forEach(p -> out.add(residuals(p)));
        return out;
    }

    /**
     * Derivative of every residual by every parameter [parameter][residual], by forward differences unless a problem knows better.
     * A row of zeros keeps its parameter where it is.
     *
     * @param residuals at the point
     */
    default double[][] jacobian(double[] point, double[] residuals) {
        double[][] out = new double[point.length][];
        for (int k = 0; k < out.length; k++) {
            double[] moved = point.clone();
            moved[k] += DIFFERENCE_STEP;
            double[] row = residuals(moved);
            for (int i = 0; i < row.length; i++) {
                row[i] = (row[i] - residuals[i]) / DIFFERENCE_STEP;
            }
            out[k] = row;
        }
        return out;
    }

    /** Largest change of each parameter in one iteration, in its own unit; infinite where there is no limit. */
    default double[] stepLimits(double[] point) {
        double[] out = new double[point.length];
        Arrays.fill(out, Double.POSITIVE_INFINITY);
        return out;
    }

    /** The nearest point that is allowed; a problem with bounds overrides it. @param point may be changed and returned */
    default double[] bounded(double[] point) {
        return point;
    }

    /** A problem whose parameters change by at most {@code limit} in one iteration, with forward differences. */
    static LeastSquaresProblem limited(double limit, UnaryOperator<double[]> residuals) {
        return new LeastSquaresProblem() {
            @Override
            public double[] residuals(double[] point) {
                return residuals.apply(point);
            }

            @Override
            public double[] stepLimits(double[] point) {
                double[] out = new double[point.length];
                Arrays.fill(out, limit);
                return out;
            }
        };
    }
}
