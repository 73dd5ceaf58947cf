package nightreed.match.start;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;
import nightreed.match.start.FmFrames.Course;
import nightreed.match.start.Ground.Line;
import nightreed.match.start.IndexPath.Like;
import nightreed.voice.fm.ModulatedCycle;

/**
 * Pairs whose carrier and modulator are both multiples of a pitch, with indexes so large that many of their lines lie below
 * zero and are folded onto harmonics which others lie on already (J. Chowning, 1973). By how much a folded line is turned
 * against the one that it meets is the same for all of them: twice the phase of the carrier less as many times that of the
 * modulator as lie between. So carriers, modulators, indexes and that one turn are tried through and through, on the levels of
 * harmonics alone; where the lines that meet are not quite in tune it turns slowly, and each frame has one of its own.
 */
final class FmFolds {
    private static final int CARRIERS = 26;
    private static final int MODULATORS = 3;
    private static final double[] FEEDBACKS = {0, 0.1, 0.2, 0.32};

    /** Indexes, close together where a spectrum changes most with them [rad]. */
    private static final double[] INDEXES = IntStream.concat(
                    IntStream.rangeClosed(1, 16), IntStream.rangeClosed(9, 32).map(i -> 2 * i))
            .mapToDouble(i -> 0.5 * i)
            .toArray();

    /** Of them one in so many is enough for a rough look, and how many pairs are looked at again. */
    private static final int THIN = 2;

    private static final int LIKELIEST = 10;

    private static final int TURNS = 8;

    /** Frames that are enough to choose by, and the least weight of one. */
    private static final int FEW = 5;

    private static final double LEAST_WEIGHT = 0.3;

    private static final int HARMONICS = 64;

    /** Bins that a line fills to either side, and what a sine of 1 leaves in all of them. */
    private static final int LOBE = 2;

    private static final double FILLED = 1.5;

    /** Harmonics nearer than this cannot be told from each other [bins]. */
    private static final double LEAST_APART = 4.5;

    private final Frames frames;
    private final double f0;
    private final int harmonics;
    private final double[][] seen; // roots of the amplitudes [frame][harmonic]
    private final double[] norm;

    FmFolds(Frames frames, double f0) {
        this.frames = frames;
        this.f0 = f0;
        harmonics = (int) Math.min(HARMONICS, (frames.bins() - LOBE - 1) * frames.binHz() / f0);
        seen = new double[frames.count()][harmonics + 1];
        norm = new double[frames.count()];
        for (int f = 0; f < seen.length; f++) {
            for (int h = 1; h <= harmonics; h++) {
                int b = (int) Math.rint(h * f0 / frames.binHz());
                double power = 0;
                for (int k = Math.max(0, b - LOBE); k <= b + LOBE; k++) {
                    power += frames.power(f)[k] / FILLED;
                }
                seen[f][h] = root(power);
                norm[f] += seen[f][h] * seen[f][h];
            }
        }
    }

    private static double root(double power) {
        return Math.sqrt(Math.sqrt(power));
    }

    /** @param feedback of the modulator [rad] */
    record Fold(Course course, double feedback) {}

    /**
     * @param lines that carrier and modulator are tuned to where they lie near them
     * @return pairs that differ, the likeliest first; empty where harmonics lie too close to be told from each other
     */
    List<Fold> pairs(List<Line> lines, int most) {
        if (f0 < LEAST_APART * frames.binHz()) {
            return List.of();
        }
        int[] few = few();
        double[][] plain = spectra(0);
        double[][] thinned = IntStream.range(0, plain.length)
                .filter(i -> i % THIN == 0)
                .mapToObj(i -> plain[i])
                .toArray(double[][]::new);
        List<Tried> roughly = IntStream.range(0, CARRIERS * MODULATORS)
                .parallel()
                .mapToObj(i -> tried(1 + i / MODULATORS, 1 + i % MODULATORS, 0, thinned, few))
                .sorted(Comparator.comparingDouble(t -> -t.likeness))
                .limit(LIKELIEST)
                .toList();
        List<Tried> all = new ArrayList<>();
        for (double feedback : FEEDBACKS) {
            double[][] spectra = feedback == 0 ? plain : spectra(feedback);
            all.addAll(roughly.parallelStream()
                    .map(t -> tried(t.carrier, t.modulator, feedback, spectra, few))
                    .toList());
        }
        all.sort(Comparator.comparingDouble(t -> -t.likeness));
        List<Tried> differing = new ArrayList<>();
        for (Tried t : all) {
            boolean known = differing.stream().anyMatch(o -> o.carrier == t.carrier && o.modulator == t.modulator);
            if (!known && differing.size() < most) {
                differing.add(t);
            }
        }
        return differing.stream().map(t -> fold(t, lines)).toList();
    }

