package nightreed.match.start.ring;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import nightreed.match.start.NonuniformStft;
import nightreed.match.start.StartContext;
import nightreed.match.start.SteadyNote;
import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.ArrayRealVector;
import org.hipparchus.linear.QRDecomposition;

/**
 * How the powers of a held note's harmonics swing, each for itself: where lines lie close on both sides of every harmonic, all
 * of them swing at the distance of the lines and at twice that. Powers are looked at, as they do not mind a pitch that wanders.
 */
final class HarmonicSwings {
    private static final int MOST_HARMONICS = 24;
    private static final double HIGHEST_HZ = 9000;

    /** Power under the strongest harmonic that is looked at. */
    private static final double LEAST = 1e-4;

    private static final double HOP_SECONDS = 0.01;
    private static final double WINDOW_SECONDS = 0.05;
    private static final double WINDOW_PERIODS = 4;
    private static final double MOST_SECONDS = 4;

    /** Rises of the level and frames that are left out at the beginning, frames that are needed [s], []. */
    private static final double RISES = 1.2;

    private static final double LEAST_RISE = 0.1;
    private static final int FEWEST = 60;

    /** Distances that are looked for [Hz]. */
    private static final double SLOWEST_HZ = 0.3;

    private static final double FASTEST_HZ = 12;
    private static final double STEP_HZ = 0.03;

    /** Share of the swings that is left over where they are no more than chance. */
    private static final double MOST_LEFT = 0.8;

    /** Swings that are not worth telling, their mean square over that of the level. */
    private static final double LEAST_SWING = 1e-4;

    private final double[] seconds;
    private final double windowSeconds;
    private final List<Course> courses;

    /** @param level power over its mean, at each of the times; @param power mean, 1 for the strongest */
    private record Course(int number, double power, double[] level) {}

    /**
     * Of one harmonic.
     *
     * @param power mean, 1 for the strongest
     * @param once  share of the power as a cosine and a sine of the swing [2]
     * @param twice the same at twice the rate [2]
     */
    record Swing(int number, double power, double[] once, double[] twice) {}

    private HarmonicSwings(double[] seconds, double windowSeconds, List<Course> courses) {
        this.seconds = seconds;
        this.windowSeconds = windowSeconds;
        this.courses = courses;
    }

    /** Of a held note; null where it is too short to tell, or has nothing at its harmonics. */
    static HarmonicSwings of(StartContext g) {
        double fs = g.measurement().sampleRateHz();
        double[] x = SteadyNote.samples(g.side(), g.movementWithoutTremolo());
        double f0 = g.f0();
        int window = (int) Math.round(Math.max(WINDOW_SECONDS, WINDOW_PERIODS / f0) * fs);
        int hop = (int) (HOP_SECONDS * fs);
        double end = Math.min(Math.min(MOST_SECONDS, g.side().keySeconds()), x.length / fs) * fs - window;
        int first = (int) (Math.max(LEAST_RISE, RISES * g.attack()) * fs);
        int frames = (int) ((end - first) / hop);
        int most = (int) Math.min(MOST_HARMONICS, Math.min(HIGHEST_HZ, 0.45 * fs) / f0);
        if (frames < FEWEST || most < 1) {
            return null;
        }
        double[] seconds = new double[frames];
        for (int f = 0; f < frames; f++) {
            seconds[f] = (first + f * hop + 0.5 * window) / fs;
        }
        double[][] power = new double[most][frames];
        double[] all = new double[frames];
        double top = 1e-20;
        for (int k = 0; k < most; k++) {
            for (int f = 0; f < frames; f++) {
                power[k][f] = power(x, first + f * hop, window, (k + 1) * f0 / fs);
                all[f] += power[k][f];
            }
            top = Math.max(top, mean(power[k]));
        }
        double[] trend = trend(all);
        List<Course> courses = new ArrayList<>();
        for (int k = 0; k < most; k++) {
            double share = mean(power[k]) / top;
            if (share > LEAST) {
                for (int f = 0; f < frames; f++) {
                    power[k][f] /= trend[f];
                }
                double mean = mean(power[k]);
                double[] level = Arrays.stream(power[k]).map(p -> p / mean).toArray();
                courses.add(new Course(k + 1, share, level));
            }
        }
        return courses.isEmpty() ? null : new HarmonicSwings(seconds, window / fs, courses);
    }

    private static double mean(double[] x) {
        return Arrays.stream(x).average().orElse(0);
    }

    private static double power(double[] x, int from, int n, double cyclesPerSample) {
        double re = 0;
        double im = 0;
        double at = 2 * Math.PI * cyclesPerSample;
        double c = 1;
        double s = 0;
        double byC = Math.cos(at);
        double byS = Math.sin(at);
        for (int i = 0; i < n && from + i < x.length; i++) {
            double v = x[from + i] * (0.5 - 0.5 * Math.cos(2 * Math.PI * (i + 0.5) / n));
            re += v * c;
            im += v * s;
            double next = c * byC - s * byS;
            s = c * byS + s * byC;
            c = next;
        }
        return re * re + im * im;
    }

