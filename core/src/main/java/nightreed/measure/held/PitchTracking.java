package nightreed.measure.held;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import nightreed.dsp.SincReader;

/**
 * Pitch over time to within the noise: a rough path by looks at the periodicity, then the phases of all harmonics, which say
 * by how much the path was off. A harmonic of number n sees an error n times as large, so each counts with n² and its
 * power over the noise: least squares, as the likelihood of phases asks for.
 */
final class PitchTracking {
    private static final int ROUNDS = 3;
    private static final double LOOK_EVERY_SECONDS = 0.04;
    private static final double CLOSE_LOOK_EVERY_SECONDS = 0.01;

    /** How far a pitch that is roughly known may be off, as a ratio: less than an octave. */
    private static final double NEAR = 1.6;

    /** How far a frame may be off the median of the frames about it, as the logarithm of a ratio: a semitone and a quarter. */
    private static final double SLIP = 0.07;

    private static final int SLIP_REACH = 3;

    /** Power over noise from which a phase means something. */
    private static final double LEAST_RATIO = 4;

    private PitchTracking() {}

    /** @return null if what is held has no one pitch */
    static PitchPath follow(double[] x, SincReader reader, double fs, HeldSpan span, double to) {
        return refined(rough(x, fs, span, new Yin(fs), LOOK_EVERY_SECONDS), reader, fs, span, to);
    }

    /**
     * A path near a pitch, by looks so short that even a wide and fast vibrato stands still, and that cannot slip by an octave.
     *
     * @param hz what the pitch moves about [Hz]
     * @return null if there is none
     */
    static PitchPath followNear(double hz, double[] x, SincReader reader, double fs, HeldSpan span, double to) {
        Yin yin = new Yin(fs, hz / NEAR, hz * NEAR);
        return refined(rough(x, fs, span, yin, CLOSE_LOOK_EVERY_SECONDS), reader, fs, span, to);
    }

    private static PitchPath refined(PitchPath rough, SincReader reader, double fs, HeldSpan span, double to) {
        PitchPath path = rough;
        double from = span.from() / fs;
        for (int round = 0; path != null && round < ROUNDS; round++) {
            Harmonics h = Harmonics.along(reader, fs, path, from, to);
            path = corrected(h, round == 0 ? 8 : h.count());
        }
        return path;
    }

    private static PitchPath rough(double[] x, double fs, HeldSpan span, Yin yin, double everySeconds) {
        List<double[]> looks = new ArrayList<>(); // middle [s], Hz
        int step = (int) (everySeconds * fs);
        int from = Math.min(span.from(), span.to() - yin.samples());
        for (int at = Math.max(0, from); at + yin.samples() <= Math.min(x.length, span.to() + step); at += step) {
            Yin.Look l = yin.at(x, at);
            if (l.aperiodicity() < 0.4) {
                // a look takes in a window and the same one period later
                looks.add(new double[] {(at + yin.samples() / 4.0 + fs / l.hz() / 2) / fs, l.hz()});
            }
        }
        if (looks.size() < 2 && looks.isEmpty()) {
            return null;
        }
        looks = inOneOctave(looks);
        double[] sorted = looks.stream().mapToDouble(l -> l[1]).sorted().toArray();
        double median = sorted[sorted.length / 2];
        List<double[]> kept = new ArrayList<>();
        for (int i = 0; i < looks.size(); i++) {
            double around = around(looks, i);
            // a look an octave off is a slip; a glide is followed by its neighbours
            if (Math.abs(Math.log(looks.get(i)[1] / around)) < 0.06 && Math.abs(Math.log(around / median)) < 0.9) {
                kept.add(looks.get(i));
            }
        }
        if (kept.isEmpty() || kept.size() < 0.5 * looks.size()) {
            return null;
        }
        return path(kept);
    }