    /** A few frames of those that count, all over the note. */
    private int[] few() {
        int[] loud = IntStream.range(0, frames.count())
                .filter(f -> frames.weight(f) > LEAST_WEIGHT)
                .toArray();
        int n = Math.min(FEW, loud.length);
        return IntStream.range(0, n)
                .map(i -> loud[(2 * i + 1) * loud.length / (2 * n)])
                .toArray();
    }

    /** Of a carrier of frequency 0 [index][real and imaginary parts by order]. */
    private static double[][] spectra(double feedback) {
        ModulatedCycle cycle = new ModulatedCycle(feedback);
        return Arrays.stream(INDEXES).mapToObj(cycle::lines).toArray(double[][]::new);
    }

    /** Ratios that were tried, and how like the frames that they are chosen by are to the best index for each. */
    private record Tried(int carrier, int modulator, double feedback, double[][] spectra, double likeness) {}

    private Tried tried(int carrier, int modulator, double feedback, double[][] spectra, int[] few) {
        double[] best = new double[few.length];
        for (double[] spectrum : spectra) {
            double[][] turned = turned(carrier, modulator, spectrum);
            for (int f = 0; f < few.length; f++) {
                best[f] = Math.max(best[f], like(few[f], turned).likeness());
            }
        }
        double sum = 0;
        double weights = 1e-9;
        for (int f = 0; f < few.length; f++) {
            sum += frames.weight(few[f]) * best[f];
            weights += frames.weight(few[f]);
        }
        return new Tried(carrier, modulator, feedback, spectra, sum / weights);
    }

    /** Roots of the amplitudes of all harmonics, for each turn of what is folded [turn][harmonic]. */
    private double[][] turned(int carrier, int modulator, double[] spectrum) {
        double[][] out = new double[TURNS][harmonics + 1];
        for (int h = 1; h <= harmonics; h++) {
            int up = slot(h - carrier, modulator, spectrum.length / 2);
            int down = slot(-h - carrier, modulator, spectrum.length / 2);
            double a = up < 0 ? 0 : spectrum[2 * up];
            double b = up < 0 ? 0 : spectrum[2 * up + 1];
            double c = down < 0 ? 0 : spectrum[2 * down];
            double d = down < 0 ? 0 : spectrum[2 * down + 1];
            double apart = a * a + b * b + c * c + d * d;
            double re = 2 * (a * c - b * d);
            double im = 2 * (a * d + b * c);
            for (int t = 0; t < TURNS; t++) {
                double turn = 2 * Math.PI * t / TURNS;
                out[t][h] = root(Math.max(0, apart + re * Math.cos(turn) - im * Math.sin(turn)));
            }
        }
        return out;
    }

    /** Where a transform has the line of an order; -1 if there is none so far off the carrier. */
    private static int slot(int off, int modulator, int length) {
        int order = off / modulator;
        boolean there = off % modulator == 0 && Math.abs(order) < length / 2;
        return !there ? -1 : order < 0 ? order + length : order;
    }

    private Like like(int frame, double[][] turned) {
        Like best = new Like(0, 0);
        for (double[] of : turned) {
            double dot = 0;
            double own = 0;
            for (int h = 1; h <= harmonics; h++) {
                dot += of[h] * seen[frame][h];
                own += of[h] * of[h];
            }
            double likeness = own > 0 && norm[frame] > 0 ? dot / Math.sqrt(own * norm[frame]) : 0;
            double gain = own > 0 ? dot / own : 0;
            best = likeness > best.likeness() ? new Like(likeness, gain * gain) : best;
        }
        return best;
    }

    private Fold fold(Tried t, List<Line> lines) {
        Like[][] like = new Like[frames.count()][INDEXES.length];
        for (int i = 0; i < INDEXES.length; i++) {
            double[][] turned = turned(t.carrier, t.modulator, t.spectra[i]);
            for (int f = 0; f < like.length; f++) {
                like[f][i] = like(f, turned);
            }
        }
        IndexPath path = IndexPath.through(like, frames, INDEXES);
        double[] tuned = FmFrames.tuned(t.carrier * f0, t.modulator * f0, lines);
        return new Fold(
                new Course(tuned[0], tuned[1], path.likeness(), path.likeness(), path.index(), path.level()),
                t.feedback);
    }
}
