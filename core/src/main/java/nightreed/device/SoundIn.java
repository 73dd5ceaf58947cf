package nightreed.device;

import java.util.Arrays;
import java.util.function.Supplier;
import nightreed.sound.Clip;

/**
 * Listening to a microphone: first only its level, then, when asked, everything it hears. Public methods may be called
 * from any thread.
 */
public final class SoundIn implements AutoCloseable {
    /** Longest recording that is kept [s]; it stops by itself there. */
    public static final double LONGEST_SECONDS = 60;

    /** A sample this close to full scale has most likely been cut off. */
    private static final float CLIPPED = 0.9995f;

    /** Time of sound before the button that is kept too [s]: the room, and a blow that came a little early. */
    private static final double BEFORE_SECONDS = 0.3;

    private final AudioInput input;
    private final float[] kept;
    private final float[] before;
    private volatile boolean wanted; // a recording that has been asked for and not begun
    private volatile boolean recording;
    private volatile int length;
    private volatile float peak;
    private volatile float loudest;
    private volatile long clipped;
    private int beforeAt;

    /** @param standIn what a stand-in microphone hears where there is no real one */
    public SoundIn(Supplier<Clip> standIn) {
        AudioInput real = JavaSoundInput.open(this::heard);
        Clip clip = real == null ? standIn.get() : null;
        int rate = real == null ? clip.sampleRateHz() : real.sampleRateHz();
        kept = new float[(int) (LONGEST_SECONDS * rate)];
        before = new float[(int) (BEFORE_SECONDS * rate)];
        input = real == null ? new StandInInput(clip, this::heard) : real;
    }

    /** On the input's thread. */
    private void heard(float[] block, int n) {
        if (before == null || kept == null) {
            return; // the first block may come before the constructor is done
        }
        if (wanted) {
            begin();
        }
        float top = 0;
        int cut = 0;
        for (int i = 0; i < n; i++) {
            float a = Math.abs(block[i]);
            top = Math.max(top, a);
            cut += a >= CLIPPED ? 1 : 0;
        }
        long already = clipped;
        clipped = already + cut;
        peak = Math.max(peak, top);
        loudest = Math.max(loudest, top);
        if (recording) {
            int fits = Math.min(n, kept.length - length);
            System.arraycopy(block, 0, kept, length, fits);
            int now = length + fits;
            length = now;
            recording = now < kept.length;
        } else {
            for (int i = 0; i < n; i++) {
                before[beforeAt] = block[i];
                beforeAt = beforeAt + 1 == before.length ? 0 : beforeAt + 1;
            }
        }
    }

    public AudioInput input() {
        return input;
    }

    /** On the input's thread, between two blocks, so that nothing is lost at the seam. */
    private void begin() {
        wanted = false;
        for (int i = 0; i < before.length; i++) {
            kept[i] = before[(beforeAt + i) % before.length];
        }
        length = before.length;
        clipped = 0;
        loudest = 0;
        recording = true;
    }

    /** Begins to keep what is heard, with a moment of what was heard just before. */
    public void record() {
        wanted = true;
    }

    public boolean recording() {
        return wanted || recording;
    }

    /** Ends the recording. @return what was heard */
    public Clip stop() {
        wanted = false;
        recording = false;
        return Clip.mono(Arrays.copyOf(kept, Math.max(1, length)), input.sampleRateHz());
    }

    /** Length of the recording so far [s]. */
    public double seconds() {
        return (double) length / input.sampleRateHz();
    }

    /** Largest sample since the last call, full scale = 1; resets. */
    public double takePeak() {
        float p = peak;
        peak = 0;
        return p;
    }

    /** Largest sample since the recording or the listening began. */
    public double loudest() {
        return loudest;
    }

    /** Samples that were most likely cut off since then. */
    public long clipped() {
        return clipped;
    }

    @Override
    public void close() {
        wanted = false;
        recording = false;
        input.close();
    }
}
