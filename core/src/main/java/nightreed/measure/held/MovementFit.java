package nightreed.measure.held;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.TreeMap;
import nightreed.measure.held.Movement.Ranked;
import nightreed.optim.LeastSquaresProblem;
import nightreed.optim.LevenbergMarquardt;
import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.ArrayRealVector;
import org.hipparchus.linear.LUDecomposition;

/**
 * Finds a swing in a path by least squares: level, slope and a sine that sets in late and grows.
 *
 * <p>The rate is looked for on a grid finer than half of what the length of the path can tell apart, then everything that is
 * not linear is refined by Gauss and Newton's method.
 */
final class MovementFit {
    private static final double LOWEST_HZ = 2;
    private static final double HIGHEST_HZ = 12;
    private static final int CLOSER_LOOKS = 24;

    /** Odds (twice the gain of log-likelihood) that a swing must have over none: noise of this colour deceives below. */
    private static final double LEAST_GAIN = 40;

    /** A swing that leaves over less than this part of the movement explains it. */
    private static final double REGULAR = 0.25;

    /** The valley of rate, start and ramp is smooth; chosen: the gain of log-likelihood is then exact to 1e-6. */
    private static final LevenbergMarquardt.Options OPTIONS =
            LevenbergMarquardt.Options.USUAL.precise().withMostIterations(40).withCostTolerance(1e-7);

    private final double[] t;
    private final double[] y;
    private final double[] w;
    private final double[] sin; // at each time, of the rate looked at last: many models in a row share it
    private final double[] cos;
    private double rateOfSin = Double.NaN;
    private final double[] ww = new double[6]; // weighted sums of 1, x, x², y, xy, y², with x from the middle

    /**
     * @param t times [s], rising
     * @param y values there
     * @param w weights, of the size of inverse variances
     */
    MovementFit(double[] t, double[] y, double[] w) {
        this.t = t;
        this.y = y;
        this.w = w;
        this.sin = new double[t.length];
        this.cos = new double[t.length];
        double mid = (t[0] + t[t.length - 1]) / 2;
        for (int i = 0; i < t.length; i++) {
            double x = t[i] - mid;
            ww[0] += w[i];
            ww[1] += w[i] * x;
            ww[2] += w[i] * x * x;
            ww[3] += w[i] * y[i];
            ww[4] += w[i] * x * y[i];
            ww[5] += w[i] * y[i] * y[i];
        }
    }

    private void turnAt(double rate) {
        if (rate != rateOfSin) {
            rateOfSin = rate;
            for (int i = 0; i < t.length; i++) {
                double angle = 2 * Math.PI * rate * (t[i] - t[0]);
                sin[i] = Math.sin(angle);
                cos[i] = Math.cos(angle);
            }
        }
    }

    /** Level that the path swings about, the slope [1/s] about its middle, and what swings or null. */
    record Result(double level, double slope, Movement movement) {}

