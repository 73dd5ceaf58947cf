package nightreed.measure.partial;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import nightreed.optim.LeastSquaresProblem;
import nightreed.optim.LevenbergMarquardt;

/**
 * The joint fit of a few damped sinusoids whose lines lie close, on the bins around them. Unknowns per term: q = c/2 and θ =
 * log z, both complex.
 */
final class VariableProjectionFit {
    /**
     * Poles are wanted to many digits, since without noise a partial is known to far below a cent. Eight iterations: with twelve, wide
     * terms settled in the strike noise of one test string and moved its pitch by 0.1 cent. Scores on the signals with known truth agree.
     */
    private static final LevenbergMarquardt.Options OPTIONS =
            LevenbergMarquardt.Options.USUAL.precise().withMostIterations(8).withCostTolerance(1e-7);

    /**
     * Transform of the first samples. Terms that have died by its end are fitted there: no less is known of them than from
     * the whole, and their lines, which are wide, take fewer bins.
     */
    record Stretch(int n, double[] spectrum) {}

    private final int n; // samples of its stretch
    private final int m;
    private final int lo;
    private final int bins;
    private final double[] qRe;
    private final double[] qIm;
    private final double[] alpha;
    private final double[] omega;
    private final double[] firstOmega;
    private final double[] target; // interleaved bins lo..lo+bins-1 of what the group has to explain
    private final double[] se;
    private double cost;
    private final double largest; // amplitude beyond which terms only cancel each other; 0 if none is known
    private final double[][] d; // per term: bins of D, interleaved
    private final double[][] dz; // per term: bins of z dD/dz

    VariableProjectionFit(List<DampedSinusoid> group, List<DampedSinusoid> others, Stretch stretch) {
        n = stretch.n;
        m = group.size();
        qRe = new double[m];
        qIm = new double[m];
        alpha = new double[m];
        omega = new double[m];
        se = new double[m];
        Arrays.fill(se, Double.NaN);
        double low = Double.POSITIVE_INFINITY;
        double high = 0;
        for (int i = 0; i < m; i++) {
            DampedSinusoid t = group.get(i);
            qRe[i] = t.cRe() / 2;
            qIm[i] = t.cIm() / 2;
            alpha[i] = t.alpha();
            omega[i] = t.omega();
            // 8 half-widths of the line hold nearly all that frequency and decay can be told from
            double reach = Math.max(14 * 2 * Math.PI / n, 8 * t.alpha());
            low = Math.min(low, t.omega() - reach);
            high = Math.max(high, t.omega() + reach);
        }
        double strongest = 0;
        for (DampedSinusoid t : group) {
            strongest = Math.max(strongest, t.amplitude());
        }
        largest = 4 * strongest;
        firstOmega = omega.clone();
        lo = (int) Math.max(1, Math.round(low * n / (2 * Math.PI)));
        int hi = (int) Math.min(n / 2 - 1, Math.round(high * n / (2 * Math.PI)));
        bins = Math.max(1, hi - lo + 1);
        target = new double[2 * bins];
        System.arraycopy(stretch.spectrum, 2 * lo, target, 0, 2 * bins);
        for (DampedSinusoid t : others) {
            subtract(t, n, lo, target);
        }
        for (DampedSinusoid t : group) {
            subtractImage(t, n, lo, target);
        }
        d = new double[m][2 * bins];
        dz = new double[m][2 * bins];
        evaluate();
    }

    /** Other terms for what the terms of {@code base} have to explain. */
    VariableProjectionFit(List<DampedSinusoid> start, VariableProjectionFit base) {
        n = base.n;
        m = start.size();
        qRe = new double[m];
        qIm = new double[m];
        alpha = start.stream().mapToDouble(DampedSinusoid::alpha).toArray();
        omega = start.stream().mapToDouble(DampedSinusoid::omega).toArray();
        firstOmega = omega.clone();
        se = new double[m];
        Arrays.fill(se, Double.NaN);
        lo = base.lo;
        bins = base.bins;
        target = base.target;
        largest = base.largest;
        d = new double[m][2 * bins];
        dz = new double[m][2 * bins];
        evaluate();
    }

    /** Squares that are left over of the bins. */
    double cost() {
        return cost;
    }

    /** Samples that it was fitted on. */
    int samples() {
        return n;
    }

    int bins() {
        return bins;
    }

    void run() {
        if (bins < 3 * m) {
            return;
        }
        set(LevenbergMarquardt.minimize(new ByPoles(), poles(), OPTIONS).point());
        cost = squares(residualBins());
        errors();
    }

