package nightreed.match.sound;

import java.util.Arrays;
import nightreed.dsp.RealFft;
import nightreed.dsp.Windows;
import nightreed.music.Bark;
import nightreed.sound.Clip;
import nightreed.sound.Loudness;

/**
 * Loudness and brightness over time, from the onset on, with the background taken off.
 *
 * @param power        K-weighted power per frame, background taken off
 * @param background   K-weighted power of the background, 0 if unknown
 * @param bark         centroid per frame [Bark], NaN where the sound is not above the background
 * @param quickRise  times at which the energy passes the {@link #THRESHOLDS} of the most there is of it in the first tenth of
 *                   a second, from where it passes the first; null if it does not [s]
 * @param slowRise   the same of the most there is in a longer time
 * @param swells     whether the longer time is that of the attack: it still rises by much after a tenth of a second
 */
public record LoudnessTracks(
        double[] power, double background, double[] bark, double[] quickRise, double[] slowRise, boolean swells) {
    /** Time between two frames [s]. */
    public static final double HOP = 0.010;

    public static final double MOST_SECONDS = 8;

    /** Length of the lines that meet at a knee [frames]. */
    private static final int KNEE = 6;

    /** Share of the greatest power over which a sound is there. */
    private static final double SOUNDING = 0.01;

    /** Share of the usual power that a sound still has while it lasts. */
    private static final double NEARLY = 0.1;

    /** Share of the greatest power under which nobody lets go of a key any more. */
    private static final double LEAST_LET_GO = 3e-4;

    /** What lies higher moves no brightness that is heard [Hz]. */
    private static final double HIGHEST_HZ = 16_000;

    /** Gain with which another has the same K-weighted energy over the common span from the onsets [dB]. */
    public double gainDb(LoudnessTracks other) {
        double mine = 0;
        double its = 0;
        for (int f = 0; f < Math.min(power.length, other.power.length); f++) {
            mine += power[f];
            its += other.power[f];
        }
        return mine > 0 && its > 0 ? 10 * Math.log10(mine / its) : 0;
    }

    /** Over a span after the onset [s]; 0 where there is nothing. */
    public double meanPower(double from, double to) {
        double sum = 0;
        int first = (int) Math.max(0, from / HOP);
        int last = (int) Math.min(power.length, to / HOP);
        for (int f = first; f < last; f++) {
            sum += power[f] / (last - first);
        }
        return sum;
    }

    /**
     * Where a steady sound suddenly falls and does not come back, as it does when a key is let go: within a quarter of a second
     * by far more than it fell before. Infinite if it never does [s].
     */
    public double letGo() {
        double least = 0;
        for (double p : power) {
            least = Math.max(least, LEAST_LET_GO * p);
        }
        int before = (int) (0.3 / HOP);
        int after = (int) (0.25 / HOP);
        for (int f = before; f + after <= power.length; f++) {
            double first = meanPower((f - before) * HOP, (f - before / 2) * HOP);
            double second = meanPower((f - before / 2) * HOP, f * HOP);
            double then = meanPower((f + after - 5) * HOP, (f + after) * HOP);
            double fell = 10 * Math.log10((first + 1e-15) / (second + 1e-15));
            double falls = 10 * Math.log10((second + 1e-15) / (then + 1e-15));
            boolean fallen = second > least + 1e-9 && Math.abs(fell) < 2 && falls > 15;
            if (fallen && meanPower((f + after) * HOP, power.length * HOP) <= then + 1e-15) {
                return begun(f);
            }
        }
        return Double.POSITIVE_INFINITY;
    }

    /**
     * Where a sound that does not die by itself is left for good, however unsteady it was before: within a quarter of a second
     * from where it was last nearly as loud as it mostly is. Infinite if it is not [s].
     */
    public double leftForGood() {
        double top = Arrays.stream(power).max().orElse(0);
        double[] sounding =
                Arrays.stream(power).filter(p -> p > SOUNDING * top).sorted().toArray();
        double mostly = sounding.length == 0 ? 0 : sounding[sounding.length / 2];
        int last = power.length - 1;
        while (last > 0 && power[last] < NEARLY * mostly) {
            last--;
        }
        int after = (int) (0.25 / HOP);
        int before = (int) (0.3 / HOP);
        boolean seen = mostly > 0 && last >= before && last + after <= power.length;
        if (!seen || meanPower((last + after - 5) * HOP, (last + after) * HOP) > 0.03 * NEARLY * mostly) {
            return Double.POSITIVE_INFINITY;
        }
        return begun(last - 8);
    }

    /** Near the first frame that a fall was seen after, the knee: where two short straight lines through the levels meet [s]. */
    private double begun(int from) {
        double level = decibels(meanPower((from - 10) * HOP, from * HOP));
        double most = 0;
        double found = from * HOP;
        int last = Math.min(power.length - 2, from + KNEE + (int) (0.25 / HOP));
        for (int knee = from - KNEE; knee <= last && decibels(power[Math.max(0, knee)]) > level - 12; knee++) {
            double[] before = line(knee - KNEE, knee);
            double[] after = line(knee + 1, knee + 1 + KNEE);
            double gained = line(knee - KNEE, knee + 1 + KNEE)[2] - before[2] - after[2];
            if (gained > most && after[1] < before[1] - 0.2) {
                most = gained;
                double meet = (after[0] - before[0]) / (before[1] - after[1]);
                found = (Math.max(knee - 1, Math.min(knee + 2, meet)) + 0.5) * HOP;
            }
        }
        return Math.max(0, found);
    }

    /** Level at frame 0 [dB], slope per frame [dB] and sum of squares of what is left, of the line through some frames. */
    private double[] line(int from, int to) {
        double n = 0;
        double x = 0;
        double y = 0;
        double xx = 0;
        double xy = 0;
        double yy = 0;
        for (int f = Math.max(0, from); f <= Math.min(to, power.length - 1); f++) {
            double db = decibels(power[f]);
            n++;
            x += f;
            y += db;
            xx += (double) f * f;
            xy += f * db;
            yy += db * db;
        }
        double spread = n * xx - x * x;
        double slope = spread > 0 ? (n * xy - x * y) / spread : 0;
        double at = n > 0 ? (y - slope * x) / n : 0;
        return new double[] {at, slope, yy - at * y - slope * xy};
    }

    /** Time in which 60 dB would be lost from a time on; at least one frame [s]. */
    public double fallSeconds(double from) {
        return fallSeconds(from, decibels(meanPower(from - 0.1, from - HOP)));
    }

    /** From the parts of the fall between 4 and 26 dB under a level. */
    private double fallSeconds(double from, double level) {
        int f = (int) Math.min(power.length - 1.0, Math.max(0, from / HOP));
        while (f < power.length - 1 && decibels(power[f]) > level - 4) {
            f++;
        }
        int first = f;
        while (f < power.length - 1 && decibels(power[f]) > level - 26) {
            f++;
        }
        double fallen = decibels(power[first]) - decibels(power[f]);
        return fallen <= 0 ? HOP : Math.max(HOP, (f - first) * HOP * 60 / fallen);
    }

    private static double decibels(double power) {
        return 10 * Math.log10(power + 1e-12);
    }

    /** As loud as a sound of one channel is that both ears hear: two that are alike count as one. */
    private static double[] power(Clip clip, int hop) {
        double[] power = Loudness.framePower(clip, hop);
        for (int i = 0; i < power.length; i++) {
            power[i] /= clip.channelCount();
        }
        return power;
    }

    public static LoudnessTracks of(Clip clip, int onset) {
        int fs = clip.sampleRateHz();
        int hop = (int) Math.round(HOP * fs);
        Clip note = clip.span(onset, clip.length());
        double[] power = power(note, hop);
        int frames = (int) Math.min(power.length, MOST_SECONDS / HOP);
        power = Arrays.copyOf(power, frames);
        double background = 0;
        double[] noise = null;
        int n = RealFft.powerOfTwoFrom((int) (0.03 * fs));
        RealFft fft = new RealFft(n);
        int lead = onset - (int) (0.003 * fs);
        if (lead > Math.max(3 * hop, n)) {
            double[] quiet = power(clip.span(0, lead), hop);
            for (int i = 1; i < quiet.length; i++) {
                background += quiet[i] / (quiet.length - 1);
            }
            noise = meanSpectrum(clip.span(0, lead).mixed(), fft);
        }
        for (int f = 0; f < frames; f++) {
            power[f] = Math.max(0, power[f] - background);
        }
        double[] x = note.mixed();
        double[] energy = rising(x, fs);
        double step = riseStep(fs) / (double) fs;
        double early = most(energy, (int) (0.1 / step) + 1);
        double late = most(energy, energy.length);
        return new LoudnessTracks(
                power,
                background,
                centroids(x, fft, fs, hop, frames, noise),
                rise(energy, early, step),
                rise(energy, late, step),
                late > 2 * early);
    }

    /** The rise of the attack; null if there is none. */
    public double[] rise() {
        return swells ? slowRise : quickRise;
    }

    /** The rise as it is to be set beside another, both up to the top of the same stretch of time; null if there is none. */
    public double[] riseBeside(LoudnessTracks other) {
        return swells || other.swells ? slowRise : quickRise;
    }

    /** Amplitudes that a rise is followed through, as shares of the top. */
    private static final double[] THRESHOLDS = {0.1, 0.3, 0.5, 0.65, 0.8};

    /** Samples between two windows in which a rise is followed. */
    private static int riseStep(int fs) {
        return Math.max(1, (int) (0.0005 * fs));
    }

    /**
     * Energy of the start in windows of 5 ms. Energy, and not the waveform: where in its cycle each partial starts is not
     * heard.
     */
    private static double[] rising(double[] x, int fs) {
        int window = Math.max(1, (int) (0.005 * fs));
        int step = riseStep(fs);
        double[] energy = new double[Math.min(x.length, (int) (0.4 * fs)) / step];
        for (int f = 0; f < energy.length; f++) {
            for (int i = Math.max(0, f * step - window); i < f * step; i++) {
                energy[f] += x[i] * x[i];
            }
        }
        return energy;
    }

    private static double most(double[] energy, int frames) {
        double most = 0;
        for (int f = 0; f < Math.min(frames, energy.length); f++) {
            most = Math.max(most, energy[f]);
        }
        return most;
    }

    private static double[] rise(double[] energy, double top, double step) {
        double[] out = new double[THRESHOLDS.length];
        int passed = 0;
        for (int f = 0; f < energy.length && top > 0 && passed < out.length; f++) {
            while (passed < out.length && energy[f] >= THRESHOLDS[passed] * THRESHOLDS[passed] * top) {
                out[passed++] = f * step - (passed > 1 ? out[0] : 0);
            }
        }
        out[0] = 0;
        return passed < out.length ? null : out;
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
            y[i] = x[at + i] * Windows.hann(i, n);
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
        int top = (int) Math.min(bark.length - 1.0, HIGHEST_HZ * fft.length() / fs);
        double[] out = new double[frames];
        for (int f = 0; f < frames; f++) {
            double[] p = frame(x, f * hop, fft);
            double sum = 0;
            double weighted = 0;
            for (int k = 1; k <= top; k++) {
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
