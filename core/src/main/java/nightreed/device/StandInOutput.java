package nightreed.device;

import java.util.concurrent.locks.LockSupport;
import nightreed.sound.Clip;

/**
 * Takes the place of a sound card: consumes blocks in real time and keeps the last minute of what was played.
 */
public final class StandInOutput implements AudioOutput {
    private static final int KEPT_SECONDS = 60;
    private final int sampleRateHz;
    private final int block;
    private final float[] keptLeft;
    private final float[] keptRight;
    private final Thread thread;
    private volatile long played; // samples; written by the audio thread only, after the samples themselves
    private volatile boolean closed;
    private volatile long late;

    /** With blocks of the usual size. */
    public StandInOutput(AudioSource source, int sampleRateHz) {
        this(source, sampleRateHz, SoundOut.USUAL_BLOCK);
    }

    /** @param block samples per block */
    public StandInOutput(AudioSource source, int sampleRateHz, int block) {
        this.sampleRateHz = sampleRateHz;
        this.block = block;
        this.keptLeft = new float[KEPT_SECONDS * sampleRateHz];
        this.keptRight = new float[KEPT_SECONDS * sampleRateHz];
        this.thread = new Thread(() -> run(source), "stand-in output");
        thread.setDaemon(true);
        thread.setPriority(Thread.MAX_PRIORITY);
        thread.start();
    }

    private void run(AudioSource source) {
        float[] left = new float[block];
        float[] right = new float[block];
        long blockNanos = block * 1_000_000_000L / sampleRateHz;
        long due = System.nanoTime();
        long count = 0;
        long missed = 0;
        while (!closed) {
            source.render(left, right, block);
            int at = (int) (count % keptLeft.length);
            for (int i = 0; i < block; i++) {
                keptLeft[at] = left[i];
                keptRight[at] = right[i];
                at = at + 1 == keptLeft.length ? 0 : at + 1;
            }
            count += block;
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

    /** What was played from one sample count to another, as far back as it is kept; two channels. */
    public Clip kept(long from, long to) {
        long end = Math.min(to, played);
        long start = Math.max(Math.max(0, from), end - keptLeft.length + block);
        float[][] out = new float[2][(int) Math.max(0, end - start)];
        for (int i = 0; i < out[0].length; i++) {
            int at = (int) ((start + i) % keptLeft.length);
            out[0][i] = keptLeft[at];
            out[1][i] = keptRight[at];
        }
        return new Clip(out, sampleRateHz);
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
        return (double) block / sampleRateHz;
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
