package nightreed.measure.partial;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.DoubleUnaryOperator;
import nightreed.dsp.Transforms;

/**
 * Least-squares fit of damped sinusoids on the bins of an unwindowed transform around each of them.
 *
 * <p>The transform of N samples of c z^n, z = e^(-α+jω), is ½c (1 - z^N)/(1 - z e^(-j2πk/N)) in closed form, so no window
 * and no filter blurs the fit, and white noise stays white over the bins: least squares is maximum likelihood there. Both
 * unknowns of a term, c and log z, enter analytically, so one complex Gauss-Newton step moves amplitude, phase, frequency
 * and decay together. Terms that lie close are fitted jointly, the others in turn (Li &amp; Stoica 1996, RELAX).
 */
public final class SpectralRefinement {
    /** Terms that are fitted together at the most; doublets and two-stage decays need two or three. */
    private static final int LARGEST_GROUP = 4;

    /** Shortest start of the segment that is looked at by itself [samples]. */
    private static final int SHORTEST = 1024;

    /** Nepers that a term has to fall by within a stretch to be fitted there (61 dB). */
    private static final double DEAD = 7;

    /** Part of the root mean square (-140 dB) below which what is left of a term is not worth its time. */
    private static final double NEGLIGIBLE = 1e-7;

    /** Of its standard error that a term may move by in a round and count as settled. */
    private static final double STILL = 0.002;

    /**
     * So many times wider than another, a line is flat under it: then they are fitted in turn, each on as many bins as it needs. A partial of
     * 1 s and the thump of a body that it stands in, 20 ms, are still fitted together.
     */
    private static final double FLAT = 60;

    /** Energy over noise (27 dB) from which a pair could be told from one. */
    private static final double LEAST_TO_SPLIT = 500;

    private final double[] y;
    private final List<VariableProjectionFit.Stretch> stretches =
            new ArrayList<>(); // from the whole segment to its shortest start
    private final int n;
    private final double least;

    /** @param y segment of samples; a start whose length is a product of 2, 3 and 5 is used, and leaves out hardly any */
    public SpectralRefinement(double[] y, Transforms transforms) {
        this.y = y;
        this.n = transforms.lengthUpTo(y.length);
        for (int length = n; length >= SHORTEST; length = transforms.lengthUpTo(length / 4)) {
            stretches.add(new VariableProjectionFit.Stretch(
                    length, transforms.of(length).forward(y)));
            if (length < 4 * SHORTEST) {
                break;
            }
        }
        if (stretches.isEmpty()) {
            stretches.add(new VariableProjectionFit.Stretch(n, transforms.of(n).forward(y)));
        }
        double energy = 0;
        for (double v : y) {
            energy += v * v;
        }
        this.least = NEGLIGIBLE * Math.sqrt(energy / y.length);
    }

    /** Samples of the segment. */
    public int length() {
        return y.length;
    }

    /** What remains of the segment without the terms: new array as long as the segment. */
    public double[] residual(List<DampedSinusoid> terms) {
        return residual(terms, y.length);
    }

    /** What remains of the first {@code samples} of the segment without the terms: new array. */
    public double[] residual(List<DampedSinusoid> terms, int samples) {
        double[] r = Arrays.copyOf(y, samples);
        for (DampedSinusoid t : terms) {
            t.addTo(r, 0, -1, least);
        }
        return r;
    }

    /**
     * One round over all terms. A term that runs away or that the samples cannot pin down is left out, and its group is
     * fitted again without it: two terms that fall onto each other must not both be lost.
     */
    public List<DampedSinusoid> refine(List<DampedSinusoid> terms) {
        return refine(terms, Set.of());
    }

    /** Several rounds; a group that a round has left where it was is passed over in those that follow. */
    public List<DampedSinusoid> refine(List<DampedSinusoid> terms, int rounds) {
        List<DampedSinusoid> all = terms;
        Set<DampedSinusoid> still = Set.of();
        for (int round = 0; round < rounds; round++) {
            List<DampedSinusoid> next = refine(all, still);
            still = still(all, next);
            all = next;
        }
        return all;
    }

    /** Terms that have moved by next to nothing of their standard error. */
    private static Set<DampedSinusoid> still(List<DampedSinusoid> before, List<DampedSinusoid> after) {
        Set<DampedSinusoid> out = new HashSet<>();
        for (DampedSinusoid t : after) {
            double least = STILL * t.omegaSe();
            if (before.stream()
                    .anyMatch(
                            b -> Math.abs(b.omega() - t.omega()) < least && Math.abs(b.alpha() - t.alpha()) < least)) {
                out.add(t);
            }
        }
        return out;
    }

