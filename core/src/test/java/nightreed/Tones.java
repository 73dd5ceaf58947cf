package nightreed;

import java.util.Random;
import nightreed.dsp.Biquad;
import nightreed.dsp.BiquadFilter;

/** Signals with known truth for tests. */
public final class Tones {
    private Tones() {}

    /** One partial: amplitude at time 0 [1 = full scale], frequency [Hz], T60 [s], phase [rad] of a cosine. */
    public record P(double amplitude, double hz, double t60, double phase) {}

    /** Sum of decaying partials that start at {@code onset} seconds, over {@code total} seconds. */
    public static double[] struck(double fs, double onset, double total, P... partials) {
        double[] x = new double[(int) Math.round(total * fs)];
        int start = (int) Math.round(onset * fs);
        for (P p : partials) {
            for (int i = start; i < x.length; i++) {
                double t = (i - start) / fs;
                x[i] += p.amplitude
                        * Math.exp(-Math.log(1000) * t / p.t60)
                        * Math.cos(2 * Math.PI * p.hz * t + p.phase);
            }
        }
        return x;
    }

    /** Adds white Gaussian noise of standard deviation {@code sigma}. */
    public static double[] noisy(double[] x, double sigma, long seed) {
        Random r = new Random(seed);
        double[] y = x.clone();
        for (int i = 0; i < y.length; i++) {
            y[i] += sigma * r.nextGaussian();
        }
        return y;
    }

    /** A sine of one frequency. */
    public static float[] sine(double fs, double hz, double amplitude, double seconds) {
        float[] x = new float[(int) Math.round(seconds * fs)];
        for (int i = 0; i < x.length; i++) {
            x[i] = (float) (amplitude * Math.sin(2 * Math.PI * hz * i / fs));
        }
        return x;
    }

    /** Level [dB] of the samples from..to. */
    public static double rmsDb(float[] x, int from, int to) {
        double s = 0;
        for (int i = from; i < to; i++) {
            s += (double) x[i] * x[i];
        }
        return 10 * Math.log10(s / (to - from));
    }

    /** Without what lies over a frequency, 24 dB per octave. */
    public static float[] lowPassed(float[] x, double fs, double hz) {
        Biquad cut = Biquad.lowPass(hz, Biquad.BUTTERWORTH_Q, fs);
        double[] d = new double[x.length];
        for (int i = 0; i < x.length; i++) {
            d[i] = x[i];
        }
        d = BiquadFilter.apply(cut, BiquadFilter.apply(cut, d));
        float[] y = new float[x.length];
        for (int i = 0; i < x.length; i++) {
            y[i] = (float) d[i];
        }
        return y;
    }

    /** T60 of an octave band of a decaying noise [s], from its energy to come (M. Schroeder, 1965) between -5 and -35 dB. */
    public static double t60OfBand(float[] x, double fs, double hz, double about) {
        double[] d = new double[x.length];
        for (int i = 0; i < x.length; i++) {
            d[i] = x[i];
        }
        Biquad low = Biquad.lowPass(hz * Math.sqrt(2), Biquad.BUTTERWORTH_Q, fs);
        Biquad high = Biquad.highPass(hz / Math.sqrt(2), Biquad.BUTTERWORTH_Q, fs);
        for (int pass = 0; pass < 2; pass++) {
            d = BiquadFilter.apply(high, BiquadFilter.apply(low, d));
        }
        int end = (int) Math.min(d.length, 1.3 * about * fs);
        double[] left = new double[end + 1];
        for (int i = end - 1; i >= 0; i--) {
            left[i] = left[i + 1] + d[i] * d[i];
        }
        int a = 0;
        while (left[a] > left[0] * Math.pow(10, -0.5)) {
            a++;
        }
        int b = a;
        while (left[b] > left[0] * Math.pow(10, -3.5)) {
            b++;
        }
        return 2.0 * (b - a) / fs;
    }

    /** Amplitude at one frequency over a whole stretch, Hann-weighted. */
    public static double amplitudeAt(float[] x, double fs, double hz, int from, int n) {
        double re = 0;
        double im = 0;
        double sum = 0;
        for (int i = 0; i < n; i++) {
            double w = 0.5 - 0.5 * Math.cos(2 * Math.PI * (i + 0.5) / n);
            re += w * x[from + i] * Math.cos(2 * Math.PI * hz * i / fs);
            im += w * x[from + i] * Math.sin(2 * Math.PI * hz * i / fs);
            sum += w;
        }
        return 2 * Math.hypot(re, im) / sum;
    }
}