    /** @param onset time from which delays count [s] */
    Result run(double onset) {
        double first = t[0];
        double last = t[t.length - 1];
        double length = last - first;
        Model still = new Model(0, 0, 0);
        if (length < 0.25 || t.length < 16) {
            return new Result(still.beta[0], still.beta[1], null);
        }
        Model best = null;
        double grid = 0.25 / length;
        // which rates are worth a closer look is told by a swing that is there from the start and one that comes late
        TreeMap<Double, Double> promising = new TreeMap<>(); // rates by cost
        for (double rate = Math.max(LOWEST_HZ, 1.5 / length); rate <= HIGHEST_HZ; rate += grid) {
            double cost = Math.min(
                    new Model(rate, first, 0.03 * length).cost,
                    new Model(rate, first + 0.4 * length, 0.2 * length).cost);
            promising.put(cost, rate);
            if (promising.size() > CLOSER_LOOKS) {
                promising.pollLastEntry();
            }
        }
        for (double rate : promising.values()) {
            for (double delay : new double[] {0, 0.12, 0.25, 0.4, 0.6}) {
                for (double ramp : new double[] {0.03, 0.2, 0.4}) {
                    if (delay + ramp < 0.75) {
                        Model m = new Model(rate, first + delay * length, ramp * length);
                        if (best == null || m.cost < best.cost) {
                            best = m;
                        }
                    }
                }
            }
        }
        best = refined(best, grid, length);
        double variance = best.cost / Math.max(1, effective() - 7);
        double gain = (still.cost - best.cost) / Math.max(variance, 1e-12);
        double cycles = best.rate * (last - Math.max(first, best.start + 0.5 * best.ramp));
        boolean there = gain > LEAST_GAIN && still.cost > 1.6 * best.cost && cycles >= 1.6;
        Model periodic = there ? best : still;
        if (periodic.cost > REGULAR * still.cost) {
            Result stepped = stepped(bic(periodic.cost, there ? 7 : 2), onset);
            if (stepped != null) {
                return stepped;
            }
        }
        if (!there) {
            return new Result(still.beta[0], still.beta[1], null);
        }
        double a = best.beta[2];
        double b = best.beta[3];
        double power = 0;
        double spread = 0;
        double middle = 0;
        for (int i = 0; i < t.length; i++) {
            double g = best.growth(t[i]);
            power += w[i] * g * g;
            middle += w[i] * g * g * t[i];
        }
        middle /= power;
        for (int i = 0; i < t.length; i++) {
            double g = best.growth(t[i]);
            spread += w[i] * g * g * (t[i] - middle) * (t[i] - middle);
        }
        double depth = Math.hypot(a, b);
        double depthSe = Math.sqrt(2 * variance / power);
        double rateSe = Math.sqrt(2 * variance / spread) / (2 * Math.PI * depth);
        Shaped shaped = shaped(best);
        Movement m = new Movement(
                best.rate,
                shaped.depth,
                Math.atan2(b, a) + 2 * Math.PI * best.rate * (best.start - t[0]),
                best.start - onset,
                best.ramp,
                rateSe,
                depthSe,
                shaped.shape,
                shaped.odds,
                shaped.ranked,
                List.of());
        return new Result(best.beta[0], best.beta[1], m);
    }

    /** @return null if steps do not explain the path better than a fit with the criterion {@code otherwise} */
    private Result stepped(double otherwise, double onset) {
        StepFit fit = new StepFit(t, y, w);
        StepFit.Steps s = fit.find();
        double gain = s == null ? 0 : otherwise - fit.bic(s);
        if (gain < LEAST_GAIN) {
            return null;
        }
        double low = Arrays.stream(s.levels()).min().orElse(0);
        double high = Arrays.stream(s.levels()).max().orElse(0);
        double spread = Math.sqrt(s.cost() / ww[0] * s.levels().length / t.length);
        double length = t[t.length - 1] - t[0];
        double odds = 1 / (1 + Math.exp(-0.5 * Math.min(700, gain)));
        Movement m = new Movement(
                s.rateHz(),
                (high - low) / 2,
                0,
                s.start() - onset,
                0,
                s.rateHz() * StepFit.GUARD_SECONDS / length,
                spread,
                Movement.Shape.STEPPED,
                odds,
                List.of(new Ranked(Movement.Shape.STEPPED, odds)),
                Arrays.stream(s.levels()).boxed().toList());
        return new Result(ww[3] / ww[0], 0, m);
    }

    private double effective() {
        return t.length;
    }

