package nightreed.measure.law;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import nightreed.dsp.Windows;
import nightreed.measure.partial.DampedSinusoid;
import nightreed.measure.partial.NoiseFloor;
import nightreed.measure.partial.PartialSearch;
import nightreed.optim.LeastSquaresProblem;
import nightreed.optim.LevenbergMarquardt;
import nightreed.optim.Solution;
import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.ArrayRealVector;
import org.hipparchus.linear.DecompositionSolver;
import org.hipparchus.linear.LUDecomposition;
import org.hipparchus.special.BesselJ;

/**
 * Least squares of A e^(-at) sin(ωc t + φc + I e^(-bt) sin(ωm t + φm)): one sine that modulates the frequency of another (J.
 * Chowning, JAES 21(7), 1973), with an index that dies.
 *
 * <p>A lattice of lines tells c and m, but not which line is the carrier. Over a short stretch each line has the complex
 * amplitude A J_k(I) e^(j(φc + kφm)): the carrier, the index and both phases are those by which the lines fit best. From
 * there everything is refined together on the samples (Gauss and Newton, damped), the first moments first.
 */
public final class FmLawFit {
    /** Orders that are looked at to both sides of the carrier. */
    private static final int ORDERS = 20;

    private static final double HIGHEST_INDEX = 14;

    /** An index that stays longer does not fall in any recording [s]: then it is a sum of plain exponentials. */
    private static final double LONGEST_INDEX_SECONDS = 30;

    /** Share of the energy of the lines that Bessel functions may leave over: other sounds leave a tenth and more. */
    private static final double MOST_UNLIKE = 0.05;

    /** Beginning of the note, in which its envelope still rises [s after the onset]. */
    public static final double RISE_SECONDS = 0.007;

    /** Stretches on which everything is refined, one after the other [s], and the steps on each. */
    private static final double[] STRETCHES = {0.06, 0.2, 0.7, 2};

    private static final int[] STEPS = {14, 8, 5, 4};

    /** Part of the energy without the strongest line that the law may leave over, if that is more than noise. */
    private static final double MOST_LEFT = 0.02;

    private static final LevenbergMarquardt.Options OPTIONS =
            LevenbergMarquardt.Options.USUAL.precise().withCostTolerance(1e-7);

    private static final int UNKNOWNS = 8; // ωc, ωm, a, b, ln I, φm, P, Q

    private final double[] y;
    private final double fs;
    private final int first; // sample of y at which the envelope no longer rises

    private FmLawFit(double[] y, double fs, int sinceOnset) {
        this.y = y;
        this.fs = fs;
        this.first = (int) Math.max(0, RISE_SECONDS * fs - sinceOnset);
    }

    /**
     * @param y          the note from after its strike on
     * @param sinceOnset samples from the onset to the first of {@code y}
     * @param found      terms of the strong lines from the first of {@code y} on
     * @return null if the note is not that of one sine modulating another
     */
    public static FmLaw fit(
            double[] y,
            double fs,
            int sinceOnset,
            SidebandLattice lattice,
            List<DampedSinusoid> found,
            NoiseFloor floor) {
        FmLawFit fit = new FmLawFit(y, fs, sinceOnset);
        double[] best = null;
        double least = Double.POSITIVE_INFINITY;
        int shortest = (int) (STRETCHES[0] * fs);
        if (y.length - fit.first < 2 * shortest) {
            return null;
        }
        for (double[] start : fit.starts(lattice)) {
            double[] p = fit.refined(start, shortest, STEPS[0]);
            double left = fit.left(p, shortest);
            if (left < least) {
                least = left;
                best = p;
            }
        }
        if (best == null) {
            return null;
        }
        int length = shortest;
        for (int k = 1; k < STRETCHES.length && length < y.length - fit.first; k++) {
            length = (int) Math.min(y.length - fit.first, STRETCHES[k] * fs);
            best = fit.refined(best, length, STEPS[k]);
        }
        double left = fit.left(best, length);
        boolean explains =
                left < Math.max(MOST_LEFT * fit.withoutStrongest(found, length), 1.5 * floor.total() * length);
        boolean falls = best[3] > 1 / (LONGEST_INDEX_SECONDS * fs);
        boolean sensible = falls && best[2] > 0 && best[4] > -2.5 && best[4] < Math.log(2 * HIGHEST_INDEX);
        FmLaw law = explains && sensible ? fit.law(best, length, sinceOnset) : null;
        return law != null && law.lattice().holds(found, fs, y.length) ? law : null;
    }

