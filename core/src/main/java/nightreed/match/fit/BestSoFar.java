package nightreed.match.fit;

import nightreed.match.fit.Polish.Point;

/** The nearest recipe that a search has heard in full, kept for the case that it is ended. Thread-safe. */
final class BestSoFar {
    private Point best;

    synchronized void offer(Point met) {
        if (best == null || met.total() < best.total()) {
            best = met;
        }
    }

    /** Null before anything was heard. */
    synchronized Point get() {
        return best;
    }
}