    private List<DampedSinusoid> refine(List<DampedSinusoid> terms, Set<DampedSinusoid> still) {
        List<List<DampedSinusoid>> groups = groups(terms);
        List<DampedSinusoid> done = new ArrayList<>();
        for (int g = 0; g < groups.size(); g++) {
            // what was refined before counts as it is now, the rest as it was
            List<DampedSinusoid> others = new ArrayList<>(done);
            for (List<DampedSinusoid> later : groups.subList(g + 1, groups.size())) {
                others.addAll(later);
            }
            List<DampedSinusoid> left = groups.get(g);
            if (still.containsAll(left)) {
                done.addAll(left);
                continue;
            }
            while (!left.isEmpty()) {
                VariableProjectionFit fit = new VariableProjectionFit(left, others, stretch(left));
                fit.run();
                int offender = fit.offender(left);
                if (offender < 0) {
                    done.addAll(fit.results());
                    break;
                }
                left = new ArrayList<>(left);
                left.remove(offender);
            }
        }
        return done;
    }

    /**
     * Tries each strong term as two: a pair closer than the width of its lines shows in no peak of the residual. Two are
     * taken for one where they make the samples much likelier and leave hardly more than noise, or next to nothing of what
     * one left; what is no sum of two exponentials at all is left alone, as any number would be found in it.
     *
     * @param noise variance per sample of the background at a frequency [rad/sample]
     */
    public List<DampedSinusoid> split(List<DampedSinusoid> terms, DoubleUnaryOperator noise) {
        List<DampedSinusoid> out = new ArrayList<>();
        for (List<DampedSinusoid> group : groups(terms)) {
            List<DampedSinusoid> others = new ArrayList<>(terms);
            others.removeAll(group);
            out.addAll(group.size() >= LARGEST_GROUP - 1 ? group : split(group, others, noise));
        }
        return out;
    }

    private List<DampedSinusoid> split(
            List<DampedSinusoid> group, List<DampedSinusoid> others, DoubleUnaryOperator noise) {
        DampedSinusoid strong = group.get(0);
        for (DampedSinusoid t : group) {
            strong = t.snr() > strong.snr() ? t : strong;
        }
        if (strong.snr() < LEAST_TO_SPLIT) {
            return group;
        }
        VariableProjectionFit one = new VariableProjectionFit(group, others, stretch(group));
        one.run();
        VariableProjectionFit best = null;
        for (double apart : new double[] {0.35, 1}) {
            for (double pace : new double[] {1, 2.5}) {
                double shift = apart * Math.max(0.5 * strong.alpha(), Math.PI / n);
                List<DampedSinusoid> tried = new ArrayList<>(group);
                tried.remove(strong);
                tried.add(DampedSinusoid.candidate(strong.omega() - shift, strong.alpha() * pace, strong.snr()));
                tried.add(DampedSinusoid.candidate(strong.omega() + shift, strong.alpha() / pace, strong.snr()));
                VariableProjectionFit fit = new VariableProjectionFit(tried, one);
                fit.run();
                if (fit.offender(tried) < 0 && (best == null || fit.cost() < best.cost())) {
                    best = fit;
                }
            }
        }
        if (best == null) {
            return group;
        }
        double floor = noise.applyAsDouble(strong.omega()) * one.samples();
        double likelier = best.bins() * Math.log(one.cost() / best.cost());
        double louder = (one.cost() - best.cost()) / floor;
        boolean clean = best.cost() < 4 * floor * best.bins() || best.cost() < 0.08 * one.cost();
        return likelier > 20 && louder > 40 && clean ? best.results() : group;
    }

    private VariableProjectionFit.Stretch stretch(List<DampedSinusoid> group) {
        double slowest = group.stream().mapToDouble(DampedSinusoid::alpha).min().orElse(0);
        VariableProjectionFit.Stretch best = stretches.get(0);
        for (VariableProjectionFit.Stretch s : stretches) {
            best = slowest * s.n() >= DEAD ? s : best;
        }
        return best;
    }

    private List<List<DampedSinusoid>> groups(List<DampedSinusoid> terms) {
        List<DampedSinusoid> sorted = new ArrayList<>(terms);
        sorted.sort((a, b) -> Double.compare(a.omega(), b.omega()));
        List<List<DampedSinusoid>> groups = new ArrayList<>();
        DampedSinusoid last = null;
        for (DampedSinusoid t : sorted) {
            boolean near = last != null
                    && t.omega() - last.omega() < 6 * 2 * Math.PI / n + 2.5 * Math.max(t.alpha(), last.alpha());
            if (near
                    && isAlike(t, groups.get(groups.size() - 1))
                    && groups.get(groups.size() - 1).size() < LARGEST_GROUP) {
                groups.get(groups.size() - 1).add(t);
            } else {
                groups.add(new ArrayList<>(List.of(t)));
            }
            last = t;
        }
        return groups;
    }

    /** Whether no line is so much wider than another that it is flat under it. */
    private static boolean isAlike(DampedSinusoid t, List<DampedSinusoid> group) {
        return group.stream().allMatch(o -> Math.max(o.alpha(), t.alpha()) < FLAT * Math.min(o.alpha(), t.alpha()));
    }
}
