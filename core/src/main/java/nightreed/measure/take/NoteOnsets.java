package nightreed.measure.take;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import nightreed.dsp.RealFft;
import nightreed.dsp.Windows;

/**
 * Where further notes begin in a recording: moments at which many frequency bands rise at once above all that they were
 * shortly before (S. Dixon, "Onset detection revisited", DAFx 2006; here with the running maximum as the reference, so that
 * beats and vibrato do not count).
 */
public final class NoteOnsets {
    private static final int WINDOW = 1024;
    private static final int HOP = 256;
    private static final int BANDS = 20;
    private static final double LOWEST_HZ = 60;
    private static final double HIGHEST_HZ = 14_000;

    /** Rise by which a band counts [dB]. */
    private static final double RISE_DB = 9;

    /** Share of the bands that sound which have to rise. */
    private static final double SHARE = 0.5;

    /** Bands weaker than the strongest by more than this do not count [dB]. */
    private static final double RANGE_DB = 45;

    /** Two notes are at least so far apart [s]. */
    private static final double APART_SECONDS = 0.15;

    /** What a note may be weaker by than the loudest [dB]. */
    private static final double QUIETEST_DB = 30;

    private NoteOnsets() {}

    /**
     * @param x     samples
     * @param first sample at which the first note begins
     * @return samples at which notes begin, rising; the first one included, unless it is only the room that sets in there
     */
    public static List<Integer> find(double[] x, double fs, int first) {
        List<Integer> out = new ArrayList<>();
        out.add(first);
        int frames = (x.length - WINDOW) / HOP;
        if (frames < 20) {
            return out;
        }
        double[][] level = levels(x, fs, frames);
        double loudest = Double.NEGATIVE_INFINITY;
        for (double[] l : level) {
            loudest = Math.max(loudest, l[BANDS]);
        }
        int back = (int) Math.ceil(0.06 * fs / HOP);
        int ahead = (int) Math.ceil(0.015 * fs / HOP);
        int last = first;
        for (int f = back; f + ahead < frames; f++) {
            int at = f * HOP + WINDOW / 2;
            if (at < last + APART_SECONDS * fs || level[f + ahead][BANDS] < loudest - QUIETEST_DB) {
                continue;
            }
            int sounding = 0;
            int risen = 0;
            double most = Arrays.stream(level[f + ahead], 0, BANDS).max().orElse(0);
            for (int b = 0; b < BANDS; b++) {
                if (level[f + ahead][b] > most - RANGE_DB) {
                    double before = Double.NEGATIVE_INFINITY;
                    for (int k = 1; k <= back; k++) {
                        before = Math.max(before, level[f - k][b]);
                    }
                    sounding++;
                    risen += level[f + ahead][b] > before + RISE_DB ? 1 : 0;
                }
            }
            double before = Double.NEGATIVE_INFINITY;
            for (int k = 1; k <= back; k++) {
                before = Math.max(before, level[f - k][BANDS]);
            }
            boolean louder = level[f + ahead][BANDS] > before + 1.5;
            if (louder && sounding >= 3 && risen >= SHARE * sounding) {
                last = at;
                out.add(Math.max(first + 1, steepest(x, fs, at)));
            }
        }
        if (out.size() > 1 && loudestBetween(level, first, out.get(1) - WINDOW) < loudest - QUIETEST_DB) {
            out.remove(0);
        }
        return out;
    }

    /** Loudest frame that lies between two samples [dB]. */
    private static double loudestBetween(double[][] level, int from, int to) {
        double most = Double.NEGATIVE_INFINITY;
        for (int f = Math.max(0, from / HOP); f < Math.min(level.length, to / HOP); f++) {
            most = Math.max(most, level[f][BANDS]);
        }
        return most;
    }

    /** The millisecond about a frame in which the energy grows most. */
    private static int steepest(double[] x, double fs, int about) {
        int ms = (int) Math.ceil(0.001 * fs);
        int best = about;
        double most = 0;
        for (int at = about - 10 * ms; at <= about + 40 * ms && at + 3 * ms < x.length; at += ms) {
            if (at - 10 * ms < 0) {
                continue;
            }
            double growth = energy(x, at, at + 3 * ms) / (energy(x, at - 10 * ms, at) + 1e-14);
            if (growth > most) {
                most = growth;
                best = at;
            }
        }
        return best;
    }

    private static double energy(double[] x, int from, int to) {
        double sum = 0;
        for (int i = from; i < to; i++) {
            sum += x[i] * x[i] / (to - from);
        }
        return sum;
    }

    /** [frame][band, and the whole in the end], dB. */
    private static double[][] levels(double[] x, double fs, int frames) {
        RealFft fft = new RealFft(WINDOW);
        int[] edge = new int[BANDS + 1];
        for (int b = 0; b <= BANDS; b++) {
            double hz = LOWEST_HZ * Math.pow(Math.min(HIGHEST_HZ, 0.45 * fs) / LOWEST_HZ, (double) b / BANDS);
            edge[b] = (int) Math.round(hz / fs * WINDOW);
        }
        double[] window = new double[WINDOW];
        for (int i = 0; i < WINDOW; i++) {
            window[i] = Windows.hann(i, WINDOW);
        }
        double[][] out = new double[frames][BANDS + 1];
        double[] frame = new double[WINDOW];
        for (int f = 0; f < frames; f++) {
            for (int i = 0; i < WINDOW; i++) {
                frame[i] = window[i] * x[f * HOP + i];
            }
            double[] p = RealFft.power(fft.forward(frame));
            double all = 1e-14;
            for (int b = 0; b < BANDS; b++) {
                double sum = 1e-14;
                for (int k = edge[b]; k < Math.max(edge[b] + 1, edge[b + 1]); k++) {
                    sum += p[k];
                }
                all += sum;
                out[f][b] = 10 * Math.log10(sum);
            }
            out[f][BANDS] = 10 * Math.log10(all);
        }
        return out;
    }
}