    /**
     * The fit as a problem in the poles alone, [α, ω] of each term: amplitudes follow from them by linear least squares, and
     * the Jacobian leaves out what they would make up for (G. Golub, V. Pereyra, 1973, in L. Kaufman's form, 1975).
     */
    private final class ByPoles implements LeastSquaresProblem {
        private double[] accepted = poles();

        @Override
        public double[] residuals(double[] point) {
            set(point);
            return residualBins();
        }

        @Override
        public double[][] jacobian(double[] point, double[] residuals) {
            accepted = point.clone();
            set(point);
            HermitianSystem inner = new HermitianSystem(d);
            double[][] out = new double[2 * m][];
            for (int i = 0; i < m; i++) {
                double[] c = withoutAmplitudes(column(i), inner);
                double[] turned = new double[c.length]; // -j c
                for (int b = 0; b < bins; b++) {
                    turned[2 * b] = c[2 * b + 1];
                    turned[2 * b + 1] = -c[2 * b];
                }
                out[2 * i] = c;
                out[2 * i + 1] = turned;
            }
            return out;
        }

        @Override
        public double[] stepLimits(double[] point) {
            double[] out = new double[point.length];
            for (int i = 0; i < m; i++) {
                double most = Math.max(4 * Math.PI / n, 0.7 * point[2 * i]);
                out[2 * i] = most;
                out[2 * i + 1] = most;
            }
            return out;
        }

        /** α may at most shrink to a quarter in one step, and never below a decay of 60 dB in 200 segments. */
        @Override
        public double[] bounded(double[] point) {
            for (int i = 0; i < m; i++) {
                point[2 * i] = Math.max(Math.max(accepted[2 * i] / 4, 6.9 / (200.0 * n)), point[2 * i]);
            }
            return point;
        }
    }

    private double[] poles() {
        double[] out = new double[2 * m];
        for (int i = 0; i < m; i++) {
            out[2 * i] = alpha[i];
            out[2 * i + 1] = omega[i];
        }
        return out;
    }

    /** Poles, and the amplitudes that go with them. */
    private void set(double[] poles) {
        for (int i = 0; i < m; i++) {
            alpha[i] = poles[2 * i];
            omega[i] = poles[2 * i + 1];
        }
        evaluate();
        solveAmplitudes();
    }

    /** What the terms cannot make up for by other amplitudes. @param inner products of the terms with each other */
    private double[] withoutAmplitudes(double[] column, HermitianSystem inner) {
        double[] x = inner.nearest(column);
        if (x == null) {
            return column;
        }
        double[] out = column.clone();
        for (int i = 0; i < m; i++) {
            take(out, x[2 * i], x[2 * i + 1], d[i]);
        }
        return out;
    }

    /** Takes a multiple of an interleaved vector off another. */
    private static void take(double[] from, double re, double im, double[] v) {
        for (int b = 0; b < from.length; b += 2) {
            from[b] -= re * v[b] - im * v[b + 1];
            from[b + 1] -= re * v[b + 1] + im * v[b];
        }
    }

    private void evaluate() {
        double stepAngle = 2 * Math.PI / n;
        double sr = Math.cos(stepAngle);
        double si = -Math.sin(stepAngle);
        for (int i = 0; i < m; i++) {
            double mag = Math.exp(-alpha[i]);
            double magN = Math.exp(-alpha[i] * n);
            double znr = magN * Math.cos(omega[i] * n);
            double zni = magN * Math.sin(omega[i] * n);
            double ar = 1 - znr; // 1 - z^N
            double ai = -zni;
            double phase = omega[i] - stepAngle * lo; // z e^(-j2πk/N) at the first bin
            double wr = mag * Math.cos(phase);
            double wi = mag * Math.sin(phase);
            for (int b = 0; b < bins; b++) {
                double br = 1 - wr;
                double bi = -wi;
                double inv = 1 / (br * br + bi * bi + 1e-300);
                double dr = (ar * br + ai * bi) * inv;
                double di = (ai * br - ar * bi) * inv;
                d[i][2 * b] = dr;
                d[i][2 * b + 1] = di;
                // z dD/dz = (D z e_k - N z^N) / (1 - z e_k)
                double nr = dr * wr - di * wi - n * znr;
                double ni = dr * wi + di * wr - n * zni;
                dz[i][2 * b] = (nr * br + ni * bi) * inv;
                dz[i][2 * b + 1] = (ni * br - nr * bi) * inv;
                double t = wr * sr - wi * si;
                wi = wr * si + wi * sr;
                wr = t;
            }
        }
    }

    private void solveAmplitudes() {
        double[] q = new HermitianSystem(d).nearest(target);
        for (int i = 0; q != null && i < m; i++) {
            qRe[i] = q[2 * i];
            qIm[i] = q[2 * i + 1];
        }
    }

