package nightreed.dsp;

/**
 * Holds a signal of two sides under a ceiling, waveform between the samples included. Both sides are held back alike, so
 * that nothing moves to one side. It looks 1.5 ms ahead, so the gain is down before the peak comes, and returns within
 * 150 ms. Peaks between samples are found by a 4-fold interpolation of 24 taps (after ITU-R BS.1770-4, annex 2). One thread
 * at a time; only the constructor allocates.
 */
public final class CeilingLimiter {
    private static final int TAPS = 24;
    private final double ceiling;
    private final double[][] phases = new double[3][TAPS];
    private final Side left;
    private final Side right;
    private final double[] wanted; // gain each delayed sample asks for
    private final double release;
    private int at;
    private double gain = 1;
    private double reduction = 1; // least gain since it was last asked for

    /** What is on its way through, of one side. */
    private static final class Side {
        private final double[] recent = new double[TAPS];
        private final float[] delay;

        Side(int ahead) {
            delay = new float[ahead];
        }
    }

    /** @param ceilingDb highest true peak [dBTP], below 0 */
    public CeilingLimiter(double ceilingDb, double sampleRateHz) {
        // what the interpolation misses at the very top of the band
        ceiling = Math.pow(10, (ceilingDb - 0.25) / 20);
        int ahead = Math.max(TAPS, (int) (0.0015 * sampleRateHz));
        left = new Side(ahead);
        right = new Side(ahead);
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
        return wanted.length;
    }

    /** Limits a sound of one side, {@code x[from..to)}, in place. */
    public void process(float[] x, int from, int to) {
        for (int i = from; i < to; i++) {
            float in = finite(x[i]);
            x[i] = (float) (through(left, in) * next(peak(left, in)));
        }
    }

    /**
     * Limits {@code l[from..to)} and {@code r[from..to)}, two different arrays, in place. A value that is not a number becomes
     * silence.
     */
    public void process(float[] l, float[] r, int from, int to) {
        for (int i = from; i < to; i++) {
            float inL = finite(l[i]);
            float inR = finite(r[i]);
            double peak = Math.max(peak(left, inL), peak(right, inR));
            float outL = through(left, inL);
            float outR = through(right, inR);
            double g = next(peak);
            l[i] = (float) (outL * g);
            r[i] = (float) (outR * g);
        }
    }

    private static float finite(float v) {
        return Float.isFinite(v) ? v : 0;
    }

    private float through(Side s, float in) {
        float out = s.delay[at];
        s.delay[at] = in;
        return out;
    }

    /** Gain for the sample that comes out while one of this peak goes in. */
    private double next(double peak) {
        wanted[at] = peak > ceiling ? ceiling / peak : 1;
        double newest = wanted[at];
        at = at + 1 == wanted.length ? 0 : at + 1;
        double least = 1;
        if (gain < 1 || newest < 1) {
            for (double w : wanted) {
                least = Math.min(least, w);
            }
        }
        gain = least < gain ? least : gain + (least - gain) * release;
        reduction = Math.min(reduction, gain);
        return gain;
    }

    /** Forgets what is on its way through: the next output begins with silence. */
    public void clear() {
        for (int i = 0; i < wanted.length; i++) {
            left.delay[i] = 0;
            right.delay[i] = 0;
            wanted[i] = 1;
        }
        java.util.Arrays.fill(left.recent, 0);
        java.util.Arrays.fill(right.recent, 0);
        gain = 1;
    }

    /** Largest value of the waveform about the newest sample of a side. */
    private double peak(Side side, float in) {
        double[] recent = side.recent;
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
