package nightreed.measure.partial;

import java.util.Arrays;
import nightreed.dsp.RealFft;
import nightreed.dsp.Windows;

/**
 * Background noise by frequency: the variance per sample that white noise of the same density would have.
 */
public final class NoiseFloor {
    private final double[] variance; // per bin of WINDOW
    private final double sampleRateHz;
    private static final int WINDOW = 1024;
    /** Rounding of 24 bits: no recording is quieter than that. */
    public static final double LEAST = 1e-15;

    private NoiseFloor(double[] variance, double sampleRateHz) {
        this.variance = variance;
        this.sampleRateHz = sampleRateHz;
    }

    /** Nothing known: the floor of rounding. */
    public static NoiseFloor none(double sampleRateHz) {
        double[] v = new double[WINDOW / 2 + 1];
        Arrays.fill(v, LEAST);
        return new NoiseFloor(v, sampleRateHz);
    }

    /** Whether there was background to measure, and not only the floor of rounding is assumed. */
    public boolean isKnown() {
        for (double v : variance) {
            if (v > LEAST) {
                return true;
            }
        }
        return false;
    }

    /**
     * Floor of the samples {@code from..to}, by averaged Hann-windowed transforms (Welch 1967) smoothed over a tenth of
     * the frequency. Too short a span (under 30 ms) says nothing and gives {@link #none}.
     */
    public static NoiseFloor of(double[] x, int from, int to, double sampleRateHz) {
        if (to - from < Math.max(WINDOW, 0.03 * sampleRateHz)) {
            return none(sampleRateHz);
        }
        RealFft fft = new RealFft(WINDOW);
        double[] sum = new double[WINDOW / 2 + 1];
        int count = 0;
        for (int at = from; at + WINDOW <= to; at += WINDOW / 2) {
            double[] frame = new double[WINDOW];
            double norm = 0;
            for (int i = 0; i < WINDOW; i++) {
                double w = Windows.hann(i, WINDOW);
                frame[i] = w * x[at + i];
                norm += w * w;
            }
            double[] p = RealFft.power(fft.forward(frame));
            for (int k = 0; k < sum.length; k++) {
                sum[k] += p[k] / norm;
            }
            count++;
        }
        double[] smooth = new double[sum.length];
        for (int k = 0; k < sum.length; k++) {
            int reach = Math.max(1, k / 10);
            int a = Math.max(1, k - reach);
            int b = Math.min(sum.length - 1, Math.max(k + reach, a + 2));
            double s = 0;
            for (int j = a; j <= b; j++) {
                s += sum[j];
            }
            smooth[k] = Math.max(LEAST, s / ((b - a + 1) * count));
        }
        return new NoiseFloor(smooth, sampleRateHz);
    }

    /** Mean square of the background. */
    public double total() {
        return Arrays.stream(variance).average().orElse(LEAST);
    }

    /** Equivalent variance per sample at a frequency [Hz]. */
    public double at(double hz) {
        double k = Math.max(0, Math.min(variance.length - 1.001, hz / sampleRateHz * WINDOW));
        int i = (int) k;
        return variance[i] + (k - i) * (variance[i + 1] - variance[i]);
    }
}
