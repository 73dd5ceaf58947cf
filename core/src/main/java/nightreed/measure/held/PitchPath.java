package nightreed.measure.held;

import java.util.Arrays;

/** Fundamental over time; linear between its points, level beyond them. */
final class PitchPath {
    private final double[] seconds;
    private final double[] hz;
    private final double[] cycles; // since the first point

    /**
     * @param seconds rising times [s]
     * @param hz      fundamental there [Hz], above 0
     */
    PitchPath(double[] seconds, double[] hz) {
        this.seconds = seconds;
        this.hz = hz;
        this.cycles = new double[hz.length];
        for (int i = 1; i < hz.length; i++) {
            cycles[i] = cycles[i - 1] + (seconds[i] - seconds[i - 1]) * (hz[i] + hz[i - 1]) / 2;
        }
    }

    double hzAt(double t) {
        int i = segment(seconds, t);
        if (i < 0) {
            return hz[0];
        }
        if (i >= hz.length - 1) {
            return hz[hz.length - 1];
        }
        double f = (t - seconds[i]) / (seconds[i + 1] - seconds[i]);
        return hz[i] + f * (hz[i + 1] - hz[i]);
    }

    /** Cycles from the first point to a time [s]. */
    double cyclesAt(double t) {
        int i = segment(seconds, t);
        if (i < 0) {
            return (t - seconds[0]) * hz[0];
        }
        double dt = t - seconds[i];
        return cycles[i] + dt * (hz[i] + hzAt(t)) / 2;
    }

    /** Time [s] at which a number of cycles since the first point is reached. */
    double secondsAt(double c) {
        int i = segment(cycles, c);
        if (i < 0) {
            return seconds[0] + c / hz[0];
        }
        double left = c - cycles[i];
        if (i >= hz.length - 1) {
            return seconds[i] + left / hz[i];
        }
        double slope = (hz[i + 1] - hz[i]) / (seconds[i + 1] - seconds[i]);
        // left = hz dt + slope dt² / 2
        double root = Math.sqrt(Math.max(0, hz[i] * hz[i] + 2 * slope * left));
        return seconds[i] + 2 * left / (hz[i] + root);
    }

    private static int segment(double[] v, double at) {
        int i = Arrays.binarySearch(v, at);
        return i >= 0 ? i : -i - 2;
    }

    double[] seconds() {
        return seconds.clone();
    }

    double[] hz() {
        return hz.clone();
    }
}