    /** Rate, start and ramp refined together; level, slope and depth follow from them by linear least squares. */
    private Model refined(Model start, double rateStep, double length) {
        LeastSquaresProblem problem = new LeastSquaresProblem() {
            @Override
            public double[] residuals(double[] p) {
                return model(p).residuals();
            }

            @Override
            public double[] stepLimits(double[] p) {
                return new double[] {1, 1, 1};
            }

            @Override
            public double[] bounded(double[] p) {
                double ramp = Math.max(0.01, p[2] * length / 10);
                double begin = Math.max(
                        t[0] - 0.15 * length, Math.min(t[0] + 0.8 * length - 0.5 * ramp, t[0] + p[1] * length / 12));
                double rate = Math.max(LOWEST_HZ / 2, Math.min(2 * HIGHEST_HZ, p[0] * rateStep / 2));
                return new double[] {2 * rate / rateStep, (begin - t[0]) * 12 / length, ramp * 10 / length};
            }

            private Model model(double[] p) {
                return new Model(p[0] * rateStep / 2, t[0] + p[1] * length / 12, p[2] * length / 10);
            }
        };
        double[] from = {2 * start.rate / rateStep, (start.start - t[0]) * 12 / length, start.ramp * 10 / length};
        double[] p = LevenbergMarquardt.minimize(problem, from, OPTIONS).point();
        Model found = new Model(p[0] * rateStep / 2, t[0] + p[1] * length / 12, p[2] * length / 10);
        return found.cost < start.cost ? found : start;
    }

    /** Bayesian information criterion of a fit with {@code k} unknowns (G. Schwarz, 1978); the lower is the likelier. */
    private double bic(double cost, int k) {
        return t.length * Math.log(Math.max(1e-12, cost) / t.length) + k * Math.log(t.length);
    }

    /** Form of a swing, how deep it then is, and how sure that is. */
    private record Shaped(Movement.Shape shape, double depth, double odds, List<Ranked> ranked) {}

    /**
     * The form that explains the path best. A triangle's third harmonic is 19 dB down: at a small depth it cannot be told
     * from a sine, and the odds say so.
     */
    private Shaped shaped(Model sine) {
        double phase = Math.atan2(sine.beta[3], sine.beta[2]);
        double sineBic = bic(sine.cost, 7);
        Shaped best = new Shaped(Movement.Shape.SINE, Math.hypot(sine.beta[2], sine.beta[3]), 1, List.of());
        double least = sineBic;
        double sum = 0;
        double[] bics = new double[3];
        bics[0] = sineBic;
        Movement.Shape[] shapes = {Movement.Shape.SINE, Movement.Shape.TRIANGLE, Movement.Shape.SQUARE};
        for (int k = 1; k < shapes.length; k++) {
            bics[k] = Double.POSITIVE_INFINITY;
            for (double turn = -0.4; turn <= 0.41; turn += 0.1) {
                Model m = new Model(sine.rate, sine.start, sine.ramp, phase + turn, shapes[k]);
                double b = bic(m.cost, 7);
                if (m.beta[2] > 0 && b < bics[k]) { // turned over it would be another phase
                    bics[k] = b;
                    if (b < least) {
                        least = b;
                        best = new Shaped(shapes[k], m.beta[2], 1, List.of());
                    }
                }
            }
        }
        for (double b : bics) {
            sum += Math.exp(-0.5 * Math.min(700, b - least));
        }
        List<Ranked> ranked = new ArrayList<>();
        for (int k = 0; k < shapes.length; k++) {
            ranked.add(new Ranked(shapes[k], Math.exp(-0.5 * Math.min(700, bics[k] - least)) / sum));
        }
        ranked.sort(Comparator.comparingDouble(Ranked::odds).reversed());
        return new Shaped(best.shape, best.depth, 1 / sum, ranked);
    }

    /** Weighted least squares for given rate, start and ramp. */
    private final class Model {
        final double rate;
        final double start;
        final double ramp;
        final double[] beta;
        final double cost;

        Model(double rate, double start, double ramp) {
            this(rate, start, ramp, Double.NaN, Movement.Shape.SINE);
        }

