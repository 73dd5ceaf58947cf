package nightreed.measure;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import nightreed.dsp.LineFit;
import nightreed.dsp.RealFft;
import nightreed.dsp.Windows;
import nightreed.measure.partial.DampedSinusoid;
import nightreed.measure.partial.NoiseFloor;

/**
 * What rings on beside the note: of a struck or plucked one what dies between its partials, of a held one what is heard once
 * it is let go. The room, most likely, or the body's own noise.
 *
 * @param t60Seconds   time in which it falls by 60 dB [s]
 * @param t60SeSeconds standard error of it [s]
 * @param levelDb      level, carried back to the onset or to the release [dB re the strongest partial]; between partials that of
 *     150 Hz to 10 kHz
 */
public record ReverbTail(double t60Seconds, double t60SeSeconds, double levelDb) {
    /** The strike itself is over by then [s]. */
    private static final double AFTER_SECONDS = 0.06;

    private static final double MOST_SECONDS = 1.6;
    private static final double FRAME_SECONDS = 0.04;
    private static final double LOWEST_HZ = 150;
    private static final double HIGHEST_HZ = 10_000;

    /** What the fit of a partial leaves over lies so close to it [Hz]. */
    private static final double NEAR_HZ = 70;

    /** Share of the spectrum that has to be free of partials. */
    private static final double LEAST_FREE = 0.25;

    private static final int FEWEST_FRAMES = 6;
    private static final double LEAST_FALL_DB = 10;

    /** Scatter about a straight fall that the tail of a room may have [dB]. */
    private static final double MOST_SCATTER_DB = 2.5;

    /** Power over the background up to which a tail is followed, and with which it has to begin. */
    private static final double CLEAR = 2;

    private static final double BEGINS = 10;

    String words(boolean held) {
        return held
                ? String.format(
                        Locale.ROOT,
                        "Once it is let go it dies in %.2f s, its release and the room's together.",
                        t60Seconds)
                : String.format(
                        Locale.ROOT,
                        "Between the partials something dies in %.2f s, %.0f dB under the strongest at the strike: a room,"
                                + " or noise of the body. It is no partial: add it last.",
                        t60Seconds,
                        -levelDb);
    }

    /**
     * @param x         the note
     * @param struck    its partials
     * @param strongest amplitude of the strongest at the onset
     * @return null if nothing dies there that could be followed
     */
    static ReverbTail between(double[] x, double fs, int onset, StruckNote struck, NoiseFloor floor, double strongest) {
        int start = struck.start();
        List<DampedSinusoid> terms = struck.terms();
        int from = Math.max(start, onset + (int) (AFTER_SECONDS * fs));
        int to = (int) Math.min(x.length, from + MOST_SECONDS * fs);
        if (to - start < 0.2 * fs || strongest <= 0) {
            return null;
        }
        double[] rest = Arrays.copyOfRange(x, start, to);
        if (struck.fm() != null) {
            struck.fm().addTo(rest, start - onset, fs, -1);
        } else {
            for (DampedSinusoid t : terms) {
                t.addTo(rest, 0, -1);
            }
        }
        int n = RealFft.powerOfTwoFrom((int) (FRAME_SECONDS * fs));
        boolean[] free = new boolean[n / 2 + 1];
        int last = (int) Math.min(n / 2 - 1, HIGHEST_HZ * n / fs);
        int first = (int) Math.ceil(LOWEST_HZ * n / fs);
        double background = 0;
        int counted = 0;
        for (int k = first; k <= last; k++) {
            double hz = k * fs / n;
            free[k] = terms.stream()
                    .noneMatch(t -> Math.abs(t.omega() * fs / (2 * Math.PI) - hz) < NEAR_HZ + t.alpha() * fs);
            background += free[k] ? floor.at(hz) : 0;
            counted += free[k] ? 1 : 0;
        }
        if (counted < LEAST_FREE * (last - first) || background <= 0) {
            return null;
        }
        int hop = n / 2;
        double[] power = new double[Math.max(0, (to - from - n) / hop + 1)];
        RealFft fft = new RealFft(n);
        double[] window = new double[n];
        double norm = 0;
        for (int i = 0; i < n; i++) {
            window[i] = Windows.hann(i, n);
            norm += window[i] * window[i];
        }
        double[] frame = new double[n];
        for (int f = 0; f < power.length; f++) {
            for (int i = 0; i < n; i++) {
                frame[i] = window[i] * rest[from - start + f * hop + i];
            }
            double[] p = RealFft.power(fft.forward(frame));
            for (int k = first; k <= last; k++) {
                power[f] += free[k] ? p[k] / norm : 0;
            }
        }
        // as much in all bins as in those that are free, and the mean square of the samples
        double scale = (double) (last - first) / counted / (n / 2.0);
        double seconds = (from - onset + n / 2.0) / fs;
        return fit(power, background, floor.isKnown(), hop / fs, seconds, strongest * strongest / 2 / scale);
    }

    /**
     * @param release sample at which the note is let go
     * @param level   mean square of the strongest harmonic while it is held
     */
    static ReverbTail released(double[] x, double fs, int release, NoiseFloor floor, double level) {
        int hop = (int) (0.01 * fs);
        int from = release + 2 * hop;
        int frames = (int) Math.min(MOST_SECONDS * 100, (x.length - from) / (double) hop);
        double background = floor.total();
        if (frames < FEWEST_FRAMES || background <= 0) {
            return null;
        }
        double[] power = new double[frames];
        for (int f = 0; f < frames; f++) {
            for (int i = 0; i < hop; i++) {
                double v = x[from + f * hop + i];
                power[f] += v * v / hop;
            }
        }
        return fit(power, background, floor.isKnown(), hop / fs, 2.5 * hop / fs, level);
    }

    /** A straight fall from the first frame on, as long as it stands clear. */
    private static ReverbTail fit(
            double[] power, double background, boolean known, double hop, double first, double reference) {
        if (power.length == 0 || power[0] < BEGINS * background) {
            return null;
        }
        // where the background before the note is not known, it may be what the end of the clip holds
        double stop = Math.max((1 + CLEAR) * background, known ? 0 : BEGINS * quietest(power));
        LineFit line = new LineFit();
        int frames = 0;
        while (frames < power.length && power[frames] > stop) {
            line.add(frames * hop, 10 * Math.log10(power[frames] - background));
            frames++;
        }
        double slope = line.slope();
        if (frames < FEWEST_FRAMES || -slope * frames * hop < LEAST_FALL_DB) {
            return null;
        }
        double square = 0;
        for (int f = 0; f < frames; f++) {
            double e = 10 * Math.log10(power[f] - background) - line.intercept() - slope * f * hop;
            square += e * e;
        }
        double scatter = Math.sqrt(square / Math.max(1, frames - 2));
        if (scatter > MOST_SCATTER_DB) {
            return null;
        }
        double t60 = -60 / slope;
        // frames that overlap by half are fewer independent ones; where they do not, this is on the safe side
        double se = t60 * scatter * Math.sqrt(1.5 * line.slopeVariance()) / -slope;
        return new ReverbTail(t60, se, line.intercept() - slope * first - 10 * Math.log10(reference));
    }

    /** Median of the last fifth. */
    private static double quietest(double[] power) {
        double[] last = Arrays.copyOfRange(power, power.length * 4 / 5, power.length);
        Arrays.sort(last);
        return last[last.length / 2];
    }
}
