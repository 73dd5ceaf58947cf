package nightreed.optim;

import org.hipparchus.exception.MathRuntimeException;
import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.QRDecomposition;

/**
 * Where a search ended.
 *
 * @param point      the best parameters that were met
 * @param residuals  there
 * @param cost       sum of the squared residuals
 * @param iterations steps that were tried, accepted or not
 * @param ending     why it ended
 * @param jacobian   at the point or the accepted point before it [parameter][residual]; null if none was computed
 */
public record Solution(
        double[] point, double[] residuals, double cost, int iterations, Ending ending, double[][] jacobian) {
    /** Why a search ended. */
    public enum Ending {
        /** The last accepted step lowered the cost by less than the tolerance. */
        COST_CONVERGED,
        /** No damping led to a lower cost. */
        NO_DECREASE,
        /** As many iterations as allowed. */
        ITERATION_LIMIT,
        /** The caller asked to stop. */
        STOPPED
    }

    /**
     * Covariance of the parameters for independent residuals of equal variance: (JᵀJ)⁻¹ cost / (residuals - parameters)
     * [parameter][parameter]; null if the residuals do not determine all parameters.
     */
    public double[][] covariance() {
        if (jacobian == null || residuals.length <= point.length) {
            return null;
        }
        int n = point.length;
        double[][] normal = new double[n][n];
        for (int k = 0; k < n; k++) {
            for (int l = 0; l <= k; l++) {
                normal[k][l] = LevenbergMarquardt.dot(jacobian[k], jacobian[l]);
                normal[l][k] = normal[k][l];
            }
        }
        double[] scale = new double[n]; // unit diagonal, so that rank is judged alike for all units
        for (int k = 0; k < n; k++) {
            scale[k] = 1 / Math.sqrt(Math.max(1e-300, normal[k][k]));
        }
        for (int k = 0; k < n; k++) {
            for (int l = 0; l < n; l++) {
                normal[k][l] *= scale[k] * scale[l];
            }
        }
        double[][] inverse;
        try {
            inverse = new QRDecomposition(new Array2DRowRealMatrix(normal, false), 1e-12)
                    .getSolver()
                    .getInverse()
                    .getData();
        } catch (MathRuntimeException singular) {
            return null;
        }
        double variance = cost / (residuals.length - n);
        for (int k = 0; k < n; k++) {
            for (int l = 0; l < n; l++) {
                inverse[k][l] *= variance * scale[k] * scale[l];
            }
        }
        return inverse;
    }
}