        /** @param phase of another form; NaN for a sine, whose phase is free */
        Model(double rate, double start, double ramp, double phase, Movement.Shape shape) {
            this.rate = rate;
            this.start = start;
            this.ramp = ramp;
            boolean formed = !Double.isNaN(phase);
            int p = rate > 0 ? formed ? 3 : 4 : 2;
            double[][] a = new double[p][p];
            double[] b = new double[p];
            straight(a, b);
            if (rate > 0 && formed) {
                double[] swing = new double[t.length];
                for (int i = 0; i < t.length; i++) {
                    swing[i] = form(shape, 2 * Math.PI * rate * (t[i] - t[0]) + phase);
                }
                swinging(a, b, swing, null);
            } else if (rate > 0) {
                turnAt(rate);
                swinging(a, b, sin, cos);
            }
            for (int r = 0; r < p; r++) {
                for (int c = 0; c < r; c++) {
                    a[c][r] = a[r][c];
                }
                a[r][r] = a[r][r] * (1 + 1e-12) + 1e-18;
            }
            beta = new LUDecomposition(new Array2DRowRealMatrix(a, false), 0)
                    .getSolver()
                    .solve(new ArrayRealVector(b, false))
                    .toArray();
            double explained = 0;
            for (int r = 0; r < p; r++) {
                explained += beta[r] * b[r];
            }
            cost = Math.max(0, ww[5] - explained);
        }

        /** Products of level and slope, which no swing changes. */
        private void straight(double[][] a, double[] b) {
            a[0][0] = ww[0];
            a[1][0] = ww[1];
            a[1][1] = ww[2];
            b[0] = ww[3];
            b[1] = ww[4];
        }

        /** Products of one swing or of two that are a quarter turn apart; before it sets in, they are all 0. */
        private void swinging(double[][] a, double[] b, double[] first, double[] second) {
            double mid = (t[0] + t[t.length - 1]) / 2;
            double f0 = 0;
            double f1 = 0;
            double ff = 0;
            double fy = 0;
            double s0 = 0;
            double s1 = 0;
            double sf = 0;
            double ss = 0;
            double sy = 0;
            for (int i = 0; i < t.length; i++) {
                double g = growth(t[i]);
                if (g == 0) {
                    continue;
                }
                double f = g * first[i];
                double wf = w[i] * f;
                f0 += wf;
                f1 += wf * (t[i] - mid);
                ff += wf * f;
                fy += wf * y[i];
                if (second != null) {
                    double s = g * second[i];
                    double ws = w[i] * s;
                    s0 += ws;
                    s1 += ws * (t[i] - mid);
                    sf += ws * f;
                    ss += ws * s;
                    sy += ws * y[i];
                }
            }
            a[2][0] = f0;
            a[2][1] = f1;
            a[2][2] = ff;
            b[2] = fy;
            if (second != null) {
                a[3][0] = s0;
                a[3][1] = s1;
                a[3][2] = sf;
                a[3][3] = ss;
                b[3] = sy;
            }
        }

        /** Values less the sine with its level and slope, weighted. */
        double[] residuals() {
            double mid = (t[0] + t[t.length - 1]) / 2;
            double[] out = new double[t.length];
            turnAt(rate);
            for (int i = 0; i < out.length; i++) {
                double swing = growth(t[i]) * (beta[2] * sin[i] + beta[3] * cos[i]);
                out[i] = Math.sqrt(w[i]) * (beta[0] + beta[1] * (t[i] - mid) + swing - y[i]);
            }
            return out;
        }

        private static double form(Movement.Shape shape, double angle) {
            if (shape == Movement.Shape.SQUARE) {
                // the edges of a gate are as steep as the windows of the path let them be
                return Math.tanh(4 * Math.sin(angle));
            }
            double turn = angle / (2 * Math.PI) + 0.25;
            return 1 - 4 * Math.abs(turn - Math.floor(turn) - 0.5); // rises through 0 at angle 0
        }

        double growth(double at) {
            double u = ramp > 0 ? (at - start) / ramp : 1;
            return u <= 0 ? 0 : u >= 1 ? 1 : u;
        }
    }
}
