package nightreed.measure.held;

import java.util.Arrays;
import nightreed.dsp.LineFit;

/**
 * Where a note is held.
 *
 * <p>What is struck or plucked is at its loudest within milliseconds and dies from then on; what is bowed or blown takes its
 * time, keeps its level, and is let go.
 *
 * @param from      first sample at nearly full level
 * @param to        sample at which the level begins to fall for good
 * @param loudest   mean square of the samples while it is held
 */
record HeldSpan(int from, int to, double loudest) {
    private static final double FRAME_SECONDS = 0.005;
    private static final double SHORTEST_SECONDS = 0.12;

    /** Fall over the span that a held note may have [dB]. A dying one falls by most of {@link #EDGE_DB} by its definition. */
    private static final double MOST_FALL_DB = 5;

    /** The same of one that swells, fades and is let go, or whose level swings so much that the fall may be chance [dB]. */
    private static final double MOST_FADING_DB = 10;

    /** Parts of the span whose levels tell how surely it falls. */
    private static final int PARTS = 6;

    private static final double EDGE_DB = 12;

    /** Slope of the longest T60 that is looked for, 20 s [dB/s]. */
    private static final double SLOWEST_DECAY = 3;

    /** Rise to half of the amplitude that nothing struck needs [s]. */
    private static final double SLOW_RISE_SECONDS = 0.006;

    /** The same of a swell that even the softest stroke does not have [s]. */
    private static final double SWELL_SECONDS = 0.03;

    /** What is let go falls so many times as fast as it faded before, and not slower than any release [dB/s]. */
    private static final double FALLS_FASTER = 5;

    private static final double SLOWEST_RELEASE = 40;
    private static final double RELEASE_SECONDS = 0.15;

    /** Time after a span that nothing let go sounds on for, with such a share of its power [s]. */
    private static final double LONG_AFTER_SECONDS = 0.3;

    private static final double STILL_SOUNDS = 0.1;

    /**
     * @param x        samples
     * @param onset    first sample of the note
     * @param variance mean square of the background
     * @return null if the note is not held
     */
    static HeldSpan find(double[] x, double fs, int onset, double variance) {
        int frame = Math.max(8, (int) (FRAME_SECONDS * fs));
        int frames = (x.length - onset) / frame;
        if (frames < SHORTEST_SECONDS / FRAME_SECONDS) {
            return null;
        }
        double[] energy = new double[frames];
        for (int f = 0; f < frames; f++) {
            for (int i = 0; i < frame; i++) {
                double v = x[onset + f * frame + i];
                energy[f] += v * v / frame;
            }
        }
        double[] smooth = smooth(energy, 4, variance);
        double[] sorted = smooth.clone();
        Arrays.sort(sorted);
        double top = sorted[(int) (0.95 * (frames - 1))];
        int last = frames - 1;
        while (last > 0 && smooth[last] < top * Math.pow(10, -EDGE_DB / 10)) {
            last--;
        }
        int first = 0;
        while (first < last && smooth[first] < top * 0.4) {
            first++;
        }
        if ((last - first) * FRAME_SECONDS < SHORTEST_SECONDS) {
            return null;
        }
        int inset = (last - first) / 10;
        LineFit line = line(smooth, first + inset, last - inset);
        double fall = -line.slope() * (last - first - 2 * inset);
        boolean released = (frames - 1 - last) * FRAME_SECONDS > 0.05 || smooth[frames - 1] < 0.25 * top;
        double rise = rise(x, fs, onset, Math.sqrt(median(smooth, first, last)));
        boolean rose = rise > SLOW_RISE_SECONDS;
        // the end may be cut off; then only what does not fall at all is held
        double slowest = released ? SLOWEST_DECAY : SLOWEST_DECAY / 2;
        boolean dies = fall / ((last - first) * FRAME_SECONDS) > slowest;
        double chance = rose && !goesOn(smooth, last) ? 2 * fallSe(smooth, first + inset, last - inset, line) : 0;
        boolean fades = rise > SWELL_SECONDS && isLetGo(smooth, last, line.slope());
        double most = fades ? MOST_FADING_DB : Math.min(MOST_FADING_DB, MOST_FALL_DB + chance);
        if (fall > most || fall < -EDGE_DB || !rose && dies) {
            return null;
        }
        // the release begins where the level leaves that of the last stretch before it
        double late = median(smooth, Math.max(first, last - Math.max(8, (last - first) / 3)), last);
        int end = last;
        while (end > first && smooth[end] < 0.7 * late) {
            end--;
        }
        return new HeldSpan(onset + first * frame, onset + (end + 1) * frame, median(smooth, first, end + 1));
    }

