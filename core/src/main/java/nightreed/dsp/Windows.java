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
}
