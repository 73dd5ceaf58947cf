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

    private static final double EDGE_DB = 12;

    /** Slope of the longest T60 that is looked for, 20 s [dB/s]. */
    private static final double SLOWEST_DECAY = 3;

    /** Rise to half of the amplitude that nothing struck needs [s]. */
    private static final double SLOW_RISE_SECONDS = 0.006;

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
        double fall = -slope(smooth, first + inset, last - inset) * (last - first - 2 * inset);
        boolean released = (frames - 1 - last) * FRAME_SECONDS > 0.05 || smooth[frames - 1] < 0.25 * top;
        boolean rose = rise(x, fs, onset, Math.sqrt(median(smooth, first, last))) > SLOW_RISE_SECONDS;
        // the end may be cut off; then only what does not fall at all is held
        double slowest = released ? SLOWEST_DECAY : SLOWEST_DECAY / 2;
        boolean dies = fall / ((last - first) * FRAME_SECONDS) > slowest;
        if (fall > MOST_FALL_DB || fall < -EDGE_DB || !rose && dies) {
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

    /** Slope of the level [dB/frame]. */
    private static double slope(double[] power, int from, int to) {
        LineFit line = new LineFit();
        for (int i = from; i < to; i++) {
            line.add(i - from, 10 * Math.log10(power[i]));
        }
        return line.slope();
    }

    private static double median(double[] v, int from, int to) {
        double[] s = Arrays.copyOfRange(v, from, Math.max(from + 1, to));
        Arrays.sort(s);
        return s[s.length / 2];
    }
}
