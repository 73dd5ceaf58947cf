package nightreed.match.fit;

import java.util.concurrent.atomic.AtomicLong;
import nightreed.work.Progress;

/**
 * What a search may spend: what its renders cost, counted so that the same search takes the same way on every machine; and
 * whether its caller still wants more of it. Thread-safe.
 */
public final class Budget {
    private final double amount;
    private final Progress progress;
    private final AtomicLong used = new AtomicLong(); // thousandths, which add up to the same in any order

    /**
     * @param amount   of what a {@link ResidualFunction} says that an answer costs
     * @param progress told how much is spent; asked before each render
     */
    public Budget(double amount, Progress progress) {
        this.amount = amount;
        this.progress = progress;
    }

    /** One without an end. */
    public static Budget endless(Progress progress) {
        return new Budget(Double.POSITIVE_INFINITY, progress);
    }

    /** @throws java.util.concurrent.CancellationException if the caller has cancelled */
    public void spend(double cost) {
        progress.check();
        used.addAndGet(Math.round(1000 * cost));
        progress.report(share(), "trying values");
    }

    /** Leaves a share of it, as what is near already needs less. */
    public void forgo(double share) {
        used.addAndGet(Math.round(1000 * share * amount));
    }

    public boolean spent() {
        return used.get() >= 1000 * amount || late();
    }

    public double amount() {
        return amount;
    }

    /** Whether the time is over, or what was found is enough: then what is under way is left, too. */
    public boolean late() {
        return progress.isEnough() || progress.isCancelled();
    }

    /** Part that is spent, 0 to 1. */
    public double share() {
        return amount == Double.POSITIVE_INFINITY ? 0 : Math.min(1, used.get() / (1000 * Math.max(1, amount)));
    }
}
