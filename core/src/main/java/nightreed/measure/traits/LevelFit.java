package nightreed.measure.traits;

import org.hipparchus.exception.MathRuntimeException;
import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.ArrayRealVector;
import org.hipparchus.linear.RealMatrix;
import org.hipparchus.linear.RealVector;
import org.hipparchus.optim.nonlinear.vector.leastsquares.LeastSquaresBuilder;
import org.hipparchus.optim.nonlinear.vector.leastsquares.LeastSquaresOptimizer;
import org.hipparchus.optim.nonlinear.vector.leastsquares.LevenbergMarquardtOptimizer;
import org.hipparchus.util.Pair;

/** Least squares of a curve in dB over the lines of a spectrum; under its floor a curve costs nothing. */
final class LevelFit {
    /** No instrument's lines follow a simple curve more closely than this [dB]. */
    private static final double LEAST_DB = 0.25;

    /** A curve over the lines of a spectrum. */
    interface Curve {
        /** @return level of line {@code i} (from 0) [dB] */
        double db(int i, double[] unknowns);
    }

    /**
     * A fitted curve.
     *
     * @param unknowns its values
     * @param errors   their standard errors, infinite where the lines do not settle them
     * @param rmsDb    root mean square of what it leaves over [dB]
     * @param bic      Bayesian information criterion; the lower is the likelier
     * @param independent share of the lines that count as independent: where neighbours stray together, as over a body that
     *     the curve does not know, many lines say no more than a few
     */
    record Result(double[] unknowns, double[] errors, double rmsDb, double bic, double independent) {}

    private final Spectrum lines;
    private final Curve curve;
    private final double[] floor; // powers

    LevelFit(Spectrum lines, Curve curve) {
        this.lines = lines;
        this.curve = curve;
        this.floor = new double[lines.count()];
        for (int i = 0; i < floor.length; i++) {
            floor[i] = Math.pow(10, lines.floorDb()[i] / 10);
        }
    }

    /** Level of a line with the noise added [dB]. */
    private double seen(int i, double[] u) {
        double c = Math.max(-300, Math.min(300, curve.db(i, u)));
        return 10 * Math.log10(Math.pow(10, c / 10) + floor[i]);
    }

    /** Mean square that given unknowns leave over [dB²]. */
    double cost(double[] u) {
        double sum = 0;
        for (int i = 0; i < lines.count(); i++) {
            double e = target(i) - seen(i, u);
            sum += e * e / lines.count();
        }
        return sum;
    }

    /** The same for a curve given by the powers of its lines: what a search over many curves asks for. */
    double costOfPowers(double[] power) {
        double sum = 0;
        for (int i = 0; i < power.length; i++) {
            double e = target(i) - 10 * Math.log10(power[i] + floor[i]);
            sum += e * e / power.length;
        }
        return sum;
    }

    /** What is compared with {@link #seen}: a line at its floor is the floor and some of nothing. */
    private double target(int i) {
        return Math.max(lines.db()[i], lines.floorDb()[i]);
    }

    /** Polishes the unknowns from a start that is in the right valley (K. Levenberg 1944, D. Marquardt 1963). */
    Result polish(double[] start) {
        double[] target = new double[lines.count()];
        for (int i = 0; i < target.length; i++) {
            target[i] = target(i);
        }
        double[] u = start;
        double[] errors = new double[start.length];
        java.util.Arrays.fill(errors, Double.POSITIVE_INFINITY);
        try {
            LeastSquaresOptimizer.Optimum o = new LevenbergMarquardtOptimizer()
                    .optimize(new LeastSquaresBuilder()
                            .start(start)
                            .model(this::valueAndSlopes)
                            .target(target)
                            .maxEvaluations(60)
                            .maxIterations(60)
                            .build());
            u = o.getPoint().toArray();
            double free = Math.max(1, lines.count() - u.length);
            double left = Math.max(Math.sqrt(cost(u) * lines.count() / free), LEAST_DB);
            RealVector sigma = o.getSigma(1e-12);
            for (int k = 0; k < u.length; k++) {
                errors[k] = left * sigma.getEntry(k);
            }
        } catch (MathRuntimeException e) {
            // too flat a valley: the start stands, with errors unknown
            u = cost(u) <= cost(start) ? u : start;
        }
        return judge(u, errors);
    }

    private Result judge(double[] u, double[] errors) {
        double n = lines.count();
        double ms = Math.max(LEAST_DB * LEAST_DB, cost(u));
        return new Result(u, errors, Math.sqrt(cost(u)), n * Math.log(ms) + u.length * Math.log(n), independent(u));
    }

    /** (1 - ρ) / (1 + ρ) with the correlation ρ of neighbours (G. Bayley, J. Hammersley, 1946), at the most 1. */
    private double independent(double[] u) {
        double both = 0;
        double own = 1e-12;
        double before = 0;
        for (int i = 0; i < lines.count(); i++) {
            double e = target(i) - seen(i, u);
            both += e * before;
            own += e * e;
            before = e;
        }
        double rho = Math.max(0, Math.min(0.9, both / own));
        return (1 - rho) / (1 + rho);
    }

    private Pair<RealVector, RealMatrix> valueAndSlopes(RealVector at) {
        double[] u = at.toArray();
        int n = lines.count();
        double[] value = new double[n];
        double[][] slope = new double[n][u.length];
        for (int i = 0; i < n; i++) {
            value[i] = seen(i, u);
        }
        for (int k = 0; k < u.length; k++) {
            double h = 1e-5 * Math.max(1, Math.abs(u[k]));
            double[] v = u.clone();
            v[k] += h;
            for (int i = 0; i < n; i++) {
                slope[i][k] = (seen(i, v) - value[i]) / h;
            }
        }
        return new Pair<>(new ArrayRealVector(value, false), new Array2DRowRealMatrix(slope, false));
    }
}
