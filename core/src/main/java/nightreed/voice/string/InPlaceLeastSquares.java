package nightreed.voice.string;

import java.util.Arrays;

/**
 * Levenberg-Marquardt with bounds for a handful of values (K. Levenberg 1944, D. Marquardt 1963; bounds by holding what
 * stands at one and is pushed beyond it). It is here beside {@link nightreed.optim} because filters of strings are designed
 * while notes sound: only the constructor allocates.
 */
final class InPlaceLeastSquares {
    private static final double FIRST_DAMPING = 1e-2;
    private static final double LEAST_DAMPING = 1e-8;
    private static final int TRIES = 6; // dampings before a round is given up

    /** A round that betters the sum of squares by less than this share is the last. */
    private static final double LITTLE = 1e-6;

    /** What is to be made small. */
    interface Residuals {
        /**
         * @param values    at which
         * @param residuals receives one for each point
         * @param slopes    receives derivatives [point][value]; null if they are not wanted
         */
        void at(double[] values, double[] residuals, double[][] slopes);
    }

    /** Least values, then largest; what one round may move each by. Set before {@link #solve}. */
    final double[] low;

    final double[] high;
    final double[] step;

    private final double[][] slopes;
    private final double[][] matrix;
    private final double[] gradient;
    private final double[] right;
    private final double[] residuals;
    private final double[] tried;
    private final double[] triedResiduals;

    InPlaceLeastSquares(int mostValues, int mostPoints) {
        low = new double[mostValues];
        high = new double[mostValues];
        step = new double[mostValues];
        slopes = new double[mostPoints][mostValues];
        matrix = new double[mostValues][mostValues];
        gradient = new double[mostValues];
        right = new double[mostValues];
        tried = new double[mostValues];
        residuals = new double[mostPoints];
        triedResiduals = new double[mostPoints];
    }

    /**
     * Moves the values to where the squares are least nearby.
     *
     * @param values  start, within the bounds; receives the result
     * @param enough  sum of squares that needs no further round
     * @return the sum of squares there
     */
    double solve(Residuals model, double[] values, int count, int points, int rounds, double enough) {
        model.at(values, residuals, slopes);
        double cost = squares(residuals, points);
        double damping = FIRST_DAMPING;
        for (int round = 0; round < rounds && cost > enough; round++) {
            double before = cost;
            for (int t = 0; t < TRIES && cost == before; t++) {
                propose(values, count, points, damping);
                model.at(tried, triedResiduals, null);
                double next = squares(triedResiduals, points);
                if (next < cost) {
                    cost = next;
                    System.arraycopy(tried, 0, values, 0, count);
                    damping = Math.max(LEAST_DAMPING, damping / 5);
                } else {
                    damping *= 4;
                }
            }
            if (cost > (1 - LITTLE) * before) {
                break;
            }
            model.at(values, residuals, slopes);
        }
        return cost;
    }

    private void propose(double[] values, int count, int points, double damping) {
        for (int j = 0; j < count; j++) {
            double g = 0;
            for (int i = 0; i < points; i++) {
                g += slopes[i][j] * residuals[i];
            }
            gradient[j] = g;
        }
        for (int j = 0; j < count; j++) {
            boolean free = isFree(values, j);
            right[j] = free ? -gradient[j] : 0;
            for (int k = 0; k <= j; k++) {
                double sum = 0;
                if (free && isFree(values, k)) {
                    for (int i = 0; i < points; i++) {
                        sum += slopes[i][j] * slopes[i][k];
                    }
                }
                matrix[j][k] = sum;
                matrix[k][j] = sum;
            }
            matrix[j][j] = free ? matrix[j][j] * (1 + damping) + 1e-12 : 1;
        }
        eliminate(count);
        for (int j = 0; j < count; j++) {
            double by = Math.max(-step[j], Math.min(step[j], right[j]));
            tried[j] = Math.max(low[j], Math.min(high[j], values[j] + by));
        }
    }

    private boolean isFree(double[] values, int j) {
        return !(values[j] <= low[j] && gradient[j] > 0 || values[j] >= high[j] && gradient[j] < 0);
    }

    /** The solution is left in {@code right}. The matrix is positive definite, so that no pivots are needed. */
    private void eliminate(int n) {
        for (int c = 0; c < n; c++) {
            for (int j = c + 1; j < n; j++) {
                double q = matrix[j][c] / matrix[c][c];
                if (q != 0) {
                    for (int k = c; k < n; k++) {
                        matrix[j][k] -= q * matrix[c][k];
                    }
                    right[j] -= q * right[c];
                }
            }
        }
        for (int c = n - 1; c >= 0; c--) {
            for (int k = c + 1; k < n; k++) {
                right[c] -= matrix[c][k] * right[k];
            }
            right[c] /= matrix[c][c];
        }
    }

    private static double squares(double[] r, int points) {
        double sum = 0;
        for (int i = 0; i < points; i++) {
            sum += r[i] * r[i];
        }
        return Double.isNaN(sum) ? Double.POSITIVE_INFINITY : sum;
    }

    /** Every value free and one round's step without limit. */
    void unbound() {
        Arrays.fill(low, Double.NEGATIVE_INFINITY);
        Arrays.fill(high, Double.POSITIVE_INFINITY);
        Arrays.fill(step, Double.POSITIVE_INFINITY);
    }
}