    /** Whether the level leaves the line that it fades along, which falls by some dB per frame. */
    private static boolean isLetGo(double[] smooth, int last, double slope) {
        int frames = (int) (RELEASE_SECONDS / FRAME_SECONDS);
        if (last + frames >= smooth.length) {
            return false;
        }
        double fell = 10 * Math.log10(smooth[last] / smooth[last + frames]);
        return fell > Math.max(SLOWEST_RELEASE * RELEASE_SECONDS, FALLS_FASTER * -slope * frames);
    }

    /** Whether it still sounds long after its span, as what dies unevenly does and what is let go does not. */
    private static boolean goesOn(double[] smooth, int last) {
        int from = last + (int) (LONG_AFTER_SECONDS / FRAME_SECONDS);
        int to = from + (int) (LONG_AFTER_SECONDS / FRAME_SECONDS);
        return to <= smooth.length && Arrays.stream(smooth, from, to).average().orElse(0) > STILL_SOUNDS * smooth[last];
    }

    /** Time from the onset to half of an amplitude [s]. */
    private static double rise(double[] x, double fs, int onset, double rms) {
        int window = Math.max(4, (int) (0.003 * fs));
        double sum = 0;
        for (int i = onset; i < x.length; i++) {
            sum += x[i] * x[i];
            if (i - onset >= window) {
                sum -= x[i - window] * x[i - window];
            }
            if (i - onset >= window / 2 && sum / window > 0.25 * rms * rms) {
                return (i - onset) / fs;
            }
        }
        return 0;
    }

    private static double[] smooth(double[] e, int reach, double variance) {
        double[] out = new double[e.length];
        for (int f = 0; f < e.length; f++) {
            int a = Math.max(0, f - reach);
            int b = Math.min(e.length - 1, f + reach);
            for (int i = a; i <= b; i++) {
                out[f] += e[i] / (b - a + 1);
            }
            out[f] = Math.max(1e-14, out[f] - variance);
        }
        return out;
    }

    /** Through the levels [dB] over frames from the first on. */
    private static LineFit line(double[] power, int from, int to) {
        LineFit line = new LineFit();
        for (int i = from; i < to; i++) {
            line.add(i - from, 10 * Math.log10(power[i]));
        }
        return line;
    }

    /** Standard error of the fall over a stretch, from what its parts are off the line by [dB]. */
    private static double fallSe(double[] power, int from, int to, LineFit line) {
        double square = 0;
        for (int k = 0; k < PARTS; k++) {
            int a = from + k * (to - from) / PARTS;
            int b = from + (k + 1) * (to - from) / PARTS;
            double off = 0;
            for (int i = a; i < b; i++) {
                off += (10 * Math.log10(power[i]) - line.intercept() - line.slope() * (i - from)) / (b - a);
            }
            square += off * off / (PARTS - 2);
        }
        // the slope of a line through so many points of equal scatter, over its whole length
        return Math.sqrt(square * 12 / PARTS);
    }

    private static double median(double[] v, int from, int to) {
        double[] s = Arrays.copyOfRange(v, from, Math.max(from + 1, to));
        Arrays.sort(s);
        return s[s.length / 2];
    }
}
