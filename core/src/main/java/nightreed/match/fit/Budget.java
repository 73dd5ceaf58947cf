package nightreed.match.fit;

import java.util.concurrent.CancellationException;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.BooleanSupplier;

/**
 * What a search may spend: what its renders cost, counted so that the same search takes the same way on every machine, and
 * time, if there is a limit to it.
 */
final class Budget {
    private final double amount;
    private final long endNanos;
    private final Runnable check;
    private final BooleanSupplier enough;
    private final Thread owner = Thread.currentThread();
    private volatile boolean cancelled;
    private final AtomicLong used = new AtomicLong(); // thousandths, which add up to the same in any order

    /**
     * @param amount  of what a {@link Trial} says that an answer costs
     * @param seconds from now on; infinite for no limit
     * @param check   asked before each render of the thread that makes the budget, which takes part in all that is rendered
     *                side by side; may throw {@link CancellationException}
     * @param enough  whether the search is to end with what it has; may be asked from any thread
     */
    Budget(double amount, double seconds, Runnable check, BooleanSupplier enough) {
        this.enough = enough;
        this.check = check;
        this.amount = amount;
        this.endNanos =
                seconds == Double.POSITIVE_INFINITY ? Long.MAX_VALUE : System.nanoTime() + (long) (1e9 * seconds);
    }

    /** One without an end. */
    static Budget endless(Runnable check) {
        return new Budget(Double.POSITIVE_INFINITY, Double.POSITIVE_INFINITY, check, () -> false);
    }

    void spend(double cost) {
        if (isOwners()) {
            try {
                check.run();
            } catch (CancellationException e) {
                cancelled = true; // for what is under way on the other threads
                throw e;
            }
        }
        used.addAndGet(Math.round(1000 * cost));
    }

    /** Leaves a share of it, as what is near already needs less. */
    void forgo(double share) {
        used.addAndGet(Math.round(1000 * share * amount));
    }

    /** Whether this is the thread that made it: progress is told by one, as ever. */
    boolean isOwners() {
        return Thread.currentThread() == owner;
    }

    boolean spent() {
        return used.get() >= 1000 * amount || late();
    }

    double amount() {
        return amount;
    }

    /** Whether the time is over, or what was found is enough: then what is under way is left, too. */
    boolean late() {
        return cancelled || enough.getAsBoolean() || endNanos != Long.MAX_VALUE && System.nanoTime() > endNanos;
    }

    double share() {
        return Math.min(1, used.get() / (1000 * Math.max(1, amount)));
    }
}
