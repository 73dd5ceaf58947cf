package nightreed.device;

import java.util.concurrent.locks.LockSupport;
import nightreed.sound.Clip;

/** Takes the place of a microphone: hears a clip over and over, in real time, as if a player struck again and again. */
public final class StandInInput implements AudioInput {
    private static final int BLOCK = 512;
    private final float[] sound;
    private final int sampleRateHz;
    private volatile boolean closed;

    /** @param clip what is heard; not empty */
    public StandInInput(Clip clip, Listener listener) {
        this.sound = clip.mixedFloats();
        this.sampleRateHz = clip.sampleRateHz();
        Thread thread = new Thread(() -> run(listener), "stand-in input");
        thread.setDaemon(true);
        thread.start();
    }

    private void run(Listener listener) {
        float[] block = new float[BLOCK];
        int at = 0;
        long due = System.nanoTime();
        while (!closed) {
            for (int i = 0; i < BLOCK; i++) {
                block[i] = sound[at];
                at = at + 1 == sound.length ? 0 : at + 1;
            }
            listener.heard(block, BLOCK);
            due += BLOCK * 1_000_000_000L / sampleRateHz;
            LockSupport.parkNanos(due - System.nanoTime());
        }
    }

    @Override
    public String name() {
        return "stand-in microphone";
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
    public boolean lost() {
        return false;
    }

    @Override
    public void close() {
        closed = true;
    }
}
