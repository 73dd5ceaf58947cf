package nightreed.match.start.formant;

import java.util.Arrays;
import nightreed.match.start.EnvelopeFit;
import nightreed.match.start.LateRise;
import nightreed.match.start.StartContext;
import nightreed.recipe.part.Envelope;

/**
 * A few envelopes that the bands of a recording share: their courses in dB, sorted into groups that are alike (S. Lloyd, 1957), and the
 * envelope that lies nearest to each group's mean.
 */
final class SharedCourses {
    /** Times after the onset at which courses are looked at, close at first [s]. */
    private static final double FIRST_LOOK = 0.005;

    private static final double LOOK_FACTOR = 1.25;

    /** Under its top a course is as good as silent [dB]. */
    private static final double FLOOR_DB = -50;

    private static final int PASSES = 20;

    private final double[] seconds;
    private final double[][] courses; // [band][look], dB under the band's top
    private final double[] tops; // power of each band at its top
    private final double[] weights;

    /**
     * @param power [band][step]
     * @param step  time between two [s]
     */
    SharedCourses(double[][] power, double step) {
        int steps = power[0].length;
        int n = 0;
        double[] at = new double[steps];
        for (double t = FIRST_LOOK; t < steps * step; t *= LOOK_FACTOR) {
            at[n++] = t;
        }
        seconds = Arrays.copyOf(at, Math.max(1, n));
        courses = new double[power.length][seconds.length];
        tops = new double[power.length];
        weights = new double[power.length];
        double most = 1e-20;
        for (int b = 0; b < power.length; b++) {
            double[] looks = new double[seconds.length];
            for (int i = 0; i < looks.length; i++) {
                looks[i] = around(power[b], seconds[i], step);
                tops[b] = Math.max(tops[b], looks[i]);
            }
            for (int i = 0; i < looks.length; i++) {
                courses[b][i] = Math.max(FLOOR_DB, 10 * Math.log10((looks[i] + 1e-20) / (tops[b] + 1e-20)));
            }
            most = Math.max(most, tops[b]);
        }
        for (int b = 0; b < weights.length; b++) { // what is 60 dB down has no say
            weights[b] = Math.max(0.01, 1 + 10 * Math.log10((tops[b] + 1e-20) / most) / 60);
        }
    }

    /** Mean over what the look stands for, a sixth of its time on each side. */
    private static double around(double[] power, double t, double step) {
        int from = (int) Math.max(0, Math.floor(t * 5 / 6 / step));
        int to = (int) Math.min(power.length - 1, Math.max(from, Math.ceil(t * 7 / 6 / step) - 1));
        double sum = 0;
        for (int k = from; k <= to; k++) {
            sum += power[k];
        }
        return from > to ? 0 : sum / (to - from + 1);
    }

    /** Power of a band at its top. */
    double top(int band) {
        return tops[band];
    }

    /** Which group each band belongs to, 0 to {@code groups - 1}. */
    int[] grouped(int groups) {
        int n = Math.min(groups, courses.length);
        double[][] centre = new double[n][];
        centre[0] = mean(new int[courses.length], 0);
        for (int g = 1; g < n; g++) { // the one that none of those before is like
            int far = 0;
            double most = -1;
            for (int b = 0; b < courses.length; b++) {
                double least = Double.POSITIVE_INFINITY;
                for (int k = 0; k < g; k++) {
                    least = Math.min(least, apart(courses[b], centre[k]));
                }
                if (weights[b] * least > most) {
                    most = weights[b] * least;
                    far = b;
                }
            }
            centre[g] = courses[far];
        }
        int[] of = new int[courses.length];
        for (int pass = 0; pass < PASSES; pass++) {
            for (int b = 0; b < of.length; b++) {
                for (int g = 0; g < n; g++) {
                    of[b] = apart(courses[b], centre[g]) < apart(courses[b], centre[of[b]]) ? g : of[b];
                }
            }
            for (int g = 0; g < n; g++) {
                centre[g] = mean(of, g);
            }
        }
        return of;
    }

    private double[] mean(int[] of, int group) {
        double[] sum = new double[seconds.length];
        double weight = 1e-12;
        for (int b = 0; b < of.length; b++) {
            if (of[b] == group) {
                weight += weights[b];
                for (int i = 0; i < sum.length; i++) {
                    sum[i] += weights[b] * courses[b][i];
                }
            }
        }
        for (int i = 0; i < sum.length; i++) {
            sum[i] /= weight;
        }
        return sum;
    }

    private static double apart(double[] a, double[] b) {
        double sum = 0;
        for (int i = 0; i < a.length; i++) {
            sum += (a[i] - b[i]) * (a[i] - b[i]);
        }
        return sum;
    }

    /** The envelope nearest to the mean of a group; null for an empty one. */
    Envelope envelope(StartContext g, int[] of, int group) {
        if (Arrays.stream(of).noneMatch(v -> v == group)) {
            return null;
        }
        double[] course = mean(of, group);
        double top = Arrays.stream(course).max().orElse(0);
        double[] values =
                Arrays.stream(course).map(db -> Math.pow(10, (db - top) / 20)).toArray();
        double[] looks = new double[values.length];
        Arrays.fill(looks, 1);
        LateRise late = g.late();
        if (late != null) {
            double[] after = Arrays.stream(seconds)
                    .map(t -> Math.max(0, t - late.delaySeconds()))
                    .toArray();
            return EnvelopeFit.ofLevel(after, values, looks, late.attackSeconds(), 0.3)
                    .envelope()
                    .withDelaySeconds(late.delaySeconds());
        }
        double rise = g.isHeld() ? g.attack() : StartContext.limited(g.attack(), 0.0003, 0.05);
        return EnvelopeFit.ofLevel(seconds, values, looks, rise, 0.3).envelope();
    }
}
