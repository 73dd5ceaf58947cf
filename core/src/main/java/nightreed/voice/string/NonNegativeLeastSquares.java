package nightreed.voice.string;

import java.util.Arrays;

/**
 * Weighted least squares with amounts not below 0, for few of them: what comes out below is left out, and the rest solved anew (after C.
 * Lawson, R. Hanson, "Solving Least Squares Problems", 1974). Allocates in its constructor only, as strings are designed while notes sound.
 */
final class NonNegativeLeastSquares {
    private final double[][] matrix;
    private final double[] right;
    private final boolean[] free;

    /** @param count of amounts */
    NonNegativeLeastSquares(int count) {
        matrix = new double[count][count];
        right = new double[count];
        free = new boolean[count];
    }

    /**
     * @param shape  what one of each gives at each point [amount][point]
     * @param needed what they are to add up to at each point
     * @param weight of each point
     * @param points how many of them count
     * @param amount filled with the amounts
     */
    void solve(double[][] shape, double[] needed, double[] weight, int points, double[] amount) {
        Arrays.fill(free, true);
        boolean again = true;
        while (again) {
            normalEquations(shape, needed, weight, points);
            eliminate();
            again = false;
            for (int k = 0; k < free.length; k++) {
                amount[k] = free[k] ? right[k] : 0;
                if (amount[k] < 0) {
                    free[k] = false;
                    again = true;
                }
            }
        }
    }

    private void normalEquations(double[][] shape, double[] needed, double[] weight, int points) {
        int n = free.length;
        for (int j = 0; j < n; j++) {
            double r = 0;
            for (int k = 0; k < n; k++) {
                double sum = 0;
                for (int i = 0; i < points && free[j] && free[k]; i++) {
                    sum += weight[i] * shape[j][i] * shape[k][i];
                }
                // a little more on the diagonal: there may be fewer points than amounts
                sum = j == k ? sum * (1 + 1e-10) + 1e-12 : sum;
                matrix[j][k] = free[j] && free[k] ? sum : j == k ? 1 : 0;
            }
            for (int i = 0; i < points && free[j]; i++) {
                r += weight[i] * shape[j][i] * needed[i];
            }
            right[j] = r;
        }
    }

    /** The solution is left in {@code right}. The matrix is positive definite, so that no pivots are needed. */
    private void eliminate() {
        int n = free.length;
        for (int c = 0; c < n; c++) {
            for (int j = c + 1; j < n; j++) {
                double q = matrix[j][c] / matrix[c][c];
                for (int k = c; k < n; k++) {
                    matrix[j][k] -= q * matrix[c][k];
                }
                right[j] -= q * right[c];
            }
        }
        for (int c = n - 1; c >= 0; c--) {
            for (int k = c + 1; k < n; k++) {
                right[c] -= matrix[c][k] * right[k];
            }
            right[c] /= matrix[c][c];
        }
    }
}