    /** Looks without jumps of octaves, which no one note makes, in the octave that most of them were in. */
    private static List<double[]> inOneOctave(List<double[]> looks) {
        int[] octave = new int[looks.size()];
        for (int i = 1; i < octave.length; i++) {
            double octaves = Math.log(looks.get(i)[1] / looks.get(i - 1)[1]) / Math.log(2);
            octave[i] = octave[i - 1] + (int) Math.rint(octaves);
        }
        int[] sorted = octave.clone();
        Arrays.sort(sorted);
        int mostly = sorted[sorted.length / 2];
        List<double[]> out = new ArrayList<>();
        for (int i = 0; i < octave.length; i++) {
            out.add(new double[] {looks.get(i)[0], looks.get(i)[1] * Math.pow(2, mostly - octave[i])});
        }
        return out;
    }

    private static double around(List<double[]> looks, int i) {
        double[] near = looks.subList(Math.max(0, i - 2), Math.min(looks.size(), i + 3)).stream()
                .mapToDouble(l -> l[1])
                .sorted()
                .toArray();
        return near[near.length / 2];
    }

    private static PitchPath path(List<double[]> points) {
        double[] t = points.stream().mapToDouble(p -> p[0]).toArray();
        double[] hz = points.stream().mapToDouble(p -> p[1]).toArray();
        return new PitchPath(t, hz);
    }

    /** The path by which the phases of harmonics 1 to {@code upTo} stand still. */
    private static PitchPath corrected(Harmonics h, int upTo) {
        List<double[]> points = new ArrayList<>();
        for (int f = 0; f + 1 < h.frames(); f++) {
            double[] turn = turn(h, f, Math.min(upTo, h.count()));
            if (turn != null) {
                double dt = h.seconds(f + 1) - h.seconds(f);
                double hz = (h.hop() + turn[0] / (2 * Math.PI)) / dt;
                points.add(new double[] {(h.seconds(f) + h.seconds(f + 1)) / 2, hz});
            }
        }
        if (points.size() < 8) {
            return null;
        }
        double[] sorted = points.stream().mapToDouble(p -> p[1]).sorted().toArray();
        double median = sorted[sorted.length / 2];
        points.removeIf(p -> !(p[1] > median / 3 && p[1] < median * 3));
        boolean[] slips = slips(points.stream().mapToDouble(p -> p[1]).toArray());
        List<double[]> kept = new ArrayList<>();
        for (int i = 0; i < points.size(); i++) {
            if (!slips[i]) {
                kept.add(points.get(i));
            }
        }
        return kept.size() < 8 ? null : path(kept);
    }

    /** Where a path leaps away from what it is shortly before and after, as no note does from one frame to the next. */
    static boolean[] slips(double[] hz) {
        boolean[] out = new boolean[hz.length];
        for (int i = 0; i < out.length; i++) {
            double[] near =
                    Arrays.copyOfRange(hz, Math.max(0, i - SLIP_REACH), Math.min(hz.length, i + SLIP_REACH + 1));
            out[i] = Math.abs(Math.log(hz[i] / median(near))) > SLIP;
        }
        return out;
    }

    /** By how much the fundamental turned from one frame to the next beyond whole turns [rad], and its variance; or null. */
    static double[] turn(Harmonics h, int frame, int upTo) {
        double sum = 0;
        double weights = 0;
        for (int n = 1; n <= upTo; n++) {
            double noise = (h.noise(n, frame) + h.noise(n, frame + 1)) / 2;
            double power = Math.min(h.power(n, frame), h.power(n, frame + 1));
            if (power < LEAST_RATIO * noise) {
                continue;
            }
            double re = h.re(n, frame) * h.re(n, frame + 1) + h.im(n, frame) * h.im(n, frame + 1);
            double im = h.re(n, frame) * h.im(n, frame + 1) - h.im(n, frame) * h.re(n, frame + 1);
            double guess = weights > 0 ? sum / weights : 0;
            if (weights > 0 && n > 2.5 * Math.sqrt(weights)) {
                continue; // by how many whole turns it is off cannot be told
            }
            double angle = Math.IEEEremainder(Math.atan2(im, re) - n * guess, 2 * Math.PI) + n * guess;
            double w = power / noise; // inverse variance of the angle
            sum += w * n * angle;
            weights += w * n * n;
        }
        return weights > 0 ? new double[] {sum / weights, 1 / weights} : null;
    }

    /** Median of values. */
    static double median(double[] v) {
        double[] s = v.clone();
        Arrays.sort(s);
        return s[s.length / 2];
    }
}
