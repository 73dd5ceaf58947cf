package nightreed.measure.partial;

import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.ArrayRealVector;
import org.hipparchus.linear.DecompositionSolver;
import org.hipparchus.linear.LUDecomposition;

/**
 * Normal equations of complex vectors: what multiples of them come nearest to another. Each complex number a + jb stands as the real
 * matrix [a, -b; b, a], so that a solver of real equations will do. Vectors are interleaved: real part, imaginary part, and so on.
 */
final class HermitianSystem {
    /** Added to the diagonal as a share of it, so that vectors that are alike can be solved for; far below rounding of the data. */
    private static final double REGULARISATION = 1e-12;

    private final double[][] vectors;
    private final DecompositionSolver solver;

    /** @param vectors of one length, at least one */
    HermitianSystem(double[][] vectors) {
        this.vectors = vectors;
        int k = vectors.length;
        double[][] a = new double[2 * k][2 * k];
        double[] product = new double[2];
        for (int i = 0; i < k; i++) {
            for (int j = 0; j <= i; j++) {
                inner(vectors[i], vectors[j], product, 0);
                put(a, i, j, product[0], product[1]);
            }
            a[2 * i][2 * i] *= 1 + REGULARISATION;
            a[2 * i + 1][2 * i + 1] *= 1 + REGULARISATION;
        }
        solver = new LUDecomposition(new Array2DRowRealMatrix(a, false), Double.MIN_NORMAL).getSolver();
    }

    private static void put(double[][] a, int i, int j, double re, double im) {
        a[2 * i][2 * j] = re;
        a[2 * i][2 * j + 1] = -im;
        a[2 * i + 1][2 * j] = im;
        a[2 * i + 1][2 * j + 1] = re;
        a[2 * j][2 * i] = re;
        a[2 * j][2 * i + 1] = im;
        a[2 * j + 1][2 * i] = -im;
        a[2 * j + 1][2 * i + 1] = re;
    }

    /** The multiples of the vectors whose sum is nearest to another, interleaved; null if they cannot be told apart. */
    double[] nearest(double[] other) {
        if (!solver.isNonSingular()) {
            return null;
        }
        double[] right = new double[2 * vectors.length];
        for (int i = 0; i < vectors.length; i++) {
            inner(vectors[i], other, right, 2 * i);
        }
        return solver.solve(new ArrayRealVector(right, false)).toArray();
    }

    /** Diagonal of the inverse of their inner products; null if they cannot be told apart. */
    double[] inverseDiagonal() {
        if (!solver.isNonSingular()) {
            return null;
        }
        double[][] inverse = solver.getInverse().getData();
        double[] out = new double[vectors.length];
        for (int i = 0; i < out.length; i++) {
            out[i] = inverse[2 * i][2 * i];
        }
        return out;
    }

    /** Inner product conj(u)·v, put as real and imaginary part at {@code at} and the place after it. */
    private static void inner(double[] u, double[] v, double[] out, int at) {
        double re = 0;
        double im = 0;
        for (int b = 0; b < u.length; b += 2) {
            re += u[b] * v[b] + u[b + 1] * v[b + 1];
            im += u[b] * v[b + 1] - u[b + 1] * v[b];
        }
        out[at] = re;
        out[at + 1] = im;
    }
}
