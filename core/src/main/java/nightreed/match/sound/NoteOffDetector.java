package nightreed.match.sound;

import java.util.Arrays;
import nightreed.dsp.RealFft;
import nightreed.dsp.Windows;
import nightreed.recipe.part.Envelope;
import nightreed.sound.Clip;

/**
 * Where the key of a held note is let go, by maximum likelihood: the one moment from which on the level of every band, which
 * ran on straight but for a swing that is known, turns along the course of a release. Each band has a course and an unrest of its own,
 * so that a high band that is gone at once tells the moment where the loud ones hardly begin to fall.
 */
public final class NoteOffDetector {
    /** Edges of the bands [Hz]. */
    private static final double LOWEST_HZ = 50;

    private static final double HIGHEST_HZ = 12_800;

    private static final double BAND_OCTAVES = 0.8;

    /** Window that a band's level is read in [s]. */
    private static final double WINDOW_SECONDS = 0.02;

    /** How much earlier and later than where it roughly is, and before the end where nothing is known of it [frames]. */
    private static final int EARLIER = 60;

    private static final int LATER = 15;
    private static final int LAST = 100;

    /** Frames before the first moment that are looked at, that have to be, and of the fall that have to be there. */
    private static final int BEFORE = 100;

    private static final int FEWEST_BEFORE = 15;
    private static final int FEWEST_AFTER = 5;

    /** Bends and times of releases that are tried, in seconds, each longer by a factor. */
    private static final double[] CURVES = {-0.3, 0, 0.3, 0.6, 1};

    private static final double SHORTEST = 0.02;
    private static final double LONGEST = 8;
    private static final double LONGER = 1.35;

    /** Frames in which the unrest of a level stays alike. */
    private static final double RUN = 4;

    /** Mean square off a course, as a share of the highest level's, that is as good as none. */
    private static final double EXACT = 1e-4;

    /**
     * Gain of log-likelihood of all bands that a moment needs, and where nothing else tells that a key is let go: of some 200
     * notes cut off before, two came to more within what is looked at, and of those let go two to less.
     */
    private static final double LEAST_GAIN = 40;

    private static final double LEAST_GAIN_UNSEEN = 180;

    /** Frames from the first moment that is tried, within which a bend is one from before. */
    private static final int MARGIN = 5;

    /** Share of the power that may be there at the end where nothing else tells that a key is let go. */
    private static final double FALLEN = 0.8;

    private final double[][] levels; // [band][frame], roots of amplitudes, so that weak frames count beside strong ones
    private final int first; // frame
    private final int from; // frame of the first moment that is tried
    private final int tried; // moments, half a frame apart

    private NoteOffDetector(double[][] power, double[] swingDb, int first, int from, int to) {
        this.levels = new double[power.length][];
        for (int b = 0; b < power.length; b++) {
            double[] level = new double[power[b].length];
            for (int f = 0; f < level.length; f++) {
                level[f] = Math.sqrt(Math.sqrt(Math.max(0, power[b][f]))) * Math.pow(10, -swingDb[f] / 40);
            }
            levels[b] = level;
        }
        this.first = first;
        this.from = from;
        this.tried = 2 * (to - from) + 1;
    }

    /** Power in each band around the middle of each frame of {@link LoudnessTracks#HOP} after an onset [band][frame]. */
    public static double[][] bands(Clip clip, int onset, int frames) {
        int fs = clip.sampleRateHz();
        double[] x = clip.mixed();
        RealFft fft = new RealFft(RealFft.powerOfTwoFrom((int) (WINDOW_SECONDS * fs)));
        int n = fft.length();
        int count = (int) Math.ceil(Math.log(HIGHEST_HZ / LOWEST_HZ) / Math.log(2) / BAND_OCTAVES);
        double[][] out = new double[count][frames];
        double[] y = new double[n];
        for (int f = 0; f < frames; f++) {
            int begin = onset + (int) Math.round((f + 0.5) * LoudnessTracks.HOP * fs) - n / 2;
            for (int i = 0; i < n; i++) {
                boolean there = begin + i >= 0 && begin + i < x.length;
                y[i] = there ? x[begin + i] * Windows.hann(i, n) : 0;
            }
            double[] power = RealFft.power(fft.forward(y));
            for (int k = 1; k < power.length; k++) {
                double octaves = Math.log((double) k * fs / n / LOWEST_HZ) / Math.log(2);
                int band = (int) Math.floor(octaves / BAND_OCTAVES);
                if (band >= 0 && band < count) {
                    out[band][f] += power[k];
                }
            }
        }
        return out;
    }