    /** What all harmonics fall or rise by together: a parabola through the logarithms. */
    private static double[] trend(double[] all) {
        int n = all.length;
        double[][] rows = new double[n][];
        double[] log = new double[n];
        for (int f = 0; f < n; f++) {
            double t = 2.0 * f / n - 1;
            rows[f] = new double[] {1, t, t * t};
            log[f] = Math.log(all[f] + 1e-20);
        }
        Array2DRowRealMatrix m = new Array2DRowRealMatrix(rows, false);
        double[] u = new QRDecomposition(m)
                .getSolver()
                .solve(new ArrayRealVector(log, false))
                .toArray();
        return Arrays.stream(rows)
                .mapToDouble(r -> Math.exp(u[0] * r[0] + u[1] * r[1] + u[2] * r[2]))
                .toArray();
    }

    /** Loss of a line that lies so far beside its harmonic, as an amplitude. */
    double loss(double hz) {
        return Math.sqrt(NonuniformStft.lobe(hz * windowSeconds));
    }

    /** Distances at which most of the swings are told, the best first, none where there are none [Hz]. */
    List<Double> likely(int most) {
        int n = (int) ((FASTEST_HZ - SLOWEST_HZ) / STEP_HZ);
        double[] left = new double[n];
        for (int i = 0; i < n; i++) {
            left[i] = left(SLOWEST_HZ + i * STEP_HZ);
        }
        List<Integer> best = new ArrayList<>();
        for (int i = 0; i < n; i++) {
            boolean low = (i == 0 || left[i] < left[i - 1]) && (i == n - 1 || left[i] <= left[i + 1]);
            if (low && left[i] < MOST_LEFT) {
                best.add(i);
            }
        }
        return best.stream()
                .sorted(Comparator.comparingDouble(i -> left[i]))
                .limit(most)
                .map(i -> SLOWEST_HZ + i * STEP_HZ)
                .toList();
    }

    /** Share of the swings that such a distance does not tell. */
    private double left(double hz) {
        double[][] basis = orthogonal(waves(hz));
        double cost = 0;
        double weights = 0;
        for (Course c : courses) {
            double all = 0;
            double told = 0;
            for (double v : c.level) {
                all += v * v;
            }
            for (double[] b : basis) {
                double dot = dot(b, c.level);
                told += dot * dot;
            }
            double mean = mean(c.level);
            double swings = all - c.level.length * mean * mean;
            double weight = 1 - Math.log10(c.power) / Math.log10(LEAST);
            cost += weight * Math.min(1, (all - told + LEAST_SWING * all) / (swings + LEAST_SWING * all));
            weights += weight;
        }
        return cost / Math.max(1e-9, weights);
    }

    /** How each harmonic swings at a distance; at none not at all. */
    List<Swing> at(double hz) {
        if (hz == 0) {
            return courses.stream()
                    .map(c -> new Swing(c.number, c.power, new double[2], new double[2]))
                    .toList();
        }
        double[][] waves = waves(hz);
        Array2DRowRealMatrix m = new Array2DRowRealMatrix(waves.length, seconds.length);
        for (int i = 0; i < waves.length; i++) {
            m.setRow(i, waves[i]);
        }
        var solver = new QRDecomposition(m.transpose()).getSolver();
        List<Swing> out = new ArrayList<>();
        for (Course c : courses) {
            double[] u = solver.solve(new ArrayRealVector(c.level, false)).toArray();
            out.add(new Swing(c.number, c.power, new double[] {u[3], u[4]}, new double[] {u[5], u[6]}));
        }
        return out;
    }

    /** A level, a slope and a bend, and the swing once and twice. */
    private double[][] waves(double hz) {
        double[][] w = new double[7][seconds.length];
        double middle = 0.5 * (seconds[0] + seconds[seconds.length - 1]);
        for (int f = 0; f < seconds.length; f++) {
            double t = seconds[f] - middle;
            double at = 2 * Math.PI * hz * seconds[f];
            w[0][f] = 1;
            w[1][f] = t;
            w[2][f] = t * t;
            w[3][f] = Math.cos(at);
            w[4][f] = Math.sin(at);
            w[5][f] = Math.cos(2 * at);
            w[6][f] = Math.sin(2 * at);
        }
        return w;
    }

    /** Rows made orthogonal and of length 1 (Gram and Schmidt), in place. */
    private static double[][] orthogonal(double[][] rows) {
        for (int i = 0; i < rows.length; i++) {
            for (int k = 0; k < i; k++) {
                double d = dot(rows[i], rows[k]);
                for (int f = 0; f < rows[i].length; f++) {
                    rows[i][f] -= d * rows[k][f];
                }
            }
            double length = Math.sqrt(dot(rows[i], rows[i])) + 1e-12;
            for (int f = 0; f < rows[i].length; f++) {
                rows[i][f] /= length;
            }
        }
        return rows;
    }

    private static double dot(double[] a, double[] b) {
        double sum = 0;
        for (int i = 0; i < a.length; i++) {
            sum += a[i] * b[i];
        }
        return sum;
    }
}
