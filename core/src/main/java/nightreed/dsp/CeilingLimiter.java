package nightreed.dsp;

import java.util.Arrays;

/**
 * Holds a signal of two sides under a ceiling, waveform between the samples included. Both sides are held back alike, so
 * that nothing moves to one side. The gain is down when a peak comes and goes there on a smooth ramp of 1.5 ms, so that
 * neither click nor distortion is added; it stays while further peaks of a tone come, and returns within 150 ms. One thread at
 * a time; only the constructor allocates.
 *
 * <p>Peaks between samples: interpolation to four times the rate (as ITU-R BS.1770-4, annex 2) and a parabola through the
 * largest three values, by which a tone of 20 kHz is read within 0.02 dB. The gain: least
 * value wanted within the look-ahead and the hold, a slow return, and two moving means in a row over the look-ahead (D. Giannoulis,
 * M. Massberg, J. Reiss, "Digital dynamic range compressor design", 2012, describe the parts).
 */
public final class CeilingLimiter {
    private static final int TAPS = 128;
    private static final int PHASES = 4;

    /** Shape of the window over the interpolation: the waveform is read up to 0.48 of the rate. */
    private static final double KAISER = 3;

    /** Of the two poles at half the rate that tell how much lies where the interpolation cannot read. */
    private static final double TOP_POLE = 0.93;

    /** How much of that is reckoned with: chosen so that white noise is held within 0.2 dB, and a tone of 20 kHz loses 0.2 dB. */
    private static final double TOP_SHARE = 1.5;

    private static final double AHEAD_SECONDS = 0.0015;

    /** Longer than between two peaks of 20 Hz, or the gain would follow the waveform of low tones [s]. */
    private static final double HOLD_SECONDS = 0.026;

    private static final double RELEASE_SECONDS = 0.15;

    /** What the ramp and the interpolation leave uncertain [dB]. */
    private static final double MARGIN_DB = 0.04;

    private static final double[][] PHASE = interpolation();

    /** The most by which any phase can magnify samples. */
    private static final double MOST = Arrays.stream(PHASE)
            .mapToDouble(p -> Arrays.stream(p).map(Math::abs).sum())
            .max()
            .orElse(1);

    private final double ceiling;
    private final Side left;
    private final Side right;
    private final Least least;
    private final Mean first;
    private final Mean second;
    private final double release;
    private final int late;
    private double returning = 1;
    private double reduction = 1; // least gain since it was last asked for

    /** @param ceilingDb highest true peak [dBTP], below 0 */
    public CeilingLimiter(double ceilingDb, double sampleRateHz) {
        ceiling = Math.pow(10, (ceilingDb - MARGIN_DB) / 20);
        int half = Math.max(8, (int) (AHEAD_SECONDS * sampleRateHz / 2));
        late = TAPS / 2 + 2 * half;
        left = new Side(late);
        right = new Side(late);
        least = new Least(2 * half + (int) (HOLD_SECONDS * sampleRateHz));
        first = new Mean(half);
        second = new Mean(half);
        release = 1 - Math.exp(-1 / (RELEASE_SECONDS * sampleRateHz));
    }

    /** Windowed sincs that read the waveform 1/4 to 3/4 of the way between the two samples in the middle. */
    private static double[][] interpolation() {
        double[][] out = new double[PHASES - 1][TAPS];
        double[] kaiser = Windows.kaiser(PHASES * TAPS + 1, KAISER);
        for (int p = 1; p < PHASES; p++) {
            for (int k = 0; k < TAPS; k++) {
                double t = k - (TAPS / 2 - 1) - (double) p / PHASES;
                out[p - 1][k] =
                        kaiser[(int) Math.rint(PHASES * (t + TAPS / 2.0))] * Math.sin(Math.PI * t) / (Math.PI * t);
            }
        }
        return out;
    }

    /** Samples by which the output is late. */
    public int latency() {
        return late;
    }

    /** Limits a sound of one side, {@code x[from..to)}, in place. */
    public void process(float[] x, int from, int to) {
        for (int i = from; i < to; i++) {
            float in = finite(x[i]);
            double peak = left.peak(in, ceiling);
            x[i] = (float) (left.through(in) * next(peak));
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
            double peak = Math.max(left.peak(inL, ceiling), right.peak(inR, ceiling));
            double g = next(peak);
            l[i] = (float) (left.through(inL) * g);
            r[i] = (float) (right.through(inR) * g);
        }
    }

    private static float finite(float v) {
        return Float.isFinite(v) ? v : 0;
    }

