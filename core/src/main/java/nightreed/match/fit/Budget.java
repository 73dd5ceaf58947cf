package nightreed.match.fit;

import java.util.concurrent.CancellationException;
import java.util.concurrent.atomic.AtomicInteger;

/**
 * What a search may spend: renders, counted so that the same search takes the same way on every machine, and time, if there
 * is a limit to it.
 */
final class Budget {
    private final int renders;
    private final long endNanos;
    private final Runnable check;
    private final Thread owner = Thread.currentThread();
    private final AtomicInteger used = new AtomicInteger();

    /**
     * @param seconds from now on; infinite for no limit
     * @param check   asked before each render of the thread that makes the budget, which takes part in all that is rendered
     *                side by side; may throw {@link CancellationException}
     */
    Budget(int renders, double seconds, Runnable check) {
        this.check = check;
        this.renders = renders;
        this.endNanos = seconds > 1e6 ? Long.MAX_VALUE : System.nanoTime() + (long) (1e9 * seconds);
    }

    /** One without an end. */
    static Budget endless(Runnable check) {
        return new Budget(Integer.MAX_VALUE, Double.POSITIVE_INFINITY, check);
    }

    void spend(int n) {
        if (Thread.currentThread() == owner) { // progress is told by one thread, as ever
            check.run();
        }
        used.addAndGet(n);
    }

    boolean spent() {
        return used.get() >= renders || endNanos != Long.MAX_VALUE && System.nanoTime() > endNanos;
    }

    double share() {
        return Math.min(1, (double) used.get() / Math.max(1, renders));
    }
}
