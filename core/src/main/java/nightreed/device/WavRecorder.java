package nightreed.device;

import java.io.IOException;
import java.nio.file.Path;
import java.util.concurrent.locks.LockSupport;
import nightreed.dsp.CeilingLimiter;
import nightreed.sound.WavStream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Takes down what is played into a WAV file of two channels and 24 bits, as it is played: what has been written stays readable
 * even if the program is cut off. Sound beyond the ceiling of the desk is held under it. The audio thread puts sound in
 * without waiting; a thread of the tape's own writes it.
 */
public final class WavRecorder implements AutoCloseable {
    /** Longest take [s]: two hours are 2 GB. */
    public static final double LONGEST_SECONDS = 7200;

    private static final Logger LOG = LoggerFactory.getLogger(WavRecorder.class);
    private static final int WAITING = 1 << 18; // samples: more than five seconds, for a disk that is busy
    private static final int PIECE = 4096;
    private final Path file;
    private final int sampleRateHz;
    private final float[] left = new float[WAITING];
    private final float[] right = new float[WAITING];
    private final CeilingLimiter limiter;
    private final WavStream wav;
    private final Thread writer;
    private volatile long in; // written by the audio thread only, after the samples themselves
    private volatile long out;
    private volatile long lost;
    private volatile boolean closed;
    private volatile String problem;

    /**
     * Begins a take.
     *
     * @param file         is made anew
     * @param sampleRateHz rate of what is put in
     * @throws IOException with a message for the user if the file cannot be made
     */
    public WavRecorder(Path file, int sampleRateHz) throws IOException {
        this.file = file;
        this.sampleRateHz = sampleRateHz;
        this.limiter = new CeilingLimiter(OutputMixer.CEILING_DB, sampleRateHz);
        this.wav = new WavStream(file, sampleRateHz);
        this.writer = new Thread(this::write, "tape");
        writer.setDaemon(true);
        writer.start();
    }

    /** Takes {@code l[0..n)} and {@code r[0..n)}; audio thread. What finds no room is lost and counted. */
    void put(float[] l, float[] r, int n) {
        long from = in;
        if (closed || problem != null) {
            return;
        }
        if (from + n - out > WAITING) {
            long before = lost;
            lost = before + n;
            return;
        }
        for (int i = 0; i < n; i++) {
            int at = (int) (from + i & WAITING - 1);
            left[at] = l[i];
            right[at] = r[i];
        }
        in = from + n;
    }

    private void write() {
        float[] l = new float[PIECE];
        float[] r = new float[PIECE];
        int late = limiter.latency(); // the limiter's own silence is left out at the front and let out at the end
        try (wav) {
            long refresh = sampleRateHz;
            while (problem == null && (!closed || out < in)) {
                int n = (int) Math.min(PIECE, in - out);
                if (n == 0) {
                    LockSupport.parkNanos(20_000_000);
                    continue;
                }
                for (int i = 0; i < n; i++) {
                    int at = (int) (out + i & WAITING - 1);
                    l[i] = left[at];
                    r[i] = right[at];
                }
                late = put(l, r, n, late);
                long done = out + n;
                out = done;
                if (out > refresh) {
                    wav.refresh();
                    refresh = out + sampleRateHz;
                }
                if (out > LONGEST_SECONDS * sampleRateHz) {
                    problem = "The take has reached two hours and was ended there.";
                }
            }
            java.util.Arrays.fill(l, 0);
            java.util.Arrays.fill(r, 0);
            put(l, r, limiter.latency(), late);
        } catch (IOException e) {
            LOG.warn("tape {}", file, e);
            problem = "The take could not be written to " + file + ": " + e.getMessage()
                    + ". What came before is in the file; make room or choose another folder, then begin anew.";
        }
    }

    /** @return how much of the limiter's silence is still to be left out */
    private int put(float[] l, float[] r, int n, int late) throws IOException {
        limiter.process(l, r, 0, n);
        int skip = Math.min(late, n);
        wav.append(l, r, skip, n);
        return late - skip;
    }

    public Path file() {
        return file;
    }

    /** Length so far [s]. */
    public double seconds() {
        return (double) in / sampleRateHz;
    }

    /** Sound that was played but could not be taken down [s]. */
    public double lostSeconds() {
        return (double) lost / sampleRateHz;
    }

    /** What went wrong, in words for people; null as long as all is well. */
    public String problem() {
        return problem;
    }

    /** Ends the take; returns once all is in the file. */
    @Override
    public void close() {
        closed = true;
        LockSupport.unpark(writer);
        try {
            writer.join(10_000);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
