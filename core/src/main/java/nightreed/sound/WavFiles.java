package nightreed.sound;

import java.io.BufferedInputStream;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.nio.file.AccessDeniedException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.Locale;
import javax.sound.sampled.AudioFormat;
import javax.sound.sampled.AudioInputStream;
import javax.sound.sampled.AudioSystem;
import javax.sound.sampled.UnsupportedAudioFileException;

/**
 * WAV in and out. Reading is the JDK's; this class turns its bytes into samples and its silences into messages: it
 * shortens truncated files without saying so.
 */
public final class WavFiles {
    /** Longest recording that is taken in whole [s]: single notes, not sessions. */
    public static final double LONGEST_SECONDS = 300;

    private WavFiles() {}

    /** A clip as read, and what its reader had to put up with (null if nothing). */
    public record Loaded(Clip clip, String warning) {}

    /**
     * @param file WAV file of PCM 8 to 32 bits or float 32 or 64, one or more channels
     * @throws UnusableSound if it is missing, not a WAV file, damaged, empty, too long, or holds values that are not
     *     numbers; the message says which
     */
    public static Loaded read(Path file) throws UnusableSound {
        String name = String.valueOf(file.getFileName());
        try {
            if (Files.isDirectory(file)) {
                throw new UnusableSound(name + " is a folder: choose a WAV file in it.");
            }
            if (Files.size(file) == 0) {
                throw new UnusableSound(name + " is empty (0 bytes): export or copy the recording again.");
            }
            try (InputStream in = new BufferedInputStream(Files.newInputStream(file), 1 << 16)) {
                return read(in, name);
            }
        } catch (NoSuchFileException e) {
            throw new UnusableSound("There is no file " + file + ": check the name and the folder.", e);
        } catch (AccessDeniedException e) {
            throw new UnusableSound(name + " may not be read: change its permissions or copy it elsewhere.", e);
        } catch (IOException e) {
            throw new UnusableSound(name + " could not be read (" + e.getMessage() + "): copy it to a local disk.", e);
        }
    }

    /** Reads a WAV file held in memory, such as one stored in a project. */
    public static Loaded read(byte[] wav, String name) throws UnusableSound {
        try (InputStream in = new ByteArrayInputStream(wav)) {
            return read(in, name);
        } catch (IOException e) {
            throw new UnusableSound(name + " could not be read (" + e.getMessage() + ").", e);
        }
    }

    private static Loaded read(InputStream in, String name) throws UnusableSound, IOException {
        in.mark(16);
        byte[] magic = in.readNBytes(12);
        in.reset();
        if (!isWav(magic)) {
            throw new UnusableSound(name + " is not a WAV file (it starts with other bytes): convert it to WAV first.");
        }
        try (AudioInputStream audio = AudioSystem.getAudioInputStream(in)) {
            AudioFormat format = audio.getFormat();
            SampleForm form = SampleForm.of(format, name);
            int rate = Math.round(format.getSampleRate());
            if (rate < 8000 || rate > 192_000) {
                throw new UnusableSound(name + " says it has " + rate
                        + " samples a second; 8000 to 192000 can be used: export it again.");
            }
            long frames = audio.getFrameLength();
            if (frames > LONGEST_SECONDS * rate) {
                throw new UnusableSound(String.format(
                        Locale.ROOT,
                        "%s lasts %s; recordings of up to %.0f minutes are taken in: cut the note out first.",
                        name,
                        clock((double) frames / rate),
                        LONGEST_SECONDS / 60));
            }
            long most = (long) (LONGEST_SECONDS * rate * format.getFrameSize());
            byte[] bytes = readAll(audio, most);
            int got = bytes.length / format.getFrameSize();
            if (got == 0) {
                throw new UnusableSound(name + " holds no samples: export the recording again.");
            }
            String warning = null;
            if (frames != AudioSystem.NOT_SPECIFIED && got < frames) {
                warning = String.format(
                        Locale.ROOT,
                        "%s is cut short: it announces %.2f s and holds %.2f s; what is there is used.",
                        name,
                        (double) frames / rate,
                        (double) got / rate);
            }
            return new Loaded(new Clip(form.decode(bytes, got, name), rate), warning);
        } catch (UnsupportedAudioFileException e) {
            throw new UnusableSound(
                    name + " is a WAV file of a kind that cannot be read, or its header is damaged: export it as PCM"
                            + " WAV.",
                    e);
        } catch (IOException | RuntimeException e) {
            // the JDK's reader meets damaged headers with exceptions of all kinds
            throw new UnusableSound(name + " has a damaged header: export the recording again as PCM WAV.", e);
        }
    }