    /** Energy that is left without the strongest term: one partial alone is no modulation, however much of the whole it is. */
    private double withoutStrongest(List<DampedSinusoid> found, int length) {
        double[] rest = Arrays.copyOf(y, first + length);
        found.stream()
                .max(Comparator.comparingDouble(t -> PartialSearch.power(t, length)))
                .ifPresent(t -> t.addTo(rest, 0, -1));
        double sum = 0;
        for (int i = first; i < rest.length; i++) {
            sum += rest[i] * rest[i];
        }
        return sum;
    }

    /** Where to begin: for the likeliest carriers the unknowns that a short stretch suggests. */
    private List<double[]> starts(SidebandLattice lattice) {
        int orders = ORDERS;
        List<Integer> sounding = new ArrayList<>();
        for (int k = -orders; k <= orders; k++) {
            if (lattice.hz(k) < 0.46 * fs) {
                sounding.add(k);
            }
        }
        double spacing = lattice.modulatorHz();
        for (int a : sounding) {
            for (int b : sounding) {
                double apart = Math.abs(lattice.hz(a) - lattice.hz(b));
                spacing = a != b && apart > 2 ? Math.min(spacing, apart) : spacing;
            }
        }
        int window = (int) (Math.max(0.008, Math.min(0.05, 2.5 / spacing)) * fs);
        double[][] early = lines(lattice, sounding, first, window);
        int later = Math.min(y.length - window, first + (int) (0.08 * fs));
        double[][] late = later > first ? lines(lattice, sounding, later, window) : null;
        if (early == null || late == null) {
            return List.of();
        }
        List<double[]> out = new ArrayList<>();
        List<Double> misfits = new ArrayList<>();
        for (int at = -orders / 2; at <= orders / 2; at++) {
            double signed = lattice.carrierHz() + at * lattice.modulatorHz();
            if (Math.abs(signed) < 20 || Math.abs(signed) > 0.4 * fs) {
                continue;
            }
            double[][] a = about(early, sounding, lattice, at);
            double[][] b = about(late, sounding, lattice, at);
            double[] begin = index(a);
            if (begin[2] > MOST_UNLIKE) {
                continue;
            }
            double[] then = index(b);
            double dt = (later - first) / fs;
            double fall = Math.max(0.05, Math.min(60, Math.log(begin[0] / Math.max(0.02, then[0])) / dt));
            double dies = Math.max(0.2, Math.min(60, Math.log(begin[1] / Math.max(1e-9, then[1])) / dt));
            double[] p = guess(a, begin, Math.abs(signed), lattice.modulatorHz(), fall, dies, window);
            int place = 0;
            while (place < misfits.size() && misfits.get(place) < begin[2]) {
                place++;
            }
            misfits.add(place, begin[2]);
            out.add(place, p);
        }
        return out.subList(0, Math.min(2, out.size()));
    }

    /** Complex amplitudes of the lines over a stretch, at its middle: [order][re, im] of e^(jωt) in y = Im Σ; or null. */
    private double[][] lines(SidebandLattice lattice, List<Integer> orders, int from, int window) {
        int n = orders.size();
        double[][] normal = new double[2 * n][2 * n];
        double[] right = new double[2 * n];
        double[] row = new double[2 * n];
        for (int i = 0; i < window; i++) {
            double w = Windows.hann(i, window);
            double t = (i - window / 2.0) / fs;
            for (int k = 0; k < n; k++) {
                double angle = 2 * Math.PI * lattice.hz(orders.get(k)) * t;
                row[2 * k] = Math.sin(angle);
                row[2 * k + 1] = Math.cos(angle);
            }
            for (int r = 0; r < 2 * n; r++) {
                double wr = w * row[r];
                for (int c = 0; c <= r; c++) {
                    normal[r][c] += wr * row[c];
                }
                right[r] += wr * y[from + i];
            }
        }
        for (int r = 0; r < 2 * n; r++) {
            for (int c = 0; c < r; c++) {
                normal[c][r] = normal[r][c];
            }
            normal[r][r] *= 1 + 1e-6; // lines closer than the window tells apart
        }
        double[] x = solve(normal, right);
        if (x == null) {
            return null;
        }
        double[][] out = new double[n][];
        for (int k = 0; k < n; k++) {
            out[k] = new double[] {x[2 * k], x[2 * k + 1]};
        }
        return out;
    }