    /**
     * @param power   in each band, per frame of {@link LoudnessTracks#HOP} [band][frame]
     * @param swingDb known swing of the level at each frame [dB]
     * @param roughly where the key seems to be let go; infinite if it does not [s]
     * @param rise    time after the onset at which the level has risen [s]
     * @return the same where no moment stands out
     */
    public static double refined(double[][] power, double[] swingDb, double roughly, double rise) {
        boolean seen = !Double.isInfinite(roughly);
        int risen = (int) (rise / LoudnessTracks.HOP);
        int last = swingDb.length - FEWEST_AFTER;
        int near = seen ? (int) (roughly / LoudnessTracks.HOP) : last;
        int from = Math.max(risen + FEWEST_BEFORE, near - (seen ? EARLIER : LAST));
        int to = Math.min(last, near + LATER);
        if (to <= from) {
            return roughly;
        }
        NoteOffDetector of = new NoteOffDetector(power, swingDb, Math.max(risen, from - BEFORE), from, to);
        double[] gain = of.gain();
        int best = 0;
        for (int k = 1; k < gain.length; k++) {
            best = gain[k] > gain[best] ? k : best;
        }
        double key = (from + best / 2.0) * LoudnessTracks.HOP;
        if (seen) {
            return gain[best] > LEAST_GAIN ? key : roughly;
        }
        boolean bends = gain[best] > LEAST_GAIN_UNSEEN && best > 2 * MARGIN && hasFallen(power, from, from + best / 2);
        return bends ? key : roughly;
    }

    /** Whether less is there at the end than was before. */
    private static boolean hasFallen(double[][] power, int from, int key) {
        double before = 0;
        double end = 0;
        for (double[] p : power) {
            before += Arrays.stream(p, from, key).average().orElse(0);
            end += Arrays.stream(p, p.length - FEWEST_AFTER, p.length).average().orElse(0);
        }
        return end < FALLEN * before;
    }

    /** Gain of log-likelihood over levels that run on straight, at each moment that is tried, half a frame apart. */
    private double[] gain() {
        int frames = levels[0].length;
        double[][] off = new double[levels.length][];
        double[][] explained = new double[levels.length][tried]; // squares, by the course that explains most of them
        double[] one = line(frames, false);
        double[] slope = line(frames, true);
        for (int b = 0; b < levels.length; b++) {
            off[b] = off(levels[b], one, slope);
        }
        for (double curve : CURVES) {
            for (double t = SHORTEST; t < LONGEST; t *= LONGER) {
                double[] turned = turned(new Envelope(0, 0, 0, 0, 0, curve, 1, t), 2 * frames);
                for (int k = 0; k < tried; k++) {
                    explain(explained, off, turned, k, one, slope);
                }
            }
        }
        double[] gain = new double[tried];
        for (int b = 0; b < levels.length; b++) {
            double squares = squares(off[b]) + floor(levels[b]);
            for (int k = 0; k < tried; k++) {
                gain[k] -= (frames - first) / (2 * RUN) * Math.log1p(-explained[b][k] / squares);
            }
        }
        return gain;
    }

    private double floor(double[] level) {
        double top = Arrays.stream(level, first, level.length).max().orElse(0);
        return (level.length - first) * EXACT * top * top + Double.MIN_NORMAL;
    }

    /** What is lost of the root of an amplitude from a moment on, each half a frame, as a window of two frames smears it. */
    private static double[] turned(Envelope release, int halves) {
        double[] power = new double[halves + 1];
        for (int i = 0; i < power.length; i++) {
            double a = release.released(1, i * LoudnessTracks.HOP / 2);
            power[i] = a * a;
        }
        double[] out = new double[halves];
        for (int i = 0; i < halves; i++) {
            double before = i == 0 ? 1 : power[i - 1];
            out[i] = 1 - Math.sqrt(Math.sqrt((before + 2 * power[i] + power[i + 1]) / 4));
        }
        return out;
    }

    /** Squares of each band that a course from one moment on explains, if they are more than are already. */
    private void explain(double[][] explained, double[][] off, double[] turned, int k, double[] one, double[] slope) {
        double square = 0;
        double withOne = 0;
        double withSlope = 0;
        int begin = from + k / 2;
        int halves = 1 - (k & 1); // from the moment to the middle of its frame
        for (int f = begin, i = halves; f < one.length; f++, i += 2) {
            square += turned[i] * turned[i];
            withOne += turned[i] * one[f];
            withSlope += turned[i] * slope[f];
        }
        double own = square - withOne * withOne - withSlope * withSlope; // at right angles to the straight line
        if (own < 1e-9 * square) {
            return;
        }
        for (int b = 0; b < off.length; b++) {
            double product = 0;
            for (int f = begin, i = halves; f < one.length; f++, i += 2) {
                product += turned[i] * off[b][f];
            }
            explained[b][k] = Math.max(explained[b][k], product * product / own);
        }
    }

    /** A constant or a slope through zero, of length 1 over the frames that are looked at. */
    private double[] line(int frames, boolean slope) {
        double[] out = new double[frames];
        double middle = (first + frames - 1) / 2.0;
        for (int f = first; f < frames; f++) {
            out[f] = slope ? f - middle : 1;
        }
        double length = Math.sqrt(squares(out));
        for (int f = first; f < frames; f++) {
            out[f] /= length;
        }
        return out;
    }

    private double[] off(double[] level, double[] one, double[] slope) {
        double constant = product(level, one);
        double slant = product(level, slope);
        double[] out = new double[level.length];
        for (int f = first; f < out.length; f++) {
            out[f] = level[f] - constant * one[f] - slant * slope[f];
        }
        return out;
    }

    private static double product(double[] a, double[] b) {
        double sum = 0;
        for (int i = 0; i < a.length; i++) {
            sum += a[i] * b[i];
        }
        return sum;
    }

    private static double squares(double[] v) {
        return product(v, v);
    }
}
