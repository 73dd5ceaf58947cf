package nightreed.bench;

import java.util.concurrent.locks.LockSupport;

/**
 * Wakes up for every block of 128 samples and does nothing: what it misses is missed by the machine, not by the program that
 * runs beside it.
 */
public final class Metronome {
    private static final long BLOCK_NANOS = 128 * 1_000_000_000L / 48_000;
    private static final int BUFFERED = 4;

    private Metronome() {}

    public static void main(String[] args) {
        long end = System.nanoTime() + (long) (1e9 * Double.parseDouble(args[0]));
        long due = System.nanoTime();
        int late = 0;
        while (System.nanoTime() < end) {
            due += BLOCK_NANOS;
            long wait = due - System.nanoTime();
            if (wait > 0) {
                LockSupport.parkNanos(wait);
            } else if (wait < -BUFFERED * BLOCK_NANOS) { // as the stand-in output counts
                late++;
                due = System.nanoTime();
            }
        }
        System.out.println("  a process that only wakes up for each block, at the same time: " + late + " too late");
    }
}
