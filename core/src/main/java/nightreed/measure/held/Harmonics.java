package nightreed.measure.held;

import nightreed.dsp.RealFft;
import nightreed.dsp.SincReader;

/**
 * Every harmonic of a note along its pitch.
 *
 * <p>The signal is read at equal steps of the phase of its fundamental, so that the pitch no longer moves. A Hann window over
 * a whole number of periods then has every other harmonic at a null, and half-way between two harmonics only the noise is
 * left.
 */
final class Harmonics {
    /** Periods under the window, at the least; more where periods are short, so that it spans {@link #LEAST_SECONDS}. */
    private static final int LEAST_PERIODS = 4;

    private static final double LEAST_SECONDS = 0.014;
    private static final int MOST = 80;

    private final double[] seconds;
    private final double[][] re;
    private final double[][] im;
    private final double[][] noise;
    private final double meanPower;
    private final int hop;

    private Harmonics(double[] seconds, double[][] re, double[][] im, double[][] noise, double meanPower, int hop) {
        this.seconds = seconds;
        this.re = re;
        this.im = im;
        this.noise = noise;
        this.meanPower = meanPower;
        this.hop = hop;
    }

    /**
     * @param x    the recording
     * @param path its pitch
     * @param from start of what is looked at [s]
     * @param to   its end [s]
     */
    static Harmonics along(SincReader x, double fs, PitchPath path, double from, double to) {
        double f0 = path.hzAt((from + to) / 2);
        int periods = LEAST_PERIODS;
        while (periods < LEAST_SECONDS * f0) {
            periods *= 2;
        }
        int hop = periods / 4;
        int perPeriod = RealFft.powerOfTwoFrom((int) Math.ceil(1.1 * fs / f0));
        int count = (int) Math.max(1, Math.min(MOST, 0.46 * fs / f0));
        int first = (int) Math.ceil(path.cyclesAt(from));
        int frames = Math.max(2, (int) ((path.cyclesAt(to) - first) / hop) + 1);
        int length = periods * perPeriod;
        double[] warped = warp(x, fs, path, first - periods / 2, perPeriod, (frames - 1) * hop * perPeriod + length);
        double[] window = new double[length];
        double sum = 0;
        double squares = 0;
        for (int i = 0; i < length; i++) {
            window[i] = 0.5 - 0.5 * Math.cos(2 * Math.PI * i / length);
            sum += window[i];
            squares += window[i] * window[i];
        }
        RealFft fft = new RealFft(length);
        double[] seconds = new double[frames];
        double[][] re = new double[count][frames];
        double[][] im = new double[count][frames];
        double[][] noise = new double[count][frames];
        double[] frame = new double[length];
        double meanPower = 0;
        for (int f = 0; f < frames; f++) {
            seconds[f] = path.secondsAt(first + (double) f * hop);
            for (int i = 0; i < length; i++) {
                frame[i] = warped[f * hop * perPeriod + i] * window[i];
            }
            double[] s = fft.forward(frame);
            for (int k = periods; k < s.length; k += 2) {
                meanPower += power(s, k) * 2 / (length * squares) / frames;
            }
            for (int n = 1; n <= count; n++) {
                int k = 2 * n * periods;
                re[n - 1][f] = s[k] * 2 / sum;
                im[n - 1][f] = s[k + 1] * 2 / sum;
                noise[n - 1][f] = (power(s, k - periods) + power(s, k + periods)) * 2 / (sum * sum);
            }
        }
        for (int n = 0; n < count; n++) {
            noise[n] = smoothed(noise[n]);
        }
        return new Harmonics(seconds, re, im, noise, meanPower, hop);
    }

    private static double power(double[] s, int at) {
        return s[at] * s[at] + s[at + 1] * s[at + 1];
    }

    private static double[] warp(
            SincReader x, double fs, PitchPath path, double fromCycle, int perPeriod, int samples) {
        double[] out = new double[samples];
        int step = 16; // between these the time is taken for straight
        double t0 = path.secondsAt(fromCycle) * fs;
        for (int a = 0; a < samples; a += step) {
            double t1 = path.secondsAt(fromCycle + (double) (a + step) / perPeriod) * fs;
            for (int i = a; i < Math.min(samples, a + step); i++) {
                out[i] = x.at(t0 + (t1 - t0) * (i - a) / step);
            }
            t0 = t1;
        }
        return out;
    }

    int count() {
        return re.length;
    }

    int frames() {
        return seconds.length;
    }

    /** Mean square of all that sounds, over all frames, from half of the fundamental on: what lies lower is no part of a note. */
    double meanPower() {
        return meanPower;
    }

    /** Middle of a frame [s]. */
    double seconds(int frame) {
        return seconds[frame];
    }

    /** Periods from one frame to the next. */
    int hop() {
        return hop;
    }

    /** Real part of the complex amplitude (peak, full scale 1) of harmonic {@code n}, from 1. */
    double re(int n, int frame) {
        return re[n - 1][frame];
    }

    double im(int n, int frame) {
        return im[n - 1][frame];
    }

    /** Squared amplitude. */
    double power(int n, int frame) {
        return re[n - 1][frame] * re[n - 1][frame] + im[n - 1][frame] * im[n - 1][frame];
    }

    /** Mean of what noise alone would give for {@link #power}, over a few frames around. */
    double noise(int n, int frame) {
        return noise[n - 1][frame];
    }

    private static double[] smoothed(double[] v) {
        double[] out = new double[v.length];
        for (int i = 0; i < v.length; i++) {
            int a = Math.max(0, i - 3);
            int b = Math.min(v.length - 1, i + 3);
            double sum = 1e-16;
            for (int k = a; k <= b; k++) {
                sum += v[k] / (b - a + 1);
            }
            out[i] = sum;
        }
        return out;
    }
}
