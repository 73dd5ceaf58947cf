package nightreed.dsp;

/** Windows of frames (F. Harris, "On the use of windows for harmonic analysis with the discrete Fourier transform", Proc. IEEE 66(1), 1978). */
public final class Windows {
    private Windows() {}

    /**
     * Hann's window, whose ends lie half a sample outside.
     *
     * @param i      sample, 0 to {@code length} - 1
     * @param length of the frame [samples]
     */
    public static double hann(int i, int length) {
        return 0.5 - 0.5 * Math.cos(2 * Math.PI * (i + 0.5) / length);
    }

    /** All of {@link #hann(int, int)}; new array. */
    public static double[] hann(int length) {
        double[] out = new double[length];
        for (int i = 0; i < length; i++) {
            out[i] = hann(i, length);
        }
        return out;
    }

    /**
     * Kaiser's window, symmetric, 1 in the middle (J. Kaiser, "Nonrecursive digital filter design using the I0-sinh window
     * function", 1974).
     *
     * @param length samples, at least 2
     * @param beta   shape: the larger, the lower the side lobes
     */
    public static double[] kaiser(int length, double beta) {
        double[] out = new double[length];
        for (int i = 0; i < length; i++) {
            double x = 2.0 * i / (length - 1) - 1;
            out[i] = besselI0(beta * Math.sqrt(Math.max(0, 1 - x * x))) / besselI0(beta);
        }
        return out;
    }

    /** Modified Bessel function of order 0, by its series. */
    private static double besselI0(double x) {
        double term = 1;
        double sum = 1;
        for (int k = 1; term > 1e-17 * sum; k++) {
            term *= x * x / (4.0 * k * k);
            sum += term;
        }
        return sum;
    }
}
