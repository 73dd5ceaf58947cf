package nightreed.sound;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.Arrays;
import nightreed.files.OutputFile;
import nightreed.files.Written;

/** WAV out: plain chunks, readable everywhere. Reading is in {@code nightreed.sound.file}. */
public final class WavFiles {
    private WavFiles() {}

    /** Sample formats that can be written. */
    public enum Format {
        PCM16(2),
        PCM24(3),
        FLOAT32(4);

        private final int bytes;

        Format(int bytes) {
            this.bytes = bytes;
        }
    }

    /** Bytes of a WAV file. Integer formats hold samples beyond full scale at full scale. */
    public static byte[] encode(Clip clip, Format format) {
        int frameBytes = format.bytes * clip.channelCount();
        int dataBytes = Math.multiplyExact(clip.length(), frameBytes);
        ByteBuffer b = ByteBuffer.allocate(44 + dataBytes + (dataBytes & 1)).order(ByteOrder.LITTLE_ENDIAN);
        b.put("RIFF".getBytes(StandardCharsets.ISO_8859_1)).putInt(36 + dataBytes + (dataBytes & 1));
        b.put("WAVEfmt ".getBytes(StandardCharsets.ISO_8859_1)).putInt(16);
        b.putShort((short) (format == Format.FLOAT32 ? 3 : 1)).putShort((short) clip.channelCount());
        b.putInt(clip.sampleRateHz()).putInt(clip.sampleRateHz() * frameBytes);
        b.putShort((short) frameBytes).putShort((short) (8 * format.bytes));
        b.put("data".getBytes(StandardCharsets.ISO_8859_1)).putInt(dataBytes);
        float[][] x = new float[clip.channelCount()][];
        for (int c = 0; c < x.length; c++) {
            x[c] = clip.channel(c);
        }
        for (int i = 0; i < clip.length(); i++) {
            for (float[] channel : x) {
                put(b, channel[i], format);
            }
        }
        return b.array();
    }

    /** Adds a sample. */
    static void put(ByteBuffer b, float v, Format format) {
        switch (format) {
            case PCM16 -> b.putShort((short) Math.max(-32768, Math.min(32767, Math.round(v * 32768.0))));
            case PCM24 -> {
                long q = Math.max(-8388608, Math.min(8388607, Math.round(v * 8388608.0)));
                b.put((byte) q).put((byte) (q >> 8)).put((byte) (q >> 16));
            }
            case FLOAT32 -> b.putFloat(v);
        }
    }

    /**
     * Writes a WAV file; an existing one is replaced only once the new one is complete.
     *
     * @throws IOException with a message for the user if the folder cannot be written
     */
    public static void write(Clip clip, Format format, Path file) throws IOException {
        OutputFile.write(file, signed(encode(clip, format)));
    }

    /** With the name of the program that wrote it, in the place that the format has for that: chunk LIST, INFO, ISFT. */
    private static byte[] signed(byte[] wav) {
        byte[] name = Arrays.copyOf(Written.PROGRAM.getBytes(StandardCharsets.US_ASCII), 12); // ends in a 0, even
        int padded = wav.length + (wav.length & 1);
        ByteBuffer b = ByteBuffer.allocate(padded + 20 + name.length).order(ByteOrder.LITTLE_ENDIAN);
        b.put(wav).position(padded);
        b.put("LIST".getBytes(StandardCharsets.US_ASCII)).putInt(12 + name.length);
        b.put("INFOISFT".getBytes(StandardCharsets.US_ASCII))
                .putInt(name.length)
                .put(name);
        b.putInt(4, b.capacity() - 8); // length of all that follows the head
        return b.array();
    }
}
