package nightreed.match.start.fm;

import java.util.List;
import java.util.stream.Stream;
import nightreed.match.start.NonuniformStft;
import nightreed.match.start.StartContext;
import nightreed.match.start.StartContext.Line;
import nightreed.match.start.fm.FoldedSidebandSearch.Fold;
import nightreed.match.start.fm.FrameIndexSearch.Course;
import nightreed.recipe.FmPair;
import nightreed.recipe.part.Envelope;

/**
 * Pairs that may be in a sound, as starts of a refinement: out of its strong lines two by two ({@link FrameIndexSearch}), and
 * of held notes out of all their harmonics ({@link FoldedSidebandSearch}).
 */
final class FmProposals {
    /** Courses that a first pair is looked for among, and one beside others. */
    private static final int FIRST = 10;

    private static final int NEXT = 3;

    /** Pairs of harmonics that are proposed besides. */
    private static final int FOLDED = 4;

    /** Without any a walk would see no slope. */
    private static final double LEAST_INDEX = 0.02;

    /** Decay of an index that hardly falls [s]. */
    private static final double SLOW_SECONDS = 20;

    /** Power of a partial that has to be left for another pair. */
    private static final double LEFT = 0.1;

    private final StartContext g;
    private final NonuniformStft frames;
    private final List<Line> lines;
    private final double gain;
    private final boolean tuned;

    /**
     * @param lines    the strongest first
     * @param gain     amplitude of a pair whose level is 0 dB
     * @param tuned    whether all ratios are whole
     */
    FmProposals(StartContext g, NonuniformStft frames, List<Line> lines, double gain, boolean tuned) {
        this.g = g;
        this.frames = frames;
        this.lines = lines;
        this.gain = gain;
        this.tuned = tuned;
    }

    Stream<FmPair> first() {
        return Stream.concat(pairs(new FrameIndexSearch(frames), lines, FIRST), folded(frames, lines, FOLDED));
    }

    /** @param power of those that are known [frame][bin] */
    Stream<FmPair> beside(double[][] power) {
        NonuniformStft left = frames.without(power);
        List<Line> there = left(left);
        if (there.isEmpty()) {
            return Stream.empty();
        }
        FrameIndexSearch fit = new FrameIndexSearch(left);
        FmPair plain = flat(fit.plain(there.get(0), g.f0()));
        return Stream.of(pairs(fit, there, NEXT), folded(left, there, 1), Stream.of(plain))
                .flatMap(p -> p);
    }

    /** Lines of which much is left, the strongest first. */
    private List<Line> left(NonuniformStft left) {
        return lines.stream().filter(l -> isLeft(l, left)).toList();
    }

    private boolean isLeft(Line l, NonuniformStft left) {
        int b = (int) Math.rint(l.hz() / frames.binHz());
        double was = 1e-20;
        double is = 0;
        for (int f = 0; f < frames.count() && b < frames.bins(); f++) {
            was += frames.power(f)[b];
            is += left.power(f)[b];
        }
        return is > LEFT * was;
    }

    private Stream<FmPair> pairs(FrameIndexSearch fit, List<Line> lines, int most) {
        return fit.pairs(lines, g.f0(), most).stream().flatMap(c -> Stream.of(pair(c), flat(c)));
    }

    /** Of a held note those whose lines all fall on its harmonics, where a net of indexes alone would lead astray. */
    private Stream<FmPair> folded(NonuniformStft of, List<Line> lines, int most) {
        return g.isHeld()
                ? FoldedSidebandSearch.ofHarmonics(of, g.f0(), lines, most).stream()
                        .flatMap(this::pairs)
                : Stream.empty();
    }

    private Stream<FmPair> pairs(Fold f) {
        return Stream.of(pair(f.course()), flat(f.course())).map(p -> p.withFeedback(f.feedback()));
    }

    private FmPair pair(Course c) {
        FmPair p = FmStart.pair(g, frames, c, gain);
        return FmPair.of(
                        p.levelDb(),
                        ratio(p.carrierRatio()),
                        ratio(p.modulatorRatio()),
                        p.index(),
                        p.amplitude(),
                        p.bend())
                .withPhases(p.carrierPhaseRad(), p.modulatorPhaseRad());
    }

    /** As it is measured, or the whole number nearest to it. */
    private double ratio(double measured) {
        return tuned ? Math.max(1, Math.rint(measured)) : measured;
    }

    /** With an index that stays: what the first frames say of its course may be of a strike's noise. */
    private FmPair flat(Course c) {
        double[] index = c.index();
        double sum = 0;
        double weights = 1e-9;
        for (int f = index.length / 4; f < index.length; f++) {
            sum += frames.weight(f) * index[f];
            weights += frames.weight(f);
        }
        FmPair p = pair(c);
        return FmPair.of(
                p.levelDb(),
                p.carrierRatio(),
                p.modulatorRatio(),
                Math.max(LEAST_INDEX, sum / weights),
                p.amplitude(),
                Envelope.struck(0.0005, SLOW_SECONDS, g.release()));
    }
}
