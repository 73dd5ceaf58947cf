package nightreed.match.fit;

import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import nightreed.dsp.RealFft;
import nightreed.dsp.Windows;
import nightreed.music.Bark;

/**
 * Spectra of single frames. Transforms, windows and limits of bands are made once for all the thousands of sounds that a search
 * looks at. May be used by several threads.
 */
final class FrameSpectra {
    private final double fs;
    private final Map<Integer, Look> abrupt = new ConcurrentHashMap<>(); // by length, of frames at an onset
    private final Map<Integer, Look> soft = new ConcurrentHashMap<>(); // by length
    private final Map<Integer, double[]> hann = new ConcurrentHashMap<>(); // by length

    /** @param fs rate of the sounds [Hz] */
    FrameSpectra(double fs) {
        this.fs = fs;
    }

    /** Mean power per critical band of a span whose edges are faded, the first one little; new array. */
    double[] bands(double[] x, int start, int end) {
        Look look = (start == 0 ? abrupt : soft).computeIfAbsent(end - start, n -> new Look(n, fs, start == 0 ? 8 : 2));
        return look.bands(x, start);
    }

    /**
     * Spectrum of a frame under a Hann window: real and imaginary part of bins 0..n/2, interleaved.
     *
     * @param n length, a power of two
     */
    double[] spectrum(double[] x, int start, int n) {
        double[] window = hann.computeIfAbsent(n, Windows::hann);
        double[] frame = new double[n];
        for (int i = 0; i < Math.min(n, x.length - start); i++) {
            frame[i] = window[i] * x[start + i];
        }
        return soft.computeIfAbsent(n, length -> new Look(length, fs, 2))
                .transform
                .forward(frame);
    }

    /** How frames of one length are looked at. */
    private static final class Look {
        private final RealFft transform;
        private final double[] window;
        private final int[] edges; // first bin of each band, and the first after them
        private final double scale;

        /** @param part of the length that each edge is faded over, as its divisor */
        Look(int length, double fs, int part) {
            int n = RealFft.powerOfTwoFrom(length);
            transform = new RealFft(n);
            window = new double[length];
            int fade = Math.max(1, length / part);
            double norm = 0;
            for (int i = 0; i < length; i++) {
                double u = Math.min(1, (Math.min(i, length - 1 - i) + 0.5) / fade);
                window[i] = u * u * (3 - 2 * u);
                norm += window[i] * window[i];
            }
            edges = new int[Bark.BANDS + 1];
            for (int b = 0; b < edges.length; b++) {
                int bin = (int) Math.ceil(Bark.edgeHz(b) * n / fs);
                edges[b] = Math.max(1, Math.min(n / 2 + 1, bin));
            }
            scale = 2 / (n * norm);
        }

        double[] bands(double[] x, int start) {
            double[] frame = new double[transform.length()];
            for (int i = 0; i < Math.min(window.length, x.length - start); i++) {
                frame[i] = window[i] * x[start + i];
            }
            double[] s = transform.forward(frame);
            double[] out = new double[Bark.BANDS];
            for (int b = 0; b < out.length; b++) {
                double sum = 0;
                for (int k = edges[b]; k < edges[b + 1]; k++) {
                    sum += s[2 * k] * s[2 * k] + s[2 * k + 1] * s[2 * k + 1];
                }
                out[b] = scale * sum;
            }
            return out;
        }
    }

    /** Mean power per sample in each critical band before a sample: what a recording has besides the note. */
    double[] background(double[] x, int end) {
        double[] out = new double[Bark.BANDS];
        int n = (int) (0.0427 * fs);
        int count = 0;
        for (int at = 0; at + n <= end; at += n) {
            double[] b = bands(x, at, at + n);
            count++;
            for (int k = 0; k < out.length; k++) {
                out[k] += b[k];
            }
        }
        for (int k = 0; k < out.length; k++) {
            out[k] /= Math.max(1, count);
        }
        return out;
    }
}
