package nightreed.measure.partial;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import org.junit.jupiter.api.Test;

/** Least squares of complex vectors, which stand as real and imaginary parts in turn. */
class HermitianSystemTest {
    private static final Random CHANCE = new Random(5);

    private static double[] vector(int numbers) {
        return CHANCE.doubles(2L * numbers, -1, 1).toArray();
    }

    private static void add(double[] to, double re, double im, double[] v) {
        for (int b = 0; b < v.length; b += 2) {
            to[b] += re * v[b] - im * v[b + 1];
            to[b + 1] += re * v[b + 1] + im * v[b];
        }
    }

    @Test
    void theMultiplesOfASumComeOut() {
        double[][] vectors = {vector(9), vector(9), vector(9)};
        double[] sum = new double[18];
        add(sum, 0.7, -1.2, vectors[0]);
        add(sum, -3, 0.1, vectors[1]);
        add(sum, 0, 2.5, vectors[2]);
        assertThat(new HermitianSystem(vectors).nearest(sum))
                .containsExactly(new double[] {0.7, -1.2, -3, 0.1, 0, 2.5}, within(1e-9));
    }

    @Test
    void whatIsLeftStandsAtRightAnglesToAllVectors() {
        double[][] vectors = {vector(7), vector(7)};
        double[] left = vector(7);
        double[] x = new HermitianSystem(vectors).nearest(left);
        for (int i = 0; i < 2; i++) {
            add(left, -x[2 * i], -x[2 * i + 1], vectors[i]);
        }
        assertThat(new HermitianSystem(vectors).nearest(left)).containsOnly(new double[] {0, 0, 0, 0}, within(1e-10));
    }

    @Test
    void theInverseOfVectorsAtRightAnglesIsThatOfTheirSquares() {
        double[][] vectors = {{0, 2, 0, 0}, {0, 0, 3, 4}};
        assertThat(new HermitianSystem(vectors).inverseDiagonal())
                .containsExactly(new double[] {1 / 4.0, 1 / 25.0}, within(1e-9));
    }

    @Test
    void nothingIsSaidOfVectorsThatAreNone() {
        HermitianSystem none = new HermitianSystem(new double[][] {new double[6]});
        assertThat(none.nearest(vector(3))).isNull();
        assertThat(none.inverseDiagonal()).isNull();
    }
}
