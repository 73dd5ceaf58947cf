package nightreed.work;

import java.util.concurrent.CancellationException;
import java.util.function.BooleanSupplier;

/**
 * Told how far a long piece of work has come, and asked whether it is still wanted. {@link #report} may also throw {@link
 * CancellationException} to end the work; nothing is changed then.
 */
@FunctionalInterface
public interface Progress {
    /** Nobody is waiting. */
    Progress NONE = (fraction, doing) -> {};

    /**
     * @param fraction part done, 0 to 1
     * @param doing    what is being done, for people
     */
    void report(double fraction, String doing);

    /** Whether nothing of the work is wanted any more. May be asked from any thread. */
    default boolean isCancelled() {
        return false;
    }

    /** Whether what has been found so far is enough: a search ends soon with it. May be asked from any thread. */
    default boolean isEnough() {
        return false;
    }

    /** Called between short steps of work, from any thread. @throws CancellationException if it is not wanted any more */
    default void check() {
        if (isCancelled()) {
            throw new CancellationException();
        }
    }

    /** For work that is of no use unless it is finished: that enough has been found cancels it, too. */
    default Progress endedByEnough() {
        Progress whole = this;
        return relayed(whole, () -> whole.isCancelled() || whole.isEnough(), whole::isEnough);
    }

    /** The same, which tells before what is being done what it is done for. */
    default Progress named(String name) {
        return relayed((fraction, doing) -> report(fraction, name + ": " + doing), this::isCancelled, this::isEnough);
    }

    /** Progress of a part of the work that runs from {@code from} to {@code to} of the whole. */
    default Progress part(double from, double to) {
        return relayed(
                (fraction, doing) -> report(from + fraction * (to - from), doing), this::isCancelled, this::isEnough);
    }

    private static Progress relayed(Progress reports, BooleanSupplier cancelled, BooleanSupplier enough) {
        return new Progress() {
            @Override
            public void report(double fraction, String doing) {
                reports.report(fraction, doing);
            }

            @Override
            public boolean isCancelled() {
                return cancelled.getAsBoolean();
            }

            @Override
            public boolean isEnough() {
                return enough.getAsBoolean();
            }
        };
    }
}
