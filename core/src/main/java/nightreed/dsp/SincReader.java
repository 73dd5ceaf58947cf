package nightreed.dsp;

/**
 * A signal read between its samples, by a windowed sinc (Kaiser window, β 8, 16 zero crossings a side: stop band about -80 dB
 * from 0.9 of the band on).
 */
public final class SincReader {
    private static final int REACH = 16;
    private static final int TAPS = 2 * REACH;
    private static final int PHASES = 256;
    private static final double BETA = 8;
    private static final double[] KERNEL = kernel();

    private final double[] x;

    /** @param x samples; kept, not copied */
    public SincReader(double[] x) {
        this.x = x;
    }

    /** For each of the places between two samples the weights of the 32 samples around it, first to last. */
    private static double[] kernel() {
        double[] h = new double[(PHASES + 1) * TAPS];
        for (int p = 0; p <= PHASES; p++) {
            for (int k = 0; k < TAPS; k++) {
                double t = k - (REACH - 1) - (double) p / PHASES;
                double sinc = t == 0 ? 1 : Math.sin(Math.PI * t) / (Math.PI * t);
                double u = t / REACH;
                h[p * TAPS + k] = Math.abs(u) > 1
                        ? 0
                        : sinc * Resampler.bessel0(BETA * Math.sqrt(1 - u * u)) / Resampler.bessel0(BETA);
            }
        }
        return h;
    }

    /** @param position in samples, from 0; the signal counts as 0 outside of its samples */
    public double at(double position) {
        int whole = (int) Math.floor(position);
        if (whole < -REACH || whole >= x.length + REACH) {
            return 0;
        }
        double into = (position - whole) * PHASES;
        int phase = (int) into;
        double f = into - phase;
        int h = phase * TAPS;
        int first = whole - REACH + 1;
        if (first < 0 || first + TAPS > x.length) {
            double sum = 0;
            for (int k = Math.max(0, -first); k < Math.min(TAPS, x.length - first); k++) {
                sum += x[first + k] * (KERNEL[h + k] + f * (KERNEL[h + TAPS + k] - KERNEL[h + k]));
            }
            return sum;
        }
        // two sums for the place before and two for the one after, so that no product waits for the last
        double a = 0;
        double b = 0;
        double c = 0;
        double d = 0;
        for (int k = 0; k < TAPS; k += 2) {
            double even = x[first + k];
            double odd = x[first + k + 1];
            a += even * KERNEL[h + k];
            b += odd * KERNEL[h + k + 1];
            c += even * KERNEL[h + TAPS + k];
            d += odd * KERNEL[h + TAPS + k + 1];
        }
        return (1 - f) * (a + b) + f * (c + d);
    }
}