    /** Gain for the sample that comes out while one of this peak goes in. */
    private double next(double peak) {
        double target = least.next(peak > ceiling ? ceiling / peak : 1);
        returning = target < returning ? target : returning + (target - returning) * release;
        returning = returning > 1 - 1e-7 ? 1 : returning;
        double gain = second.next(first.next(returning));
        reduction = Math.min(reduction, gain);
        return gain;
    }

    /** Forgets what is on its way through: the next output begins with silence. */
    public void clear() {
        left.clear();
        right.clear();
        least.clear();
        first.clear();
        second.clear();
        returning = 1;
    }

    /** Least gain since the last call [1 = nothing held back]; resets. */
    public double takeReduction() {
        double r = reduction;
        reduction = 1;
        return r;
    }

    /** What is on its way through, of one side. */
    private static final class Side {
        private final double[] recent = new double[2 * TAPS]; // twice over, so that the last ones stand in a row
        private final double[] about = new double[3]; // values of the waveform, the newest last
        private final float[] delay;
        private int newest;
        private int oldest;
        private double firstTop; // what lies close to half the rate
        private double top;
        private int loud; // samples until none that is loud is within reach

        Side(int late) {
            delay = new float[late];
        }

        float through(float in) {
            float out = delay[oldest];
            delay[oldest] = in;
            oldest = oldest + 1 == delay.length ? 0 : oldest + 1;
            return out;
        }

        /** Largest value of the waveform from one sample to the next, half the taps ago. */
        double peak(float in, double ceiling) {
            newest = newest == 0 ? TAPS - 1 : newest - 1;
            recent[newest] = in;
            recent[newest + TAPS] = in;
            firstTop = (1 - TOP_POLE) * in - TOP_POLE * firstTop;
            top = (1 - TOP_POLE) * firstTop - TOP_POLE * top;
            loud = Math.abs(in) * MOST > ceiling ? TAPS + 1 : loud - 1;
            if (loud <= 0) {
                Arrays.fill(about, 0);
                return 0; // nothing between these samples can reach the ceiling
            }
            double p = read(recent[newest + TAPS / 2], 0); // the older of the two samples in the middle
            for (double[] phase : PHASE) {
                double s = 0;
                for (int k = 0; k < TAPS; k++) {
                    s += phase[k] * recent[newest + TAPS - 1 - k];
                }
                p = read(s, p);
            }
            return p + TOP_SHARE * Math.abs(top);
        }

        /** The largest so far, with the top of a parabola if the value before was one. */
        private double read(double value, double largest) {
            double a = about[1];
            double b = about[2];
            about[0] = a;
            about[1] = b;
            about[2] = value;
            double height = Math.abs(b);
            boolean turns = height >= Math.abs(a) && height >= Math.abs(value);
            double bend = a - 2 * b + value;
            if (turns && bend != 0) {
                double slope = value - a;
                height = Math.abs(b - slope * slope / (8 * bend));
            }
            return Math.max(largest, Math.max(height, Math.abs(value)));
        }

        void clear() {
            Arrays.fill(recent, 0);
            Arrays.fill(about, 0);
            Arrays.fill(delay, 0);
            loud = 0;
            firstTop = 0;
            top = 0;
        }
    }

    /** Least of the last values: those that a later, smaller one outlives are dropped (a queue whose values rise). */
    private static final class Least {
        private final double[] value;
        private final long[] time;
        private final int span;
        private int first;
        private int count;
        private long now;

        Least(int span) {
            this.span = span;
            value = new double[span + 1];
            time = new long[span + 1];
        }

        double next(double v) {
            while (count > 0 && value[place(count - 1)] >= v) {
                count--;
            }
            value[place(count)] = v;
            time[place(count)] = now;
            count++;
            if (now - time[first] >= span) {
                first = place(1);
                count--;
            }
            now++;
            return value[first];
        }

        private int place(int i) {
            int at = first + i;
            return at >= value.length ? at - value.length : at;
        }

        void clear() {
            count = 0;
            first = 0;
        }
    }

    /** Mean of the last values; 1 as long as all of them are. */
    private static final class Mean {
        private final double[] values;
        private double sum; // of what they lack of 1
        private int at;
        private int whole; // values in a row that were 1

        Mean(int n) {
            values = new double[n];
        }

        double next(double v) {
            double lack = 1 - v;
            sum += lack - values[at];
            values[at] = lack;
            at = at + 1 == values.length ? 0 : at + 1;
            whole = lack == 0 ? whole + 1 : 0;
            if (whole >= values.length) {
                sum = 0; // what rounding left
                whole = values.length;
            }
            return 1 - sum / values.length;
        }

        void clear() {
            Arrays.fill(values, 0);
            sum = 0;
            at = 0;
        }
    }
}