    /** All bytes up to a limit. A damaged header can make the JDK's stream answer "no bytes" for ever: that is its end. */
    private static byte[] readAll(InputStream in, long most) throws IOException {
        ByteArrayOutputStream all = new ByteArrayOutputStream();
        byte[] part = new byte[1 << 16];
        while (all.size() <= most) {
            int got = in.read(part);
            if (got <= 0) {
                break;
            }
            all.write(part, 0, got);
        }
        return all.toByteArray();
    }

    private static boolean isWav(byte[] magic) {
        if (magic.length < 12) {
            return false;
        }
        String riff = new String(magic, 0, 4, StandardCharsets.ISO_8859_1);
        String wave = new String(magic, 8, 4, StandardCharsets.ISO_8859_1);
        return riff.equals("RIFF") && wave.equals("WAVE");
    }

    private static String clock(double seconds) {
        long s = Math.round(seconds);
        return s >= 3600 ? String.format("%d h %02d min", s / 3600, s % 3600 / 60) : (s / 60) + " min";
    }

    /** How one sample lies in the bytes. */
    private record SampleForm(int channels, int bytes, boolean isFloat, boolean unsigned) {
        static SampleForm of(AudioFormat f, String name) throws UnusableSound {
            boolean isFloat = f.getEncoding().equals(AudioFormat.Encoding.PCM_FLOAT);
            boolean unsigned = f.getEncoding().equals(AudioFormat.Encoding.PCM_UNSIGNED);
            boolean signed = f.getEncoding().equals(AudioFormat.Encoding.PCM_SIGNED);
            int bits = f.getSampleSizeInBits();
            boolean known = isFloat ? bits == 32 || bits == 64 : (signed || unsigned) && bits >= 8 && bits <= 32;
            if (!known
                    || f.getChannels() < 1
                    || f.getFrameSize() < f.getChannels()
                    || f.getFrameSize() % f.getChannels() != 0
                    || f.isBigEndian()) {
                throw new UnusableSound(
                        name + " holds " + f.getEncoding() + " sound of " + bits + " bits: export it as PCM WAV.");
            }
            return new SampleForm(f.getChannels(), f.getFrameSize() / f.getChannels(), isFloat, unsigned);
        }

        float[][] decode(byte[] data, int frames, String name) throws UnusableSound {
            ByteBuffer b = ByteBuffer.wrap(data).order(ByteOrder.LITTLE_ENDIAN);
            float[][] out = new float[channels][frames];
            for (int i = 0; i < frames; i++) {
                for (int c = 0; c < channels; c++) {
                    float v = next(b);
                    if (!Float.isFinite(v)) {
                        throw new UnusableSound(name + " holds a value that is not a number at sample " + i
                                + ": the file is damaged, export it again.");
                    }
                    out[c][i] = v;
                }
            }
            return out;
        }

        private float next(ByteBuffer b) {
            if (isFloat) {
                return bytes == 4 ? b.getFloat() : (float) b.getDouble();
            }
            int value = 0;
            for (int k = 0; k < bytes; k++) {
                value |= (b.get() & 0xff) << (8 * k + 32 - 8 * bytes);
            }
            return (unsigned ? value ^ Integer.MIN_VALUE : value) * 0x1.0p-31f;
        }
    }

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

    private static void put(ByteBuffer b, float v, Format format) {
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
        SafeFiles.write(file, encode(clip, format));
    }
}
