package nightreed;

/** Looks at one partial of a rendered sound: a Hann window times a complex exponential, twice. */
public final class Partials {
    private Partials() {}

    /** Frequency [Hz] near {@code hz} from the phase between two windows {@code hop} samples apart. */
    public static double hz(float[] y, double fs, double hz, int from, int length, int hop) {
        double[] a = at(y, fs, hz, from, length);
        double[] b = at(y, fs, hz, from + hop, length);
        double turn = Math.atan2(b[1], b[0]) - Math.atan2(a[1], a[0]);
        double left = Math.IEEEremainder(turn - 2 * Math.PI * hz * hop / fs, 2 * Math.PI);
        return hz + left * fs / (2 * Math.PI * hop);
    }

    /** T60 [s] of a partial from its levels in two windows. */
    public static double t60(float[] y, double fs, double hz, int from, int length, int hop) {
        double fall = db(y, fs, hz, from, length) - db(y, fs, hz, from + hop, length);
        return 60 / fall * hop / fs;
    }

    /** Amplitude of a partial in a window [dB re full scale]. */
    public static double db(float[] y, double fs, double hz, int from, int length) {
        double[] c = at(y, fs, hz, from, length);
        return 20 * Math.log10(Math.hypot(c[0], c[1]) + 1e-15);
    }

    /** Complex amplitude, phase counted from sample 0. */
    public static double[] at(float[] y, double fs, double hz, int from, int length) {
        double re = 0;
        double im = 0;
        double sum = 0;
        double w = 2 * Math.PI * hz / fs;
        for (int i = 0; i < length && from + i < y.length; i++) {
            // four cosines (Blackman-Harris): side lobes 92 dB down
            double u = 2 * Math.PI * (i + 0.5) / length;
            double h = 0.35875 - 0.48829 * Math.cos(u) + 0.14128 * Math.cos(2 * u) - 0.01168 * Math.cos(3 * u);
            re += h * y[from + i] * Math.cos(w * i);
            im -= h * y[from + i] * Math.sin(w * i);
            sum += h;
        }
        // phase of the partial at the start of the window
        return new double[] {2 * re / sum, 2 * im / sum};
    }
}
