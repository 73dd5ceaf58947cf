package nightreed.measure;

import java.util.Arrays;
import java.util.List;
import java.util.function.DoubleUnaryOperator;
import nightreed.dsp.RealFft;
import nightreed.music.Bark;

/**
 * The strike by critical bands: power without the partials, and of everything, in three spans after the onset.
 *
 * @param burst [span][band] mean power of what is not partials, over the power of the strongest partial
 * @param whole [span][band] the same of the whole sound
 */
public record StrikeBands(double[][] burst, double[][] whole) {
    /** Limits of the spans after the onset [s]. */
    private static final double[] EDGES = {0, 0.006, 0.02, 0.06};

    /** Number of spans. */
    public int spans() {
        return burst.length;
    }

    /** Length of a span [s]. */
    public double spanSeconds(int span) {
        return EDGES[span + 1] - EDGES[span];
    }

    /**
     * @param burst      samples from the onset without the partials
     * @param whole      samples from the onset
     * @param fs         their rate [Hz]
     * @param strongest  amplitude of the strongest partial at the onset, above 0
     * @param background variance per sample of white noise as dense as the background at a frequency [Hz]
     */
    public static StrikeBands of(
            double[] burst, double[] whole, double fs, double strongest, DoubleUnaryOperator background) {
        double reference = Math.max(1e-12, strongest) * Math.max(1e-12, strongest) / 2;
        double[][] b = new double[EDGES.length - 1][];
        double[][] w = new double[EDGES.length - 1][];
        for (int s = 0; s < b.length; s++) {
            int from = (int) (EDGES[s] * fs);
            int to = (int) (EDGES[s + 1] * fs);
            b[s] = bands(burst, from, to, fs);
            w[s] = bands(whole, from, to, fs);
            for (int k = 0; k < Bark.BANDS; k++) {
                double width = Math.min(fs / 2, Bark.edgeHz(k + 1)) - Bark.edgeHz(k);
                double noise = background.applyAsDouble(Bark.centreHz(k)) * Math.max(0, width) / (fs / 2);
                b[s][k] = Math.max(0, b[s][k] - 1.5 * noise) / reference;
                w[s][k] /= reference;
            }
        }
        return new StrikeBands(b, w);
    }

    /**
     * Without a background that was heard by itself.
     *
     * @param background the same spans of moments in which nothing sounds but it, relative to the same partial; at least one
     */
    public StrikeBands without(List<StrikeBands> background) {
        double[][] b = new double[spans()][];
        double[][] w = new double[spans()][];
        for (int s = 0; s < b.length; s++) {
            b[s] = burst[s].clone();
            w[s] = whole[s].clone();
            for (int k = 0; k < Bark.BANDS; k++) {
                int span = s;
                int band = k;
                double quiet = background.stream()
                        .mapToDouble(q -> q.whole[span][band])
                        .average()
                        .orElse(0);
                // a single short span of noise strays by as much as its own power
                b[s][k] = Math.max(0, b[s][k] - 2 * quiet);
                w[s][k] = Math.max(0, w[s][k] - quiet);
            }
        }
        return new StrikeBands(b, w);
    }

    /** Mean power per band of the samples from..to, whose edges are faded by a twentieth to keep bands apart. */
    private static double[] bands(double[] x, int from, int to, double fs) {
        int n = RealFft.powerOfTwoFrom(2 * (to - from));
        double[] frame = new double[n];
        int fade = Math.max(1, (to - from) / 8);
        double norm = 0;
        for (int i = from; i < Math.min(to, x.length); i++) {
            double w = Math.min(1, (Math.min(i - from, to - 1 - i) + 0.5) / fade);
            frame[i - from] = w * x[i];
        }
        for (int i = 0; i < to - from; i++) {
            double w = Math.min(1, (Math.min(i, to - from - 1 - i) + 0.5) / fade);
            norm += w * w;
        }
        double[] p = RealFft.power(new RealFft(n).forward(frame));
        double[] out = new double[Bark.BANDS];
        Arrays.fill(out, 0);
        for (int k = 1; k < p.length; k++) {
            int band = Bark.band(k * fs / n);
            if (band >= 0) {
                out[band] += 2 * p[k] / (n * norm);
            }
        }
        return out;
    }
}
