package nightreed.optim;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;
import nightreed.optim.LevenbergMarquardt.Options;
import nightreed.optim.Solution.Ending;
import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.ArrayRealVector;
import org.hipparchus.optim.nonlinear.vector.leastsquares.LeastSquaresFactory;
import org.hipparchus.optim.nonlinear.vector.leastsquares.LeastSquaresOptimizer.Optimum;
import org.hipparchus.optim.nonlinear.vector.leastsquares.LevenbergMarquardtOptimizer;
import org.hipparchus.util.Pair;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** Standard problems of J. Moré, B. Garbow, K. Hillstrom, "Testing Unconstrained Optimization Software", 1981. */
class LevenbergMarquardtTest {
    private static final Options EXACT =
            Options.USUAL.precise().withMostIterations(400).withCostTolerance(1e-15);

    record Standard(String name, UnaryOperator<double[]> residuals, double[] start, double[] at, double cost) {
        @Override
        public String toString() {
            return name;
        }
    }

    /** Minima as the paper gives them; a null point is one that the paper gives as a cost only. */
    static Stream<Standard> standards() {
        double[] bard = {0.14, 0.18, 0.22, 0.25, 0.29, 0.32, 0.35, 0.39, 0.37, 0.58, 0.73, 0.96, 1.34, 2.10, 4.39};
        double[] kowalik = {0.1957, 0.1947, 0.1735, 0.1600, 0.0844, 0.0627, 0.0456, 0.0342, 0.0323, 0.0235, 0.0246};
        double[] u = {4, 2, 1, 0.5, 0.25, 0.167, 0.125, 0.1, 0.0833, 0.0714, 0.0625};
        return Stream.of(
                new Standard(
                        "Rosenbrock",
                        x -> new double[] {10 * (x[1] - x[0] * x[0]), 1 - x[0]},
                        new double[] {-1.2, 1},
                        new double[] {1, 1},
                        0),
                new Standard(
                        "helical valley",
                        x -> {
                            double turn = Math.atan2(x[1], x[0]) / (2 * Math.PI);
                            return new double[] {10 * (x[2] - 10 * turn), 10 * (Math.hypot(x[0], x[1]) - 1), x[2]};
                        },
                        new double[] {-1, 0, 0},
                        new double[] {1, 0, 0},
                        0),
                new Standard(
                        "Powell singular",
                        x -> new double[] {
                            x[0] + 10 * x[1],
                            Math.sqrt(5) * (x[2] - x[3]),
                            Math.pow(x[1] - 2 * x[2], 2),
                            Math.sqrt(10) * Math.pow(x[0] - x[3], 2)
                        },
                        new double[] {3, -1, 0, 1},
                        null,
                        0),
                new Standard(
                        "Freudenstein and Roth, local minimum",
                        x -> new double[] {
                            -13 + x[0] + ((5 - x[1]) * x[1] - 2) * x[1], -29 + x[0] + ((x[1] + 1) * x[1] - 14) * x[1]
                        },
                        new double[] {0.5, -2},
                        new double[] {11.4128, -0.896805},
                        48.9842),
                new Standard(
                        "Bard",
                        x -> {
                            double[] r = new double[15];
                            for (int i = 1; i <= 15; i++) {
                                double v = 16 - i;
                                r[i - 1] = bard[i - 1] - (x[0] + i / (v * x[1] + Math.min(i, v) * x[2]));
                            }
                            return r;
                        },
                        new double[] {1, 1, 1},
                        new double[] {0.08241, 1.1330, 2.3437},
                        8.21487e-3),
                new Standard(
                        "Kowalik and Osborne",
                        x -> {
                            double[] r = new double[11];
                            for (int i = 0; i < 11; i++) {
                                r[i] = kowalik[i]
                                        - x[0] * (u[i] * u[i] + u[i] * x[1]) / (u[i] * u[i] + u[i] * x[2] + x[3]);
                            }
                            return r;
                        },
                        new double[] {0.25, 0.39, 0.415, 0.39},
                        null,
                        3.07505e-4),
                new Standard(
                        "box three-dimensional",
                        x -> {
                            double[] r = new double[10];
                            for (int i = 0; i < 10; i++) {
                                double t = 0.1 * (i + 1);
                                r[i] = Math.exp(-t * x[0])
                                        - Math.exp(-t * x[1])
                                        - x[2] * (Math.exp(-t) - Math.exp(-10 * t));
                            }
                            return r;
                        },
                        new double[] {0, 10, 20},
                        new double[] {1, 10, 1},
                        0));
    }

    @ParameterizedTest
    @MethodSource("standards")
    void findsTheMinimaOfStandardProblems(Standard p) {
        Solution found = LevenbergMarquardt.minimize(p.residuals::apply, p.start, EXACT);
        assertThat(found.cost()).isCloseTo(p.cost, within(2e-6 * Math.max(0.01, p.cost))); // the paper prints 6 digits
        if (p.at != null) {
            for (int k = 0; k < p.at.length; k++) { // forward differences of 1e-4 leave about as much
                assertThat(found.point()[k]).isCloseTo(p.at[k], within(3e-3 * Math.max(1, Math.abs(p.at[k]))));
            }
        }
    }

