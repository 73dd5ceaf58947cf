package nightreed.match.start.fm;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;
import nightreed.match.start.NonuniformStft;
import nightreed.match.start.StartContext.Line;
import nightreed.match.start.fm.FrameIndexSearch.Course;
import nightreed.match.start.fm.HarmonicGrid.Spectrum;
import nightreed.match.start.fm.ViterbiIndexPath.Like;
import nightreed.voice.fm.ModulatedCycle;

/**
 * A dictionary search for pairs whose carrier and modulator are multiples of the pitch. With large indexes many sidebands lie below
 * zero and fold onto harmonics that others lie on already (J. Chowning, 1973). The phase of a folded sideband against the one it meets is the
 * same for all of them: twice the carrier's phase less a multiple of the modulator's. So carrier, modulator, index, feedback and
 * that one phase are tried exhaustively on the levels of the harmonics, each frame with its own phase.
 */
final class FoldedSidebandSearch {
    private static final int CARRIERS = 26;
    private static final int MODULATORS = 3;
    private static final double[] FEEDBACKS = {0, 0.1, 0.2, 0.32};

    /** Indexes, close together where a spectrum changes most with them [rad]. */
    private static final double[] INDEXES = IntStream.concat(
                    IntStream.rangeClosed(1, 16), IntStream.rangeClosed(9, 44).map(i -> 2 * i))
            .mapToDouble(i -> 0.5 * i)
            .toArray();

    /** Of them one in so many is enough for a rough look, and how many pairs are looked at again. */
    private static final int THIN = 2;

    private static final int LIKELIEST = 6;

    /** NonuniformStft that are enough to choose by, and the least weight of one. */
    private static final int FEW = 5;

    private static final double LEAST_WEIGHT = 0.3;

    private final NonuniformStft frames;
    private final HarmonicGrid lattice;

    private FoldedSidebandSearch(NonuniformStft frames, HarmonicGrid lattice) {
        this.frames = frames;
        this.lattice = lattice;
    }

    /** @param feedback of the modulator [rad] */
    record Fold(Course course, double feedback) {}

    /**
     * Of a pair all of whose lines are harmonics.
     *
     * @param lines that carrier and modulator are tuned to where they lie near them
     * @return pairs that differ, the likeliest first; empty where harmonics lie too close to be told from each other
     */
    static List<Fold> ofHarmonics(NonuniformStft frames, double f0, List<Line> lines, int most) {
        FoldedSidebandSearch folds = new FoldedSidebandSearch(frames, new HarmonicGrid(frames, f0));
        return folds.likeliest(most).stream()
                .map(t -> folds.fold(t, FrameIndexSearch.tuned(t.carrier * f0, t.modulator * f0, lines)))
                .toList();
    }

    private List<Tried> likeliest(int most) {
        if (!lattice.isTold()) {
            return List.of();
        }
        int[] few = few();
        Spectrum[] plain = Spectra.BY_FEEDBACK[0];
        Spectrum[] thinned = IntStream.range(0, plain.length)
                .filter(i -> i % THIN == 0)
                .mapToObj(i -> plain[i])
                .toArray(Spectrum[]::new);
        List<Tried> roughly = IntStream.range(0, CARRIERS * MODULATORS)
                .parallel()
                .mapToObj(i -> tried(1 + i / MODULATORS, 1 + i % MODULATORS, 0, thinned, few))
                .sorted(Comparator.comparingDouble(t -> -t.likeness))
                .limit(LIKELIEST)
                .toList();
        List<Tried> all = new ArrayList<>();
        for (int i = 0; i < FEEDBACKS.length; i++) {
            double feedback = FEEDBACKS[i];
            Spectrum[] spectra = Spectra.BY_FEEDBACK[i];
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
        return differing;
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

    /** Of all feedbacks and indexes, computed once [feedback][index]. */
    private static final class Spectra {
        static final Spectrum[][] BY_FEEDBACK =
                Arrays.stream(FEEDBACKS).mapToObj(Spectra::of).toArray(Spectrum[][]::new);

        private static Spectrum[] of(double feedback) {
            ModulatedCycle cycle = new ModulatedCycle(feedback);
            return Arrays.stream(INDEXES)
                    .mapToObj(cycle::lines)
                    .map(Spectrum::of)
                    .toArray(Spectrum[]::new);
        }
    }

    /** Ratios that were tried, and how like the frames that they are chosen by are to the best index for each. */
    private record Tried(int carrier, int modulator, double feedback, Spectrum[] spectra, double likeness) {}

    private Tried tried(int carrier, int modulator, double feedback, Spectrum[] spectra, int[] few) {
        double[] best = new double[few.length];
        for (Spectrum spectrum : spectra) {
            double[][] turned = lattice.turned(carrier, modulator, spectrum);
            for (int f = 0; f < few.length; f++) {
                best[f] = Math.max(best[f], lattice.like(few[f], turned).likeness());
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

    /** @param hz of carrier and modulator */
    private Fold fold(Tried t, double[] hz) {
        Like[][] like = new Like[frames.count()][INDEXES.length];
        for (int i = 0; i < INDEXES.length; i++) {
            double[][] turned = lattice.turned(t.carrier, t.modulator, t.spectra[i]);
            for (int f = 0; f < like.length; f++) {
                like[f][i] = lattice.like(f, turned);
            }
        }
        ViterbiIndexPath path = ViterbiIndexPath.through(like, frames, INDEXES);
        return new Fold(
                new Course(hz[0], hz[1], path.likeness(), path.likeness(), path.index(), path.level()), t.feedback);
    }
}
