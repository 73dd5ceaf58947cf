package nightreed.dsp;

/**
 * Change of sample rate by a windowed sinc (Kaiser window, β 9: stop band about -90 dB), at any ratio.
 * <p>Follows J. O. Smith, P. Gossett, "A flexible sampling-rate conversion method", ICASSP 1984, without its table.
 */
public final class Resampler {
    private static final int ZERO_CROSSINGS = 32;
    private static final double BETA = 9.0;
    /** Samples of the window per zero crossing; linear interpolation between them leaves about -100 dB. */
    private static final int TABLE = 512;

    private Resampler() {}

    /**
     * @param x        signal at {@code fromHz}
     * @param fromHz   rate of {@code x} [Hz], above 0
     * @param toHz     rate wanted [Hz], above 0
     * @return new array of round(x.length · toHz / fromHz) samples
     */
    public static float[] resample(float[] x, double fromHz, double toHz) {
        if (!(fromHz > 0 && toHz > 0)) {
            throw new IllegalArgumentException("sample rates must be above 0 Hz, got " + fromHz + " and " + toHz);
        }
        if (fromHz == toHz) {
            return x.clone();
        }
        int n = (int) Math.round(x.length * toHz / fromHz);
        double scale = Math.min(1, toHz / fromHz) * 0.96; // 4 % of the band left for the transition
        double[] kernel = kernel();
        double reach = ZERO_CROSSINGS / scale;
        float[] y = new float[n];
        for (int i = 0; i < n; i++) {
            double centre = i * fromHz / toHz;
            int first = (int) Math.max(0, Math.ceil(centre - reach));
            int last = (int) Math.min(x.length - 1, Math.floor(centre + reach));
            double sum = 0;
            for (int j = first; j <= last; j++) {
                double t = Math.abs(j - centre) * scale * TABLE;
                int k = (int) t;
                double frac = t - k;
                sum += x[j] * (kernel[k] + frac * (kernel[k + 1] - kernel[k]));
            }
            y[i] = (float) (sum * scale);
        }
        return y;
    }

    private static double[] kernel() {
        int n = ZERO_CROSSINGS * TABLE;
        double[] h = new double[n + 2];
        for (int k = 0; k <= n; k++) {
            double t = (double) k / TABLE;
            double sinc = k == 0 ? 1 : Math.sin(Math.PI * t) / (Math.PI * t);
            double u = t / ZERO_CROSSINGS;
            h[k] = sinc * bessel0(BETA * Math.sqrt(Math.max(0, 1 - u * u))) / bessel0(BETA);
        }
        return h;
    }

    /** Modified Bessel function I0 by its power series. */
    static double bessel0(double x) {
        double sum = 1;
        double term = 1;
        for (int k = 1; term > 1e-18 * sum; k++) {
            term *= (x / (2 * k)) * (x / (2 * k));
            sum += term;
        }
        return sum;
    }
}
