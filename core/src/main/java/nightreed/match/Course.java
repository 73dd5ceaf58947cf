package nightreed.match;

import java.util.Arrays;

/**
 * A path over time as it is heard: what it does slowly is followed moment by moment; what it does faster than some twenty times
 * a second is heard as roughness, as deep or as shallow, but not where it stands at any moment (H. Fastl and E. Zwicker,
 * "Psychoacoustics", 2007, chapters 10 and 11).
 *
 * @param slow  per frame, NaN where nothing is known
 * @param rough per frame, root of the mean square of what is faster, about it
 */
record Course(double[] slow, double[] rough) {
    /** Frames of {@link Paths#HOP} to each side that are heard together: a window of 100 ms, half as wide at half its height. */
    private static final int REACH = 5;

    private static final double SILENCE = 1e-15;

    /**
     * @param values  per frame; NaN where nothing is known
     * @param weights per frame, how much each counts beside its neighbours, 0 or more
     */
    static Course of(double[] values, double[] weights) {
        double[] slow = new double[values.length];
        for (int f = 0; f < slow.length; f++) {
            slow[f] = mean(values, weights, f);
        }
        return about(slow, values, weights);
    }

    /**
     * Of a level.
     *
     * @param power  per frame
     * @param gainDb added to it [dB]
     */
    static Course ofLevel(double[] power, double gainDb) {
        double[] even = new double[power.length];
        Arrays.fill(even, 1);
        double[] slow = new double[power.length];
        double[] values = new double[power.length];
        for (int f = 0; f < slow.length; f++) {
            slow[f] = 10 * Math.log10(mean(power, even, f) + SILENCE) + gainDb;
            values[f] = 10 * Math.log10(power[f] + SILENCE) + gainDb;
        }
        return about(slow, values, power);
    }

    private static Course about(double[] slow, double[] values, double[] weights) {
        double[] squares = new double[values.length];
        for (int f = 0; f < slow.length; f++) {
            squares[f] = (values[f] - slow[f]) * (values[f] - slow[f]);
        }
        double[] rough = new double[values.length];
        for (int f = 0; f < slow.length; f++) {
            double mean = mean(squares, weights, f);
            rough[f] = Double.isNaN(mean) && !Double.isNaN(values[f]) ? 0 : Math.sqrt(mean);
        }
        return new Course(slow, rough);
    }

    private static double mean(double[] values, double[] weights, int at) {
        double sum = 0;
        double all = 0;
        for (int k = -REACH; k <= REACH; k++) {
            int f = at + k;
            if (f >= 0 && f < values.length && !Double.isNaN(values[f])) {
                double w = weights[f] * (0.5 + 0.5 * Math.cos(Math.PI * k / (REACH + 1.0)));
                sum += w * values[f];
                all += w;
            }
        }
        return all > 0 && !Double.isNaN(values[at]) ? sum / all : Double.NaN;
    }

    /** How far another is away at a frame, in the unit of the path; NaN where one of them is not known. */
    double away(Course other, int frame) {
        // the depth of a swing is root 2 of its root mean square
        return Math.hypot(other.slow[frame] - slow[frame], Math.sqrt(2) * (other.rough[frame] - rough[frame]));
    }
}
