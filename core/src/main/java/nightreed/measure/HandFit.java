package nightreed.measure;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.function.Predicate;
import nightreed.dsp.Transforms;
import nightreed.measure.partial.DampedSinusoid;
import nightreed.measure.partial.Partial;
import nightreed.measure.partial.SpectralRefinement;
import nightreed.sound.Clip;

/**
 * Fits anew where a person takes one partial for two, or two for one: what lies close by is estimated again together with
 * it, what was locked stays as it is.
 */
final class HandFit {
    /** What lies within so many Hz, or this share of the frequency, is estimated again with it. */
    private static final double NEAR_HZ = 30;

    private static final double NEAR = 0.02;
    private static final int ROUNDS = 8;

    private final NoteSegment segment;
    private final Predicate<Partial> locked;
    private final double strongest;

    private HandFit(NoteSegment segment, Measurement m, Predicate<Partial> locked) {
        this.segment = segment;
        this.locked = locked;
        this.strongest = m.strongest() == null ? 1 : m.strongest().amplitude();
    }

    /** Null where nothing can be fitted: a note that is held, or hardly anything of one. */
    static HandFit of(Clip clip, Measurement m, Predicate<Partial> locked) {
        NoteSegment s = NoteSegment.of(clip, m);
        return s == null ? null : new HandFit(s, m, locked);
    }

    /** The partials with the one closest to a frequency [Hz] as two; the same list if no two are to be had there. */
    List<Partial> split(List<Partial> partials, double hz) {
        Partial p = closest(partials, hz);
        if (p == null || p.t60Seconds() == null || locked.test(p)) {
            return partials;
        }
        List<DampedSinusoid> best = null;
        double least = Double.POSITIVE_INFINITY;
        List<Partial> near = near(partials, p.frequencyHz());
        near.remove(p);
        double[] y = without(partials, near, List.of(p));
        SpectralRefinement refinement = new SpectralRefinement(y, new Transforms());
        for (DampedSinusoid[] pair : pairs(segment.terms(List.of(p)).get(0))) {
            List<DampedSinusoid> terms = new ArrayList<>(segment.terms(near));
            terms.addAll(List.of(pair));
            int wanted = terms.size();
            for (int round = 0; round < ROUNDS && terms.size() == wanted; round++) {
                terms = refinement.refine(terms);
            }
            double left = energy(refinement.residual(terms));
            if (terms.size() == wanted && left < least) {
                least = left;
                best = terms;
            }
        }
        return best == null ? partials : replaced(partials, near, List.of(p), best);
    }

    /** The partials with the two on either side of a frequency [Hz] as one; the same list if there are no two. */
    List<Partial> merge(List<Partial> partials, double hz) {
        Partial low = null;
        Partial high = null;
        for (Partial p : partials) {
            if (p.reliable() && p.t60Seconds() != null && !locked.test(p)) {
                if (p.frequencyHz() <= hz && (low == null || p.frequencyHz() > low.frequencyHz())) {
                    low = p;
                } else if (p.frequencyHz() > hz && (high == null || p.frequencyHz() < high.frequencyHz())) {
                    high = p;
                }
            }
        }
        if (low == null || high == null) {
            return partials;
        }
        List<Partial> two = List.of(low, high);
        List<Partial> near = near(partials, hz);
        near.removeAll(two);
        List<DampedSinusoid> terms = new ArrayList<>(segment.terms(near));
        terms.add(one(
                segment.terms(List.of(low)).get(0), segment.terms(List.of(high)).get(0)));
        int wanted = terms.size();
        SpectralRefinement refinement = new SpectralRefinement(without(partials, near, two), new Transforms());
        for (int round = 0; round < ROUNDS && terms.size() == wanted; round++) {
            terms = refinement.refine(terms);
        }
        return terms.size() == wanted ? replaced(partials, near, two, terms) : partials;
    }

    /** Ways to begin with two: at one place with two decays, and side by side. */
    private List<DampedSinusoid[]> pairs(DampedSinusoid t) {
        double line = 2 * Math.PI / segment.y().length;
        List<DampedSinusoid[]> out = new ArrayList<>();
        out.add(new DampedSinusoid[] {half(t, 0.2 * line, 2), half(t, -0.2 * line, 0.6)});
        for (double apart : new double[] {0.5, 1.5, 4}) {
            out.add(new DampedSinusoid[] {half(t, apart * line, 1.2), half(t, -apart * line, 0.8)});
        }
        return out;
    }

    private static DampedSinusoid half(DampedSinusoid t, double shift, double faster) {
        return new DampedSinusoid(
                t.omega() + shift, t.alpha() * faster, 0.5 * t.cRe(), 0.5 * t.cIm(), t.omegaSe(), t.snr());
    }

    private static DampedSinusoid one(DampedSinusoid a, DampedSinusoid b) {
        double wa = a.amplitude() * a.amplitude() / a.alpha();
        double wb = b.amplitude() * b.amplitude() / b.alpha();
        double share = wa / (wa + wb);
        return new DampedSinusoid(
                share * a.omega() + (1 - share) * b.omega(),
                share * a.alpha() + (1 - share) * b.alpha(),
                a.cRe() + b.cRe(),
                a.cIm() + b.cIm(),
                a.omegaSe(),
                Math.max(a.snr(), b.snr()));
    }

    private static Partial closest(List<Partial> partials, double hz) {
        return partials.stream()
                .filter(Partial::reliable)
                .min(Comparator.comparingDouble(p -> Math.abs(p.frequencyHz() - hz)))
                .orElse(null);
    }

    /** What is estimated again: what is sure, decays, lies close by and is not locked. */
    private List<Partial> near(List<Partial> partials, double hz) {
        double reach = Math.max(NEAR_HZ, NEAR * hz);
        List<Partial> out = new ArrayList<>();
        for (Partial p : partials) {
            boolean close = Math.abs(p.frequencyHz() - hz) < reach;
            if (close && p.reliable() && p.t60Seconds() != null && !locked.test(p)) {
                out.add(p);
            }
        }
        return out;
    }

    /** The segment without all that stays as it is. */
    private double[] without(List<Partial> partials, List<Partial> near, List<Partial> taken) {
        List<Partial> fixed = new ArrayList<>();
        for (Partial p : partials) {
            if (p.reliable() && !near.contains(p) && !taken.contains(p)) {
                fixed.add(p);
            }
        }
        double[] y = segment.y().clone();
        for (DampedSinusoid t : segment.terms(fixed)) {
            t.addTo(y, 0, -1);
        }
        return y;
    }

    private List<Partial> replaced(
            List<Partial> partials, List<Partial> near, List<Partial> taken, List<DampedSinusoid> terms) {
        List<Partial> out = new ArrayList<>(partials);
        out.removeAll(near);
        out.removeAll(taken);
        for (Partial p : segment.account().of(terms)) {
            out.add(p.relevelled(20 * Math.log10(p.amplitude() / strongest), true));
        }
        return out;
    }

    private static double energy(double[] y) {
        double sum = 0;
        for (double v : y) {
            sum += v * v;
        }
        return sum;
    }
}
