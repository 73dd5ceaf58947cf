package nightreed.device;

import javax.sound.sampled.AudioFormat;
import javax.sound.sampled.LineUnavailableException;
import javax.sound.sampled.SourceDataLine;
import nightreed.dsp.StreamResampler;

/** One line of a sound card, 16 bits, two sides. */
final class JavaSoundOutput implements AudioOutput {
    /** Room in the card's buffer: small enough for a moved ruler to be heard at once, large enough for a busy machine. */
    private static final int BUFFERED_BLOCKS = 4;

    private final SourceDataLine line;
    private final String name;
    private final int sampleRateHz;
    private final int block;
    private volatile boolean closed;
    private volatile boolean lost;
    private volatile long late;
    private volatile long played;

    private JavaSoundOutput(SourceDataLine line, String name, int sampleRateHz, int block, AudioSource source) {
        this.line = line;
        this.name = name;
        this.sampleRateHz = sampleRateHz;
        this.block = block;
        Thread thread = new Thread(() -> run(source), "sound output");
        thread.setDaemon(true);
        thread.setPriority(Thread.MAX_PRIORITY);
        thread.start();
    }

    static AudioFormat format(int sampleRateHz) {
        return new AudioFormat(sampleRateHz, 16, 2, true, false);
    }

    static AudioOutput start(SourceDataLine line, String name, int sampleRateHz, int block, AudioSource source)
            throws LineUnavailableException {
        line.open(format(sampleRateHz), BUFFERED_BLOCKS * block * 4);
        line.start();
        return new JavaSoundOutput(line, name, sampleRateHz, block, source);
    }

    private void run(AudioSource source) {
        float[] left = new float[block];
        float[] right = new float[block];
        byte[] bytes = new byte[block * 4];
        StreamResampler rate = sampleRateHz == SoundOut.SAMPLE_RATE_HZ
                ? null
                : new StreamResampler(SoundOut.SAMPLE_RATE_HZ, sampleRateHz);
        long dry = 0;
        long count = 0;
        while (!closed && !lost) {
            if (rate == null) {
                source.render(left, right, block);
            } else {
                rate.render(source::render, left, right, block);
            }
            for (int i = 0; i < block; i++) {
                put(bytes, 4 * i, left[i]);
                put(bytes, 4 * i + 2, right[i]);
            }
            if (line.available() >= line.getBufferSize() - 4) {
                late = ++dry; // the card ran dry before this block
            }
            int taken = line.write(bytes, 0, bytes.length);
            lost = taken < bytes.length && !closed; // a line that is stopped or pulled out takes less
            played = count += block;
        }
        line.stop();
        line.close();
    }

    private static void put(byte[] bytes, int at, float sample) {
        int v = Math.max(-32768, Math.min(32767, Math.round(sample * 32767)));
        bytes[at] = (byte) v;
        bytes[at + 1] = (byte) (v >> 8);
    }

    @Override
    public String name() {
        return name;
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
        return (double) (BUFFERED_BLOCKS + 1) * block / sampleRateHz;
    }

    @Override
    public long dropOuts() {
        return Math.max(0, late - 1); // the first block finds it empty
    }

    @Override
    public long played() {
        return played;
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
