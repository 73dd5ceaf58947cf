package nightreed.device;

import javax.sound.sampled.AudioFormat;
import javax.sound.sampled.AudioSystem;
import javax.sound.sampled.DataLine;
import javax.sound.sampled.LineUnavailableException;
import javax.sound.sampled.SourceDataLine;

/** The default sound card, 16 bits, stereo with the same sound on both sides. */
public final class JavaSoundOutput implements AudioOutput {
    private static final int BLOCK = 256;
    /** Room in the card's buffer: small enough for a moved ruler to be heard at once, large enough for a busy machine. */
    private static final int BUFFERED_BLOCKS = 4;

    private final SourceDataLine line;
    private final int sampleRateHz;
    private volatile boolean closed;
    private volatile long late;

    private JavaSoundOutput(SourceDataLine line, AudioSource source, int sampleRateHz) {
        this.line = line;
        this.sampleRateHz = sampleRateHz;
        Thread thread = new Thread(() -> run(source), "sound output");
        thread.setDaemon(true);
        thread.setPriority(Thread.MAX_PRIORITY);
        thread.start();
    }

    /** Opens the card, or returns null where there is none or it refuses. */
    static AudioOutput open(AudioSource source, int sampleRateHz) {
        AudioFormat format = new AudioFormat(sampleRateHz, 16, 2, true, false);
        DataLine.Info info = new DataLine.Info(SourceDataLine.class, format);
        try {
            if (!AudioSystem.isLineSupported(info)) {
                return null;
            }
            SourceDataLine line = (SourceDataLine) AudioSystem.getLine(info);
            line.open(format, BUFFERED_BLOCKS * BLOCK * 4);
            line.start();
            return new JavaSoundOutput(line, source, sampleRateHz);
        } catch (LineUnavailableException | IllegalArgumentException | SecurityException e) {
            // Java Sound says "no" in three different ways
            return null;
        }
    }

    private void run(AudioSource source) {
        float[] block = new float[BLOCK];
        byte[] bytes = new byte[BLOCK * 4];
        long dry = 0;
        while (!closed) {
            source.render(block, BLOCK);
            for (int i = 0; i < BLOCK; i++) {
                int v = Math.max(-32768, Math.min(32767, Math.round(block[i] * 32767)));
                bytes[4 * i] = (byte) v;
                bytes[4 * i + 1] = (byte) (v >> 8);
                bytes[4 * i + 2] = (byte) v;
                bytes[4 * i + 3] = (byte) (v >> 8);
            }
            if (line.available() >= line.getBufferSize() - 4) {
                late = ++dry; // the card ran dry before this block
            }
            line.write(bytes, 0, bytes.length);
        }
        line.stop();
        line.close();
    }

    @Override
    public String name() {
        return "sound card";
    }

    @Override
    public boolean standIn() {
        return false;
    }

    @Override
    public int sampleRateHz() {
        return sampleRateHz;
    }

    @Override
    public double latencySeconds() {
        return (double) (BUFFERED_BLOCKS + 1) * BLOCK / sampleRateHz;
    }

    @Override
    public long dropOuts() {
        return Math.max(0, late - 1); // the first block finds it empty
    }

    @Override
    public void close() {
        closed = true;
    }
}