    private double[] column(int i) {
        double[] c = new double[2 * bins];
        for (int b = 0; b < bins; b++) {
            c[2 * b] = qRe[i] * dz[i][2 * b] - qIm[i] * dz[i][2 * b + 1];
            c[2 * b + 1] = qRe[i] * dz[i][2 * b + 1] + qIm[i] * dz[i][2 * b];
        }
        return c;
    }

    private double[] residualBins() {
        double[] r = target.clone();
        for (int i = 0; i < m; i++) {
            for (int b = 0; b < bins; b++) {
                r[2 * b] -= qRe[i] * d[i][2 * b] - qIm[i] * d[i][2 * b + 1];
                r[2 * b + 1] -= qRe[i] * d[i][2 * b + 1] + qIm[i] * d[i][2 * b];
            }
        }
        return r;
    }

    private static double squares(double[] r) {
        double sum = 0;
        for (double v : r) {
            sum += v * v;
        }
        return sum;
    }

    /** Standard errors of every θ: the Cramér-Rao bound for the noise that is left (Yao &amp; Pandit 1995). */
    private void errors() {
        double variance = cost / Math.max(1, bins - 2 * m);
        double[][] columns = new double[2 * m][];
        for (int i = 0; i < m; i++) {
            columns[i] = d[i];
            columns[m + i] = column(i);
        }
        double[] inverse = new HermitianSystem(columns).inverseDiagonal();
        for (int i = 0; inverse != null && i < m; i++) {
            se[i] = Math.sqrt(Math.abs(inverse[m + i]) * variance / 2);
        }
    }

    /** Index of the least term that cannot be kept, or -1 if all can. */
    int offender(List<DampedSinusoid> before) {
        int worst = -1;
        for (int i = 0; i < m; i++) {
            double limit = Math.max(6 * 2 * Math.PI / n, 3 * alpha[i]);
            boolean ranAway = Math.abs(omega[i] - firstOmega[i]) > limit || !(omega[i] > 0 && omega[i] < Math.PI);
            boolean pinned = se[i] < 0.7 * Math.max(alpha[i], 2.0 / n) && Double.isFinite(qRe[i] + qIm[i]);
            boolean cancels = largest > 0 && m > 1 && 2 * Math.hypot(qRe[i], qIm[i]) > largest;
            if ((ranAway || !pinned || cancels) && (worst < 0 || energy(before.get(i)) < energy(before.get(worst)))) {
                worst = i;
            }
        }
        return worst;
    }

    private double energy(DampedSinusoid t) {
        return t.amplitude() * t.amplitude() * t.energySamples(n);
    }

    List<DampedSinusoid> results() {
        List<DampedSinusoid> out = new ArrayList<>();
        for (int i = 0; i < m; i++) {
            out.add(new DampedSinusoid(omega[i], alpha[i], 2 * qRe[i], 2 * qIm[i], se[i], 0));
        }
        return out;
    }

    /** Takes the bins of a term off those of a transform of {@code n} samples from bin {@code lo} on. */
    private static void subtract(DampedSinusoid t, int n, int lo, double[] bins) {
        subtract(t.omega(), t, n, lo, bins);
        subtractImage(t, n, lo, bins);
    }

    /** Takes off what the term, being real, has at its negative frequency; far away, but not nothing. */
    private static void subtractImage(DampedSinusoid t, int n, int lo, double[] bins) {
        DampedSinusoid image = new DampedSinusoid(-t.omega(), t.alpha(), t.cRe(), -t.cIm(), 0, 0);
        subtract(image.omega(), image, n, lo, bins);
    }

    private static void subtract(double omega, DampedSinusoid t, int n, int lo, double[] bins) {
        double step = 2 * Math.PI / n;
        double mag = Math.exp(-t.alpha());
        double magN = Math.exp(-t.alpha() * n);
        // ½ c (1 - z^N)
        double er = 1 - magN * Math.cos(omega * n);
        double ei = -magN * Math.sin(omega * n);
        double ar = 0.5 * (t.cRe() * er - t.cIm() * ei);
        double ai = 0.5 * (t.cRe() * ei + t.cIm() * er);
        double wr = mag * Math.cos(omega - step * lo);
        double wi = mag * Math.sin(omega - step * lo);
        double sr = Math.cos(step);
        double si = -Math.sin(step);
        for (int b = 0; b < bins.length; b += 2) {
            double br = 1 - wr;
            double inv = 1 / (br * br + wi * wi + 1e-300);
            bins[b] -= (ar * br - ai * wi) * inv;
            bins[b + 1] -= (ai * br + ar * wi) * inv;
            double next = wr * sr - wi * si;
            wi = wr * si + wi * sr;
            wr = next;
        }
    }
}
