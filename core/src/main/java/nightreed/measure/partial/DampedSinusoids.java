package nightreed.measure.partial;

import java.util.ArrayList;
import java.util.List;
import nightreed.dsp.Transforms;
import nightreed.work.Progress;

/**
 * All damped sinusoids of a segment: search on the residual, refine everything, subtract, search again.
 */
public final class DampedSinusoids {
    private static final int ROUNDS = 9;
    private static final int FIRST_ROUNDS = 3;
    /** Partials that are kept at the most; a struck or plucked note has fewer that anyone hears. */
    public static final int MOST = 120;

    /** Of them in a round: the weaker of a loud pair is seen after it, and comes before what is hardly heard. */
    private static final int MOST_A_ROUND = 48;

    /** Shorter than this [s to fall by 60 dB] a partial is a click to the ear, and to the fit part of the noise. */
    private static final double SHORTEST_T60 = 0.015;

    /** Partials that are hardly all that a body has. */
    private static final int FEW = 2;

    /** Terms that may share one place: a pair, each with two stages at the most, is what bodies do. */
    private static final int LARGEST_CLUSTER = 3;

    /** A term with less than this part of a close neighbour's energy (-30 dB) is taken for a splinter of it. */
    private static final double SPLINTER = 0.001;

    private DampedSinusoids() {}

    /**
     * @param y            samples from the moment the strike noise is over
     * @param sampleRateHz rate of {@code y} [Hz]
     * @param floor        background noise
     */
    public static List<DampedSinusoid> find(
            double[] y, double sampleRateHz, NoiseFloor floor, Transforms transforms, Progress progress) {
        SpectralRefinement refinement = new SpectralRefinement(y, transforms);
        PartialSearch search = new PartialSearch(y.length, sampleRateHz, floor, transforms);
        return finish(refinement, search, begin(refinement, search), progress);
    }

    /** The first rounds of a search, in which the strong partials are found. */
    public static List<DampedSinusoid> begin(SpectralRefinement refinement, PartialSearch search) {
        return grown(refinement, search, List.of(), FIRST_ROUNDS, Progress.NONE);
    }

    /** The rest of a search that {@link #begin} has begun. */
    public static List<DampedSinusoid> finish(
            SpectralRefinement refinement, PartialSearch search, List<DampedSinusoid> begun, Progress progress) {
        double sampleRateHz = search.sampleRateHz();
        NoiseFloor floor = search.floor();
        List<DampedSinusoid> terms = grown(refinement, search, begun, ROUNDS - FIRST_ROUNDS, progress);
        terms = refinement.split(terms, omega -> floor.at(omega * sampleRateHz / (2 * Math.PI)));
        return settled(refinement, search, terms);
    }

    /** {@link #find} that starts from terms which are known already, and looks for others only as {@code search} does. */
    public static List<DampedSinusoid> findMore(
            SpectralRefinement refinement,
            PartialSearch search,
            List<DampedSinusoid> known,
            int rounds,
            Progress progress) {
        List<DampedSinusoid> moved = known.isEmpty() ? known : refinement.refine(known);
        return settled(refinement, search, grown(refinement, search, moved, rounds, progress));
    }

    private static List<DampedSinusoid> grown(
            SpectralRefinement refinement,
            PartialSearch search,
            List<DampedSinusoid> known,
            int rounds,
            Progress progress) {
        int length = refinement.length();
        double fs = search.sampleRateHz();
        List<DampedSinusoid> terms = new ArrayList<>(known);
        for (int round = 0; round < rounds; round++) {
            progress.report((double) round / rounds, "looking for partials, " + terms.size() + " so far");
            List<DampedSinusoid> fresh = new ArrayList<>();
            for (PartialSearch.Candidate c : search.candidates(
                    refinement.residual(terms, search.samples()), Math.min(MOST_A_ROUND, MOST - terms.size()))) {
                if (addsSomething(c, terms, length, fs)) {
                    fresh.add(c.term());
                }
            }
            boolean few =
                    terms.isEmpty() || terms.size() <= FEW && search.floor().isKnown();
            if (fresh.isEmpty() && few && search.widen()) {
                continue; // wide lines close together hide each other where there is little but them
            }
            if (fresh.isEmpty() && search.wake()) {
                continue;
            }
            if (fresh.isEmpty()) {
                break;
            }
            terms.addAll(fresh);
            terms = refinement.refine(terms, 2);
            terms = prune(terms, length, fs, search.floor());
        }
        return terms;
    }

    private static List<DampedSinusoid> settled(
            SpectralRefinement refinement, PartialSearch search, List<DampedSinusoid> found) {
        return prune(refinement.refine(found, 3), refinement.length(), search.sampleRateHz(), search.floor());
    }

    /**
     * Whether a candidate is more than a splinter of its neighbours. A partial of a real body does not die by an exact
     * exponential; what its fit leaves over lies close to it and is weak, and any number of terms would be found there.
     */
    private static boolean addsSomething(PartialSearch.Candidate c, List<DampedSinusoid> terms, int n, double fs) {
        int neighbours = 0;
        double strongest = 0;
        for (DampedSinusoid t : terms) {
            double zone = Math.max(
                    2 * Math.PI * Math.max(8 / fs, 8.0 / n),
                    4 * Math.max(t.alpha(), c.term().alpha()));
            if (Math.abs(t.omega() - c.term().omega()) < zone) {
                neighbours++;
                strongest = Math.max(strongest, PartialSearch.power(t, n));
            }
        }
        return neighbours < LARGEST_CLUSTER && c.power() > SPLINTER * strongest;
    }

    /** Leaves out terms that sank into the noise as others took over their energy, and states the odds of the rest. */
    public static List<DampedSinusoid> prune(List<DampedSinusoid> terms, int n, double fs, NoiseFloor floor) {
        List<DampedSinusoid> out = new ArrayList<>();
        for (DampedSinusoid t : terms) {
            double energy = PartialSearch.power(t, n);
            double variance = floor.at(t.omega() * fs / (2 * Math.PI));
            double snr = energy / variance;
            boolean lasts = t.alpha() < Math.log(1000) / (SHORTEST_T60 * fs);
            if (lasts && snr > PartialSearch.LEAST_RATIO * 0.7) {
                out.add(t.with(t.omegaSe(), snr));
            }
        }
        return out;
    }
}