    @ParameterizedTest
    @MethodSource("standards")
    void agreesWithAnIndependentSolver(Standard p) {
        LeastSquaresProblem mine = p.residuals::apply;
        Optimum other = new LevenbergMarquardtOptimizer()
                .optimize(LeastSquaresFactory.create(
                        point -> {
                            double[] r = p.residuals.apply(point.toArray());
                            double[][] j = mine.jacobian(point.toArray(), r);
                            return new Pair<>(new ArrayRealVector(r), new Array2DRowRealMatrix(j).transpose());
                        },
                        new ArrayRealVector(new double[p.residuals.apply(p.start).length]),
                        new ArrayRealVector(p.start),
                        null,
                        1000,
                        1000));
        double theirs = other.getRMS() * other.getRMS() * p.residuals.apply(p.start).length;
        Solution found = LevenbergMarquardt.minimize(mine, p.start, EXACT);
        // at least as low: of two local minima either solver may take the other
        assertThat(found.cost()).isLessThan(theirs * (1 + 1e-4) + 1e-9);
    }

    @Test
    void theCovarianceIsThatOfALineFitInClosedForm() {
        Random random = new Random(5);
        int n = 200;
        double[] t = new double[n];
        double[] y = new double[n];
        for (int i = 0; i < n; i++) {
            t[i] = i / 50.0;
            y[i] = 2 - 0.7 * t[i] + 0.1 * random.nextGaussian();
        }
        Solution found = LevenbergMarquardt.minimize(
                p -> {
                    double[] r = new double[n];
                    for (int i = 0; i < n; i++) {
                        r[i] = p[0] + p[1] * t[i] - y[i];
                    }
                    return r;
                },
                new double[2],
                EXACT);
        double mean = Arrays.stream(t).average().orElseThrow();
        double spread = Arrays.stream(t).map(v -> (v - mean) * (v - mean)).sum();
        double variance = found.cost() / (n - 2);
        double[][] covariance = found.covariance();
        assertThat(covariance[1][1]).isCloseTo(variance / spread, within(1e-6 * variance / spread));
        assertThat(covariance[0][1]).isCloseTo(-mean * variance / spread, within(1e-6 * variance / spread));
    }

    @Test
    void noStepIsLongerThanItsLimitAndNoPointOutOfBounds() {
        double[] last = {Double.NaN};
        LeastSquaresProblem far = new LeastSquaresProblem() {
            @Override
            public double[] residuals(double[] x) {
                assertThat(x[0]).isBetween(0.0, 7.5);
                return new double[] {x[0] - 20};
            }

            @Override
            public double[][] jacobian(double[] x, double[] r) {
                if (!Double.isNaN(last[0])) {
                    assertThat(Math.abs(x[0] - last[0])).isLessThanOrEqualTo(2);
                }
                last[0] = x[0];
                return new double[][] {{1}};
            }

            @Override
            public double[] stepLimits(double[] x) {
                return new double[] {2};
            }

            @Override
            public double[] bounded(double[] x) {
                return new double[] {Math.max(0, Math.min(7.5, x[0]))};
            }
        };
        assertThat(LevenbergMarquardt.minimize(far, new double[] {0}, EXACT).point()[0])
                .isEqualTo(7.5);
    }

    @Test
    void aParameterWithoutEffectStaysWhereItIs() {
        double[] end = LevenbergMarquardt.nearest(new double[] {3, 0.25}, x -> new double[] {x[0] - 1, 2 * x[0] - 2});
        assertThat(end[0]).isCloseTo(1, within(1e-3));
        assertThat(end[1]).isEqualTo(0.25);
    }

    @Test
    void saysWhyItEndedAndNeverReturnsWorseThanTheStart() {
        LeastSquaresProblem valley = x -> new double[] {10 * (x[1] - x[0] * x[0]), 1 - x[0]};
        double[] start = {-1.2, 1};
        assertThat(LevenbergMarquardt.minimize(valley, start, EXACT.withMostIterations(2))
                        .ending())
                .isEqualTo(Ending.ITERATION_LIMIT);
        assertThat(LevenbergMarquardt.minimize(valley, new double[] {1, 1}, EXACT)
                        .ending())
                .isEqualTo(Ending.NO_DECREASE);
        int[] asked = {0};
        Solution stopped = LevenbergMarquardt.minimize(valley, start, EXACT, () -> ++asked[0] > 6);
        assertThat(stopped.ending()).isEqualTo(Ending.STOPPED);
        assertThat(stopped.cost()).isLessThanOrEqualTo(24.2);
    }

    @Test
    void aCorrectedJacobianSavesJacobiansAndEndsAtTheSamePoint() {
        int[] jacobians = {0, 0};
        double[][] ends = new double[2][];
        for (int i = 0; i < 2; i++) {
            int which = i;
            LeastSquaresProblem p = new LeastSquaresProblem() {
                @Override
                public double[] residuals(double[] x) {
                    return new double[] {x[0] - 1 + 0.2 * x[1] * x[1], x[1] - 2 + 0.1 * x[0] * x[1], 0.3 * x[0]};
                }

                @Override
                public double[][] jacobian(double[] x, double[] r) {
                    jacobians[which]++;
                    return LeastSquaresProblem.super.jacobian(x, r);
                }
            };
            Options options = i == 0 ? EXACT : EXACT.dearResiduals(List.of(0.1, 1.0, 10.0));
            ends[i] = LevenbergMarquardt.minimize(p, new double[] {3, -1}, options)
                    .point();
        }
        assertThat(jacobians[1]).isLessThan(jacobians[0]);
        assertThat(ends[1][0]).isCloseTo(ends[0][0], within(1e-4));
        assertThat(ends[1][1]).isCloseTo(ends[0][1], within(1e-4));
    }
}
