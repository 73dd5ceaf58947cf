package nightreed.measure.take;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import nightreed.dsp.RealFft;
import nightreed.dsp.SincReader;

/**
 * A stretch of a recording that repeats exactly, as a sample player makes a held note last. What moves in it is the loop and
 * not the player.
 *
 * @param startSeconds  from where on everything comes back [s in the recording]
 * @param lengthSeconds after how long [s]
 */
public record SampleLoop(double startSeconds, double lengthSeconds) {
    private static final double SHORTEST_SECONDS = 0.008;
    private static final double LONGEST_SECONDS = 1.2;

    /** End of the held part that is looked for further ahead [s]. */
    private static final double LOOKED_AT_SECONDS = 0.3;

    /** Power of what differs over that of the sound (-75 dB); noise of no recording is so weak, and none repeats. */
    private static final double EXACT = 3e-8;

    /** The same before the loop begins: what is no loop differs by at least so much. */
    private static final double DIFFERENT = 1e-5;

    /** Correlation from which a lag is looked at, and by how much another may miss the best and be as good. */
    private static final double LEAST_ALIKE = 0.98;

    private static final double AS_GOOD = 1e-7;
    /** The end may be faded out against a click over so long [s]. */
    private static final double FADE_SECONDS = 0.025;

    private static final double BLOCK_SECONDS = 0.01;
    private static final double FINE_SECONDS = 0.001;

    /** The note itself is heard at least so long before its loop [s]. */
    private static final double LEAST_BEFORE = 0.1;

    /** Sample at which the first pass of the loop is over: up to there it is the instrument. */
    public int end(double fs) {
        return (int) ((startSeconds + lengthSeconds) * fs);
    }

    /** @param before whether the note is measured up to there only */
    public String words(boolean before) {
        return String.format(
                Locale.ROOT,
                "From %.2f s on it repeats every %.1f ms, to the last bit: the loop of a sample. %s",
                startSeconds,
                1000 * lengthSeconds,
                before
                        ? "The note is measured up to the end of the first pass."
                        : "Too little is heard before it: how the note moves is not known.");
    }

    /**
     * @param onset   first sample of the note
     * @param release sample at which it is let go
     * @return null if nothing repeats exactly
     */
    public static SampleLoop find(double[] x, double fs, int onset, int release) {
        int window = (int) (LOOKED_AT_SECONDS * fs);
        int last = release - (int) (FADE_SECONDS * fs) - window; // first sample of the end that is looked for
        int longest = (int) Math.min(LONGEST_SECONDS * fs, last - onset);
        int shortest = (int) (SHORTEST_SECONDS * fs);
        if (longest < 2 * shortest) {
            return null;
        }
        SincReader reader = new SincReader(x);
        double exact = Double.NaN;
        for (int lag : likely(x, last, window, shortest, longest)) {
            double refined = refined(x, reader, last, window, lag);
            if (difference(x, reader, last, window, refined) <= EXACT) {
                exact = refined;
                break;
            }
        }
        if (Double.isNaN(exact)) {
            return null;
        }
        int block = (int) (BLOCK_SECONDS * fs);
        int start = last - (int) exact;
        for (int step : new int[] {block, (int) (FINE_SECONDS * fs)}) {
            while (start - step > onset
                    && difference(x, reader, start + (int) exact - step, step, exact) < 10 * EXACT) {
                start -= step;
            }
        }
        int before = Math.max(onset, start - 4 * block);
        boolean begins = start - onset > LEAST_BEFORE * fs
                && difference(x, reader, before + (int) exact, start - before, exact) > DIFFERENT;
        return begins ? new SampleLoop(start / fs, exact / fs) : null;
    }

    /** A lag between two samples at which the end is even more like what was before. */
    private static double refined(double[] x, SincReader reader, int last, int window, int lag) {
        double best = lag;
        double least = difference(x, reader, last, window, lag);
        for (double step = 0.5; step > 0.001 && least > 0; step /= 2) {
            for (double shift : new double[] {-step, step}) {
                double d = difference(x, reader, last, window, best + shift);
                if (d < least) {
                    least = d;
                    best += shift;
                    break;
                }
            }
        }
        return best;
    }

    /**
     * Lags [samples] at which the end is the most like what was before, by normalised correlation: the shortest of those that
     * are as good as any, and the best.
     */
    private static List<Integer> likely(double[] x, int last, int window, int shortest, int longest) {
        int from = last - longest;
        double[] all = Arrays.copyOfRange(x, from, last + window);
        double[] end = Arrays.copyOfRange(x, last, last + window);
        RealFft fft = new RealFft(RealFft.powerOfTwoFrom(all.length + window));
        double[] a = fft.forward(all);
        double[] b = fft.forward(end);
        for (int k = 0; k < a.length; k += 2) {
            double re = a[k] * b[k] + a[k + 1] * b[k + 1];
            a[k + 1] = a[k + 1] * b[k] - a[k] * b[k + 1];
            a[k] = re;
        }
        double[] c = fft.inverse(a); // c[i] = Σ all[i + n] end[n]
        double own = 1e-20;
        for (double v : end) {
            own += v * v;
        }
        double energy = 1e-20;
        for (int i = 0; i < window; i++) {
            energy += all[i] * all[i];
        }
        double[] r = new double[longest - shortest + 1];
        int best = 0;
        for (int i = 0; i < r.length; i++) {
            r[i] = c[i] / Math.sqrt(Math.max(1e-20, energy) * own);
            best = r[i] > r[best] ? i : best;
            energy += all[i + window] * all[i + window] - all[i] * all[i];
        }
        if (r[best] < LEAST_ALIKE) {
            return List.of();
        }
        int first = best;
        for (int i = best; i < r.length; i++) {
            first = r[i] > r[best] - AS_GOOD ? i : first;
        }
        return first == best ? List.of(longest - best) : List.of(longest - first, longest - best);
    }

    /** Power of the difference between a stretch and what was one lag [samples] before, over its own. */
    private static double difference(double[] x, SincReader reader, int from, int length, double lag) {
        double own = 1e-20;
        double off = 0;
        boolean whole = lag == Math.rint(lag);
        int stride = whole ? 1 : Math.max(1, length / 2000); // reading between samples takes its time
        for (int i = from; i < from + length; i += stride) {
            double before = whole ? x[i - (int) lag] : reader.at(i - lag);
            double d = x[i] - before;
            own += x[i] * x[i];
            off += d * d;
        }
        return off / own;
    }
}
