package nightreed.work;

import java.util.concurrent.CancellationException;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.function.Supplier;

/**
 * Runs long work on a thread of its own while its caller waits and watches. A cancel, "enough" or the end of the time are then
 * obeyed within some hundredths of a second, also where the work is in the middle of something that cannot be interrupted: what it does
 * is left to end by itself, and what it has found so far is returned.
 */
public final class Supervisor {
    /** How often the caller looks [ms]; far below what a person notices. */
    private static final int LOOK_MS = 10;

    /** What work is given to end by itself once it was told that it is enough [s]; the caller is promised 0.3 s in all. */
    private static final double GRACE_SECONDS = 0.1;

    private Supervisor() {}

    /** Work that tells through a {@link Control} how far it is and whether something can be returned already. */
    @FunctionalInterface
    public interface Work<T> {
        T run(Control control) throws Exception;
    }

    /** Between the work and its caller. */
    public static final class Control implements Progress {
        private final Progress caller;
        private final long softEnd;
        private volatile boolean enough;
        private volatile boolean cancelled;
        private volatile double fraction;
        private volatile String doing = "";
        private volatile boolean reported;

        private Control(Progress caller, long softEnd) {
            this.caller = caller;
            this.softEnd = softEnd;
        }

        @Override
        public void report(double fraction, String doing) {
            this.fraction = fraction;
            this.doing = doing;
            reported = true;
        }

        @Override
        public boolean isCancelled() {
            return cancelled || caller.isCancelled();
        }

        @Override
        public boolean isEnough() {
            return enough || isCancelled() || caller.isEnough() || System.nanoTime() - softEnd > 0;
        }

        private void tell() {
            if (reported) {
                reported = false;
                caller.report(fraction, doing);
            }
        }
    }

    /**
     * @param seconds  after which the work should end by itself, with what it has; infinite for as long as it needs
     * @param reserve  seconds beyond that, in which it may finish what it returns
     * @param fallback what is returned if the work does not end in time; null from it means that nothing is there yet, then
     *                 the work is waited for until it is
     * @throws CancellationException if the caller cancels; the work is told
     * @throws Exception             what the work throws
     */
    public static <T> T run(Progress caller, double seconds, double reserve, Work<T> work, Supplier<T> fallback)
            throws Exception {
        long start = System.nanoTime();
        long soft = later(start, seconds);
        long hard = later(start, seconds + reserve);
        Control control = new Control(caller, soft);
        CompletableFuture<T> result = new CompletableFuture<>();
        Thread thread = new Thread(
                () -> {
                    try {
                        result.complete(work.run(control));
                    } catch (Throwable e) {
                        result.completeExceptionally(e);
                    }
                },
                "night-reed-work");
        thread.setDaemon(true);
        thread.start();
        boolean ending = false;
        while (true) {
            try {
                return result.get(LOOK_MS, TimeUnit.MILLISECONDS);
            } catch (TimeoutException notYet) {
                watch(control);
                if (caller.isEnough() && !ending) {
                    ending = true;
                    hard = Math.min(hard, later(System.nanoTime(), GRACE_SECONDS));
                }
                T there = System.nanoTime() - hard > 0 ? fallback.get() : null;
                if (there != null) {
                    control.enough = true;
                    control.cancelled = true;
                    return there;
                }
            } catch (ExecutionException e) {
                throw unwrapped(e);
            } catch (InterruptedException e) {
                control.cancelled = true;
                Thread.currentThread().interrupt();
                throw new CancellationException();
            }
        }
    }

    private static void watch(Control control) {
        try {
            control.tell();
            control.caller.check();
        } catch (CancellationException e) {
            control.cancelled = true;
            throw e;
        }
    }

    /** A century stands for ever. */
    private static long later(long nanos, double seconds) {
        return nanos + (long) (1e9 * Math.min(seconds, 100 * 365.25 * 86_400));
    }

    private static Exception unwrapped(ExecutionException e) {
        if (e.getCause() instanceof Error error) {
            throw error;
        }
        return (Exception) e.getCause();
    }
}
