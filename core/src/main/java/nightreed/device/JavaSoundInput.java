package nightreed.device;

import javax.sound.sampled.AudioFormat;
import javax.sound.sampled.AudioSystem;
import javax.sound.sampled.DataLine;
import javax.sound.sampled.LineUnavailableException;
import javax.sound.sampled.TargetDataLine;

/** The system's own microphone, mono, 16 bits. */
final class JavaSoundInput implements AudioInput {
    private static final int BLOCK = 512;
    private final TargetDataLine line;
    private final int sampleRateHz;
    private volatile boolean closed;
    private volatile boolean lost;

    private JavaSoundInput(TargetDataLine line, int sampleRateHz, Listener listener) {
        this.line = line;
        this.sampleRateHz = sampleRateHz;
        Thread thread = new Thread(() -> run(listener), "sound input");
        thread.setDaemon(true);
        thread.setPriority(Thread.MAX_PRIORITY);
        thread.start();
    }

    /** Opens the microphone, or returns null where there is none or it refuses. */
    static AudioInput open(Listener listener) {
        for (int rate : new int[] {48_000, 44_100}) {
            AudioFormat format = new AudioFormat(rate, 16, 1, true, false);
            DataLine.Info info = new DataLine.Info(TargetDataLine.class, format);
            try {
                if (AudioSystem.isLineSupported(info)) {
                    TargetDataLine line = (TargetDataLine) AudioSystem.getLine(info);
                    line.open(format, BLOCK * 16);
                    line.start();
                    return new JavaSoundInput(line, rate, listener);
                }
            } catch (LineUnavailableException | IllegalArgumentException | SecurityException e) {
                org.slf4j.LoggerFactory.getLogger(JavaSoundInput.class)
                        .info("microphone at {} Hz: {}", rate, e.toString());
            }
        }
        return null;
    }

    private void run(Listener listener) {
        byte[] bytes = new byte[2 * BLOCK];
        float[] block = new float[BLOCK];
        while (!closed && !lost) {
            int got = line.read(bytes, 0, bytes.length);
            lost = got <= 0 && !closed;
            for (int i = 0; i < got / 2; i++) {
                block[i] = (short) (bytes[2 * i] & 0xff | bytes[2 * i + 1] << 8) / 32768f;
            }
            if (got > 1) {
                listener.heard(block, got / 2);
            }
        }
        line.stop();
        line.close();
    }

    @Override
    public String name() {
        return "microphone";
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
    public boolean lost() {
        return lost;
    }

    @Override
    public void close() {
        closed = true;
    }
}
