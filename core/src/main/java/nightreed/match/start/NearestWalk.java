package nightreed.match.start;

import java.util.function.BiFunction;
import java.util.function.UnaryOperator;
import org.hipparchus.exception.MathRuntimeException;
import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.ArrayRealVector;
import org.hipparchus.linear.CholeskyDecomposition;

/**
 * A walk along slopes to where residuals are least (K. Levenberg, 1944; D. Marquardt, 1963), with differences for slopes. No
 * step takes an unknown further than 1 on its ruler: the radius that the usual ones begin with jumps out of the hollow which
 * a start was chosen for, and they end there.
 */
public final class NearestWalk {
    private static final int ROUNDS = 25;
    private static final double ENOUGH = 1e-4;
    private static final double STEP = 1e-4;
    private static final double FAR = 1;

    private static final double DAMPING = 0.01;
    private static final double LEAST_DAMPING = 1e-7;
    private static final double LESS = 5;
    private static final double MORE = 4;
    private static final int TRIES = 8;

    /** What keeps unknowns that make no difference where they are, as shares of the steepest square. */
    private static final double FLAT = 1e-3;

    private static final double LEAST = 1e-6;

    /** What is further off than so many times what matters is a stray, and counts hardly more for being further. */
    private static final double STRAY = 3;

    private NearestWalk() {}

    /** A residual over what matters, at the most {@link #STRAY} (after S. Geman, D. McClure, 1987). */
    static double bent(double r) {
        return r / Math.sqrt(1 + r * r / (STRAY * STRAY));
    }

    /** With as many rounds as are worth it. */
    static double[] from(double[] start, UnaryOperator<double[]> residuals) {
        return from(start, ROUNDS, ENOUGH, residuals);
    }

    /**
     * The best place that was met, also where the walk has not come to its end.
     *
     * @param start     unknowns, each on a ruler on which 1 is far
     * @param rounds    at the most
     * @param enough    share of the cost that a round has to gain for another one
     * @param residuals of unknowns; as many as ever
     */
    public static double[] from(double[] start, int rounds, double enough, UnaryOperator<double[]> residuals) {
        return from(start, rounds, enough, residuals, (at, value) -> slopes(at, value, residuals));
    }

    /** The same with slopes that are told. @param slopes of unknowns and the residuals there [unknown][residual] */
    static double[] from(
            double[] start,
            int rounds,
            double enough,
            UnaryOperator<double[]> residuals,
            BiFunction<double[], double[], double[][]> slopes) {
        double[] at = start.clone();
        double[] value = residuals.apply(at);
        double cost = dot(value, value);
        double damping = DAMPING;
        boolean worth = true;
        for (int round = 0; round < rounds && worth; round++) {
            Normal normal = Normal.of(value, slopes.apply(at, value));
            double before = cost;
            boolean nearer = false;
            for (int tries = 0; tries < TRIES && !nearer; tries++) {
                double[] next = stepped(at, normal.step(damping));
                double[] there = residuals.apply(next);
                double c = dot(there, there);
                nearer = c < cost;
                if (nearer) {
                    at = next;
                    value = there;
                    cost = c;
                }
                damping = nearer ? Math.max(LEAST_DAMPING, damping / LESS) : damping * MORE;
            }
            worth = nearer && before - cost > enough * before;
        }
        return at;
    }

    /** Of every residual by each unknown [unknown][residual]. */
    private static double[][] slopes(double[] at, double[] value, UnaryOperator<double[]> residuals) {
        double[][] out = new double[at.length][];
        for (int k = 0; k < at.length; k++) {
            double[] moved = at.clone();
            moved[k] += STEP;
            double[] other = residuals.apply(moved);
            out[k] = new double[other.length];
            for (int i = 0; i < other.length; i++) {
                out[k][i] = (other[i] - value[i]) / STEP;
            }
        }
        return out;
    }

    private static double[] stepped(double[] at, double[] step) {
        double[] out = at.clone();
        for (int k = 0; k < out.length; k++) {
            out[k] += Math.max(-FAR, Math.min(FAR, step[k]));
        }
        return out;
    }

    /** Products of the slopes with each other, and of each with what there is to lose. */
    private record Normal(double[][] matrix, double[] right, double steepest) {
        static Normal of(double[] value, double[][] slopes) {
            int n = slopes.length;
            double[][] matrix = new double[n][n];
            double[] right = new double[n];
            double steepest = 0;
            for (int k = 0; k < n; k += 2) {
                for (int l = 0; l <= k; l += 2) {
                    fill(matrix, slopes, k, l);
                }
            }
            for (int k = 0; k < n; k++) {
                for (int l = 0; l < k; l++) {
                    matrix[l][k] = matrix[k][l];
                }
                right[k] = -dot(slopes[k], value);
                steepest = Math.max(steepest, matrix[k][k]);
            }
            return new Normal(matrix, right, steepest);
        }

        /** Products of two rows with two others at once, which costs half as much as each by itself. */
        private static void fill(double[][] matrix, double[][] slopes, int k, int l) {
            int n = slopes.length;
            int nextK = Math.min(n - 1, k + 1);
            int nextL = Math.min(n - 1, l + 1);
            double[] a = slopes[k];
            double[] b = slopes[nextK];
            double[] c = slopes[l];
            double[] d = slopes[nextL];
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

        double[] step(double damping) {
            double[][] damped = new double[right.length][];
            for (int k = 0; k < damped.length; k++) {
                damped[k] = matrix[k].clone();
                damped[k][k] += damping * (matrix[k][k] + FLAT * steepest) + LEAST * steepest;
            }
            try {
                return new CholeskyDecomposition(new Array2DRowRealMatrix(damped, false), LEAST, 0)
                        .getSolver()
                        .solve(new ArrayRealVector(right, false))
                        .toArray();
            } catch (MathRuntimeException degenerate) {
                return new double[right.length];
            }
        }
    }

    private static double dot(double[] a, double[] b) {
        double first = 0; // of four sums, as each addition waits for the one before
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
