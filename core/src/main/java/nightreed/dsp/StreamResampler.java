package nightreed.dsp;

/**
 * Change of sample rate of a running stream of two sides, by a windowed sinc of 16 zero crossings to either side (Kaiser window; stop
 * band about -80 dB). One thread at a time; only the constructor allocates.
 */
public final class StreamResampler {
    /** Where input comes from. */
    public interface Source {
        /** Fills {@code left[0..n)} and {@code right[0..n)}. */
        void render(float[] left, float[] right, int n);
    }

    private static final int ZERO_CROSSINGS = 16;
    private static final double BETA = 8;
    private static final int TABLE = 512;
    private static final int PULL = 256;

    private final double step; // input samples per output sample
    private final double scale; // below 1 when the new rate is lower: keeps the band under half of it
    private final int reach;
    private final double[] kernel = new double[ZERO_CROSSINGS * TABLE + 2];
    private final float[] ringLeft; // the newest input, a power of two long
    private final float[] ringRight;
    private final float[] pulledLeft = new float[PULL];
    private final float[] pulledRight = new float[PULL];
    private long newest; // input samples pulled so far
    private double at; // place of the next output sample in the input

    /**
     * @param fromHz rate of the source, above 0
     * @param toHz   rate of the output, above 0
     */
    public StreamResampler(double fromHz, double toHz) {
        if (!(fromHz > 0 && toHz > 0)) {
            throw new IllegalArgumentException("sample rates must be above 0 Hz, got " + fromHz + " and " + toHz);
        }
        step = fromHz / toHz;
        scale = Math.min(1, toHz / fromHz) * 0.95;
        reach = (int) Math.ceil(ZERO_CROSSINGS / scale);
        ringLeft = new float[RealFft.powerOfTwoFrom(2 * reach + 2 * PULL)];
        ringRight = new float[ringLeft.length];
        for (int k = 0; k < kernel.length; k++) {
            double t = Math.min(ZERO_CROSSINGS, (double) k / TABLE);
            double u = t / ZERO_CROSSINGS;
            double sinc = t == 0 ? 1 : Math.sin(Math.PI * t) / (Math.PI * t);
            kernel[k] = sinc * Resampler.bessel0(BETA * Math.sqrt(Math.max(0, 1 - u * u))) / Resampler.bessel0(BETA);
        }
        at = reach; // so that the first output has its whole kernel; the source starts that much earlier
    }

    /** Fills {@code left[0..n)} and {@code right[0..n)}, pulling as much input as that needs. */
    public void render(Source source, float[] left, float[] right, int n) {
        int mask = ringLeft.length - 1;
        for (int i = 0; i < n; i++) {
            while (newest <= at + reach) {
                source.render(pulledLeft, pulledRight, PULL);
                for (int k = 0; k < PULL; k++) {
                    int to = (int) (newest++ & mask);
                    ringLeft[to] = pulledLeft[k];
                    ringRight[to] = pulledRight[k];
                }
            }
            long first = (long) Math.ceil(at - reach);
            long last = (long) Math.floor(at + reach);
            double sumLeft = 0;
            double sumRight = 0;
            for (long j = first; j <= last; j++) {
                double t = Math.abs(j - at) * scale * TABLE;
                int k = (int) t;
                if (k < kernel.length - 1) {
                    double weight = kernel[k] + (t - k) * (kernel[k + 1] - kernel[k]);
                    sumLeft += ringLeft[(int) (j & mask)] * weight;
                    sumRight += ringRight[(int) (j & mask)] * weight;
                }
            }
            left[i] = (float) (sumLeft * scale);
            right[i] = (float) (sumRight * scale);
            at += step;
        }
    }
}
