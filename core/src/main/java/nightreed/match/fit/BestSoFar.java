package nightreed.match.fit;

import nightreed.match.fit.RenderedLeastSquares.Candidate;

/** The nearest recipe that a search has heard in full, kept for the case that it is ended. Thread-safe. */
final class BestSoFar {
    private Candidate best;

    synchronized void offer(Candidate met) {
        if (best == null || met.total() < best.total()) {
            best = met;
        }
    }

    /** Null before anything was heard. */
    synchronized Candidate get() {
        return best;
    }
}
