package nightreed.device;

import java.util.concurrent.locks.LockSupport;
import nightreed.sound.Clip;

/**
 * Takes the place of a sound card: consumes blocks in real time and keeps the last minute of what was played.
 */
public final class StandInOutput implements AudioOutput {
    private static final int BLOCK = 256;
    private static final int KEPT_SECONDS = 60;
    private final int sampleRateHz;
    private final float[] kept;
    private final Thread thread;
    private volatile long played; // samples; written by the audio thread only, after the samples themselves
    private volatile boolean closed;
    private volatile long late;

    public StandInOutput(AudioSource source, int sampleRateHz) {
        this.sampleRateHz = sampleRateHz;
        this.kept = new float[KEPT_SECONDS * sampleRateHz];
        this.thread = new Thread(() -> run(source), "stand-in output");
        thread.setDaemon(true);
        thread.setPriority(Thread.MAX_PRIORITY);
        thread.start();
    }

    private void run(AudioSource source) {
        float[] block = new float[BLOCK];
        long blockNanos = BLOCK * 1_000_000_000L / sampleRateHz;
        long due = System.nanoTime();
        long count = 0;
        long missed = 0;
        while (!closed) {
            source.render(block, BLOCK);
            int at = (int) (count % kept.length);
            for (int i = 0; i < BLOCK; i++) {
                kept[at] = block[i];
                at = at + 1 == kept.length ? 0 : at + 1;
            }
            count += BLOCK;
            played = count;
            due += blockNanos;
            long wait = due - System.nanoTime();
            if (wait > 0) {
                LockSupport.parkNanos(wait);
            } else if (wait < -4 * blockNanos) {
                // while the program is still starting everything is late, and nothing is playing yet
                missed += count > 3L * sampleRateHz ? 1 : 0;
                late = missed;
                due = System.nanoTime(); // a card would have dropped out; it does not catch up either
            }
        }
    }

    /** Samples consumed since the start. */
    @Override
    public long played() {
        return played;
    }

    /** What was played from one sample count to another, as far back as it is kept. */
    public Clip kept(long from, long to) {
        long end = Math.min(to, played);
        long start = Math.max(Math.max(0, from), end - kept.length + BLOCK);
        float[] out = new float[(int) Math.max(0, end - start)];
        for (int i = 0; i < out.length; i++) {
            out[i] = kept[(int) ((start + i) % kept.length)];
        }
        return Clip.mono(out, sampleRateHz);
    }

    @Override
    public String name() {
        return "stand-in output";
    }

    @Override
    public boolean standIn() {
        return true;
    }

    @Override
    public int sampleRateHz() {
        return sampleRateHz;
    }

    @Override
    public double latencySeconds() {
        return (double) BLOCK / sampleRateHz;
    }

    @Override
    public long dropOuts() {
        return late;
    }

    @Override
    public boolean lost() {
        return false;
    }

    @Override
    public void close() {
        closed = true;
        LockSupport.unpark(thread);
    }
}
