package nightreed.match;

import nightreed.dsp.RealFft;
import nightreed.music.Bark;
import nightreed.sound.Clip;
import nightreed.sound.Loudness;

/**
 * Loudness and brightness over time, from the onset on, with the background taken off.
 *
 * @param power        K-weighted power per frame, background taken off
 * @param background   K-weighted power of the background, 0 if unknown
 * @param bark         centroid per frame [Bark], NaN where the sound is not above the background
 */
record Paths(double[] power, double background, double[] bark) {
    /** Time between two frames [s]. */
    static final double HOP = 0.010;

    private static final double MOST_SECONDS = 8;

    static Paths of(Clip clip, int onset) {
        int fs = clip.sampleRateHz();
        int hop = (int) Math.round(HOP * fs);
        Clip note = clip.span(onset, clip.length());
        double[] power = Loudness.framePower(note, hop);
        int frames = (int) Math.min(power.length, MOST_SECONDS / HOP);
        power = java.util.Arrays.copyOf(power, frames);
        double background = 0;
        double[] noise = null;
        int n = RealFft.powerOfTwoFrom((int) (0.03 * fs));
        RealFft fft = new RealFft(n);
        int lead = onset - (int) (0.003 * fs);
        if (lead > Math.max(3 * hop, n)) {
            double[] quiet = Loudness.framePower(clip.span(0, lead), hop);
            for (int i = 1; i < quiet.length; i++) {
                background += quiet[i] / (quiet.length - 1);
            }
            noise = meanSpectrum(clip.span(0, lead).mixed(), fft);
        }
        for (int f = 0; f < frames; f++) {
            power[f] = Math.max(0, power[f] - background);
        }
        return new Paths(power, background, centroids(note.mixed(), fft, fs, hop, frames, noise));
    }

    private static double[] meanSpectrum(double[] x, RealFft fft) {
        double[] sum = new double[fft.length() / 2 + 1];
        int count = 0;
        for (int at = 0; at + fft.length() <= x.length; at += fft.length() / 2) {
            double[] p = frame(x, at, fft);
            for (int k = 0; k < sum.length; k++) {
                sum[k] += p[k];
            }
            count++;
        }
        for (int k = 0; k < sum.length; k++) {
            sum[k] /= Math.max(1, count);
        }
        return sum;
    }

    private static double[] frame(double[] x, int at, RealFft fft) {
        int n = fft.length();
        double[] y = new double[n];
        for (int i = 0; i < n && at + i < x.length; i++) {
            y[i] = x[at + i] * (0.5 - 0.5 * Math.cos(2 * Math.PI * (i + 0.5) / n));
        }
        return RealFft.power(fft.forward(y));
    }

    private static double[] centroids(double[] x, RealFft fft, double fs, int hop, int frames, double[] noise) {
        double[] bark = new double[fft.length() / 2 + 1];
        double total = 0;
        for (int k = 0; k < bark.length; k++) {
            bark[k] = Bark.of(k * fs / fft.length());
            total += noise == null ? 0 : noise[k];
        }
        double[] out = new double[frames];
        for (int f = 0; f < frames; f++) {
            double[] p = frame(x, f * hop, fft);
            double sum = 0;
            double weighted = 0;
            for (int k = 1; k < p.length; k++) {
                double clean = noise == null ? p[k] : p[k] - noise[k];
                sum += clean;
                weighted += clean * bark[k];
            }
            // what the background's own unrest could shift by a JND is left out
            out[f] = sum > 20 * total && sum > 1e-16 ? weighted / sum : Double.NaN;
        }
        return out;
    }
}
