package nightreed.device.midi;

import java.util.concurrent.atomic.AtomicLong;
import java.util.concurrent.locks.LockSupport;
import nightreed.play.Performance;

/** Takes the place of a keyboard: plays a performance over and over, in real time, with a pause between. */
public final class ScriptedPlayer implements MidiInput {
    public static final String NAME = "scripted player";

    private static final double PAUSE_SECONDS = 2;
    private final Thread thread;
    private volatile boolean closed;
    private final AtomicLong messages = new AtomicLong();

    public ScriptedPlayer(Performance performance, Listener listener) {
        thread = new Thread(() -> run(performance, listener), NAME);
        thread.setDaemon(true);
        thread.setPriority(Thread.MAX_PRIORITY - 1); // as a device's own thread: next to the sound
        thread.start();
    }

    private void run(Performance performance, Listener listener) {
        long start = System.nanoTime();
        while (!closed) {
            for (Performance.Event e : performance.events()) {
                sleepUntil(start + (long) (e.seconds() * 1e9));
                if (closed) {
                    return;
                }
                listener.message(e.status(), e.first(), e.second());
                messages.incrementAndGet();
            }
            start += (long) ((performance.seconds() + PAUSE_SECONDS) * 1e9);
            sleepUntil(start);
        }
    }

    private void sleepUntil(long until) {
        for (long left = until - System.nanoTime(); left > 0 && !closed; left = until - System.nanoTime()) {
            LockSupport.parkNanos(left);
        }
    }

    /** Messages sent so far. */
    public long messages() {
        return messages.get();
    }

    @Override
    public String name() {
        return NAME;
    }

    @Override
    public boolean standIn() {
        return true;
    }

    @Override
    public void close() {
        closed = true;
        LockSupport.unpark(thread);
        if (Thread.currentThread() != thread) {
            try {
                thread.join(1000);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
        }
    }
}