    /** The lines as orders about a carrier, from -ORDERS on: one that has passed through 0 comes back as -conj. */
    private static double[][] about(double[][] lines, List<Integer> orders, SidebandLattice lattice, int carrier) {
        double[][] out = new double[2 * ORDERS + 1][2];
        double signed = lattice.carrierHz() + carrier * lattice.modulatorHz();
        for (int i = 0; i < lines.length; i++) {
            int k = orders.get(i);
            int order = signed > 0 ? k - carrier : carrier - k;
            double hz = Math.abs(signed) + order * lattice.modulatorHz();
            if (Math.abs(order) <= ORDERS) {
                out[order + ORDERS][0] = hz > 0 ? lines[i][0] : -lines[i][0];
                out[order + ORDERS][1] = lines[i][1];
            }
        }
        return out;
    }

    /** Index by which the sizes of the orders are those of Bessel functions: index, amplitude, share not explained. */
    private static double[] index(double[][] orders) {
        double[] size = new double[orders.length];
        double energy = 1e-30;
        for (int k = 0; k < orders.length; k++) {
            size[k] = Math.hypot(orders[k][0], orders[k][1]);
            energy += size[k] * size[k];
        }
        double[] best = {0.1, Math.sqrt(energy), 1};
        for (double index = 0.1; index <= HIGHEST_INDEX; index += 0.1) {
            double[] j = BesselJ.rjBesl(index, 0, ORDERS + 1).getVals();
            double both = 0;
            double own = 1e-12;
            for (int k = 0; k < size.length; k++) {
                double b = Math.abs(j[Math.abs(k - ORDERS)]);
                both += b * size[k];
                own += b * b;
            }
            double left = 1 - both * both / own / energy;
            if (left < best[2]) {
                best = new double[] {index, both / own, left};
            }
        }
        return best;
    }

    /** Unknowns at the first sample, from the phases of the orders in the middle of a stretch. */
    private double[] guess(
            double[][] orders,
            double[] index,
            double carrierHz,
            double modulatorHz,
            double fall,
            double dies,
            int window) {
        double[] j = signed(index[0]);
        double re = 0;
        double im = 0;
        for (int k = 0; k + 1 < orders.length; k++) {
            double w = j[k] * j[k + 1];
            re += w * (orders[k + 1][0] * orders[k][0] + orders[k + 1][1] * orders[k][1]);
            im += w * (orders[k + 1][1] * orders[k][0] - orders[k + 1][0] * orders[k][1]);
        }
        double phaseM = Math.atan2(im, re);
        double cRe = 0;
        double cIm = 0;
        for (int k = 0; k < orders.length; k++) {
            double turn = -(k - ORDERS) * phaseM;
            cRe += j[k] * (orders[k][0] * Math.cos(turn) - orders[k][1] * Math.sin(turn));
            cIm += j[k] * (orders[k][0] * Math.sin(turn) + orders[k][1] * Math.cos(turn));
        }
        double phaseC = Math.atan2(cIm, cRe);
        double back = window / 2.0; // to the first sample
        double wc = 2 * Math.PI * carrierHz / fs;
        double wm = 2 * Math.PI * modulatorHz / fs;
        double amplitude = index[1] * Math.exp(dies * back / fs);
        double begin = phaseC - wc * back;
        return new double[] {
            wc,
            wm,
            dies / fs,
            fall / fs,
            Math.log(index[0]) + fall * back / fs,
            phaseM - wm * back,
            amplitude * Math.cos(begin),
            amplitude * Math.sin(begin)
        };
    }

    /** J_k of an index for the orders from -ORDERS to ORDERS. */
    private static double[] signed(double index) {
        double[] j = BesselJ.rjBesl(index, 0, ORDERS + 1).getVals();
        double[] out = new double[2 * ORDERS + 1];
        for (int k = -ORDERS; k <= ORDERS; k++) {
            out[k + ORDERS] = k < 0 && k % 2 != 0 ? -j[-k] : j[Math.abs(k)];
        }
        return out;
    }

