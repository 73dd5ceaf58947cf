package nightreed.measure;

import nightreed.dsp.RealFft;
import nightreed.dsp.Windows;
import nightreed.measure.partial.NoiseFloor;
import nightreed.measure.take.Channels;
import nightreed.music.Bark;
import nightreed.sound.Clip;

/**
 * Spectral centroid over time, power-weighted, with the background taken off.
 *
 * @param hopSeconds    time between two values [s]
 * @param centroidHz    centroid per frame from the onset [Hz]; NaN where the note is under the background
 * @param levelDb       level per frame [dB re the loudest frame]
 */
public record BrightnessPath(double hopSeconds, double[] centroidHz, double[] levelDb) {
    private static final double HOP = 0.010;

    /** The path of a measured recording, from its onset on. */
    public static BrightnessPath of(Clip clip, Measurement m) {
        double fs = clip.sampleRateHz();
        double[] x = Channels.of(clip).samples();
        int onset = (int) Math.round(m.onsetSeconds() * fs);
        NoiseFloor floor =
                onset > 0.05 * fs ? NoiseFloor.of(x, 0, onset - (int) (0.002 * fs), fs) : NoiseFloor.none(fs);
        return of(x, fs, onset, floor);
    }

    public static BrightnessPath of(double[] x, double fs, int onset, NoiseFloor floor) {
        int hop = (int) (HOP * fs);
        int n = RealFft.powerOfTwoFrom((int) (0.03 * fs));
        RealFft fft = new RealFft(n);
        int frames = Math.max(1, Math.min(600, (x.length - onset) / hop));
        double[] centroid = new double[frames];
        double[] level = new double[frames];
        double binHz = fs / n;
        double[] window = new double[n];
        double norm = 0;
        for (int i = 0; i < n; i++) {
            window[i] = Windows.hann(i, n);
            norm += window[i] * window[i];
        }
        double[] noise = new double[n / 2 + 1];
        double background = 0;
        for (int k = 1; k < noise.length; k++) {
            noise[k] = floor.at(k * binHz);
            background += noise[k];
        }
        double loudest = 0;
        for (int f = 0; f < frames; f++) {
            double[] frame = new double[n];
            for (int i = 0; i < n && onset + f * hop + i < x.length; i++) {
                frame[i] = window[i] * x[onset + f * hop + i];
            }
            double[] p = RealFft.power(fft.forward(frame));
            double sum = 0;
            double weighted = 0;
            for (int k = 1; k < p.length; k++) {
                // not cut off at 0: what the noise adds here it lacks there
                double clean = p[k] / norm - noise[k];
                sum += clean;
                weighted += clean * k * binHz;
            }
            boolean above = sum > background && weighted > 0;
            level[f] = above ? sum : 0;
            centroid[f] = above ? weighted / sum : Double.NaN;
            loudest = Math.max(loudest, level[f]);
        }
        for (int f = 0; f < frames; f++) {
            level[f] = 10 * Math.log10(level[f] / loudest);
        }
        return new BrightnessPath(HOP, centroid, level);
    }

    /** Null if no frame stands above the background. */
    public Brightness summary() {
        int last = -1;
        int first = -1;
        for (int f = 0; f < centroidHz.length; f++) {
            if (levelDb[f] > -30) {
                last = f;
                first = first < 0 ? f : first;
            }
        }
        if (first < 0) {
            return null;
        }
        double start = centroidHz[first];
        double end = centroidHz[last];
        double half = (Bark.of(start) + Bark.of(end)) / 2;
        double time = 0;
        for (int f = first; f <= last; f++) {
            boolean passed = end < start ? Bark.of(centroidHz[f]) <= half : Bark.of(centroidHz[f]) >= half;
            if (passed) {
                time = f * hopSeconds;
                break;
            }
        }
        return new Brightness(start, end, time);
    }
}
