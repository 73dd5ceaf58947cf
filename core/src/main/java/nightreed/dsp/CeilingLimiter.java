package nightreed.dsp;

/**
 * Holds a signal under a ceiling, waveform between the samples included. It looks 1.5 ms ahead, so the gain is down
 * before the peak comes, and returns within 150 ms. Peaks between samples are found by a 4-fold interpolation of 24 taps
 * (after ITU-R BS.1770-4, annex 2). One thread at a time; only the constructor allocates.
 */
public final class CeilingLimiter {
    private static final int TAPS = 24;
    private final double ceiling;
    private final double[][] phases = new double[3][TAPS];
    private final double[] recent = new double[TAPS];
    private final float[] delay;
    private final double[] wanted; // gain each delayed sample asks for
    private final double release;
    private int at;
    private double gain = 1;
    private double reduction = 1; // least gain since it was last asked for

    /** @param ceilingDb highest true peak [dBTP], below 0 */
    public CeilingLimiter(double ceilingDb, double sampleRateHz) {
        // what the interpolation misses at the very top of the band
        ceiling = Math.pow(10, (ceilingDb - 0.25) / 20);
        int ahead = Math.max(TAPS, (int) (0.0015 * sampleRateHz));
        delay = new float[ahead];
        wanted = new double[ahead];
        java.util.Arrays.fill(wanted, 1);
        release = 1 - Math.exp(-1 / (0.15 * sampleRateHz));
        for (int p = 0; p < 3; p++) {
            for (int k = 0; k < TAPS; k++) {
                double t = k - (TAPS / 2 - 1) - (p + 1) / 4.0;
                double window = 0.5 + 0.5 * Math.cos(Math.PI * t / (TAPS / 2 + 0.5));
                phases[p][k] = window * Math.sin(Math.PI * t) / (Math.PI * t);
            }
        }
    }

    /** Samples by which the output is late. */
    public int latency() {
        return delay.length;
    }

    /** Limits {@code x[from..to)} in place. A value that is not a number becomes silence. */
    public void process(float[] x, int from, int to) {
        for (int i = from; i < to; i++) {
            float in = Float.isFinite(x[i]) ? x[i] : 0;
            double peak = peak(in);
            float out = delay[at];
            delay[at] = in;
            wanted[at] = peak > ceiling ? ceiling / peak : 1;
            at = at + 1 == delay.length ? 0 : at + 1;
            double least = 1;
            if (gain < 1 || wanted[at == 0 ? delay.length - 1 : at - 1] < 1 || reducing()) {
                for (double w : wanted) {
                    least = Math.min(least, w);
                }
            }
            gain = least < gain ? least : gain + (least - gain) * release;
            reduction = Math.min(reduction, gain);
            x[i] = (float) (out * gain);
        }
    }

    /** Forgets what is on its way through: the next output begins with silence. */
    public void clear() {
        java.util.Arrays.fill(delay, 0);
        java.util.Arrays.fill(recent, 0);
        java.util.Arrays.fill(wanted, 1);
        gain = 1;
    }

    private boolean reducing() {
        return gain < 0.99999;
    }

    /** Largest value of the waveform about the newest sample. */
    private double peak(float in) {
        System.arraycopy(recent, 1, recent, 0, TAPS - 1);
        recent[TAPS - 1] = in;
        double p = Math.abs(in);
        for (double[] phase : phases) {
            double s = 0;
            for (int k = 0; k < TAPS; k++) {
                s += phase[k] * recent[k];
            }
            p = Math.max(p, Math.abs(s));
        }
        return p;
    }

    /** Least gain since the last call [1 = nothing held back]; resets. */
    public double takeReduction() {
        double r = reduction;
        reduction = 1;
        return r;
    }
}