    /** Model and its slopes at a sample after {@link #first}: out[0..7] slopes, returns the model. */
    private static double model(double[] p, int t, double[] out) {
        double g = Math.exp(-p[2] * t);
        double index = Math.exp(p[4] - p[3] * t);
        double m = p[1] * t + p[5];
        double swing = index * Math.sin(m);
        double angle = p[0] * t + swing;
        double s = g * Math.sin(angle);
        double c = g * Math.cos(angle);
        double value = p[6] * s + p[7] * c;
        double turn = p[6] * c - p[7] * s; // by the angle
        double byM = turn * index * Math.cos(m);
        out[0] = turn * t;
        out[1] = byM * t;
        out[2] = -t * value;
        out[3] = -t * turn * swing;
        out[4] = turn * swing;
        out[5] = byM;
        out[6] = s;
        out[7] = c;
        return value;
    }

    private double left(double[] p, int length) {
        double[] slopes = new double[UNKNOWNS];
        double sum = 0;
        for (int i = 0; i < length; i++) {
            double e = y[first + i] - model(p, i, slopes);
            sum += e * e;
        }
        return sum;
    }

    private double[] refined(double[] start, int length, int steps) {
        return LevenbergMarquardt.minimize(new OnSamples(length), start, OPTIONS.withMostIterations(steps))
                .point();
    }

    /** The samples of a stretch less the model. */
    private final class OnSamples implements LeastSquaresProblem {
        private final int length;

        OnSamples(int length) {
            this.length = length;
        }

        @Override
        public double[] residuals(double[] p) {
            double[] slopes = new double[UNKNOWNS];
            double[] out = new double[length];
            for (int i = 0; i < length; i++) {
                out[i] = model(p, i, slopes) - y[first + i];
            }
            return out;
        }

        @Override
        public double[][] jacobian(double[] p, double[] residuals) {
            double[] slopes = new double[UNKNOWNS];
            double[][] out = new double[UNKNOWNS][length];
            for (int i = 0; i < length; i++) {
                model(p, i, slopes);
                for (int k = 0; k < UNKNOWNS; k++) {
                    out[k][i] = slopes[k];
                }
            }
            return out;
        }
    }

    private FmLaw law(double[] p, int length, int sinceOnset) {
        OnSamples problem = new OnSamples(length);
        double[] left = problem.residuals(p);
        Solution found = new Solution(p, left, left(p, length), 0, null, problem.jacobian(p, left));
        double[][] covariance = found.covariance();
        if (covariance == null) {
            return null;
        }
        double toHz = fs / (2 * Math.PI);
        double back = first + sinceOnset;
        return new FmLaw(
                p[0] * toHz,
                p[1] * toHz,
                Math.log(1000) / (p[2] * fs),
                Math.exp(p[4] + p[3] * back),
                1 / (p[3] * fs),
                Math.hypot(p[6], p[7]) * Math.exp(p[2] * back),
                Math.IEEEremainder(Math.atan2(p[7], p[6]) - p[0] * back, 2 * Math.PI),
                Math.IEEEremainder(p[5] - p[1] * back, 2 * Math.PI),
                covariance[0][0] * toHz * toHz,
                covariance[0][1] * toHz * toHz,
                covariance[1][1] * toHz * toHz);
    }

    /** Null if the matrix is singular or not finite. Sizes differ by many powers of ten, so it is scaled by its diagonal. */
    private static double[] solve(double[][] a, double[] b) {
        int n = b.length;
        double[] scale = new double[n];
        for (int i = 0; i < n; i++) {
            scale[i] = 1 / Math.sqrt(a[i][i]);
            if (!(scale[i] > 0) || Double.isInfinite(scale[i])) {
                return null;
            }
        }
        double[][] m = new double[n][n];
        double[] r = new double[n];
        for (int i = 0; i < n; i++) {
            for (int j = 0; j < n; j++) {
                m[i][j] = a[i][j] * scale[i] * scale[j];
            }
            r[i] = b[i] * scale[i];
        }
        DecompositionSolver solver = new LUDecomposition(new Array2DRowRealMatrix(m, false), 1e-14).getSolver();
        if (!solver.isNonSingular()) {
            return null;
        }
        double[] x = solver.solve(new ArrayRealVector(r, false)).toArray();
        for (int i = 0; i < n; i++) {
            x[i] *= scale[i];
            if (!Double.isFinite(x[i])) {
                return null;
            }
        }
        return x;
    }
}
