package nightreed.sound.file;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import nightreed.sound.UnusableSound;
import nightreed.sound.file.Chunks.Chunk;
import nightreed.sound.file.SampleForm.Law;

/** Finds the samples in RIFF, RIFX (big-endian) and RF64 files, with the chunks in any order and with broken lengths. */
final class WavHeader {
    private static final Set<String> KNOWN =
            Set.of("fmt ", "data", "LIST", "fact", "cue ", "smpl", "bext", "JUNK", "PEAK", "inst", "id3 ", "ds64");

    private static final int PCM = 1;
    private static final int FLOAT = 3;
    private static final int A_LAW = 6;
    private static final int MU_LAW = 7;
    private static final int EXTENSIBLE = 0xFFFE;

    private final Source source;
    private final boolean bigEndian;
    private final List<String> warnings = new ArrayList<>();
    private byte[] fmt;
    private Chunk data;
    private long size64 = -1;

    private WavHeader(Source source, boolean bigEndian) {
        this.source = source;
        this.bigEndian = bigEndian;
    }

    static boolean starts(byte[] magic) {
        String riff = Chunks.letters(magic, 0);
        return (riff.equals("RIFF") || riff.equals("RIFX") || riff.equals("RF64"))
                && Chunks.letters(magic, 8).equals("WAVE");
    }

    static PcmReader.Layout read(Source source, byte[] magic) throws UnusableSound, IOException {
        WavHeader h = new WavHeader(source, Chunks.letters(magic, 0).equals("RIFX"));
        h.walk();
        return h.layout();
    }

    private void walk() throws IOException {
        try (Chunks chunks = new Chunks(source, 12, bigEndian, KNOWN::contains)) {
            Chunk c = null;
            while ((fmt == null || data == null) && (c = chunks.next(c)) != null) {
                switch (c.id()) {
                    case "fmt " -> fmt = chunks.bytes((int) Math.min(c.size(), 40));
                    case "ds64" -> size64 = Chunks.number(chunks.bytes(16), 8, 8, bigEndian);
                    case "data" -> {
                        data = c;
                        // a writer that could not go back leaves 0, and everything after it is sound
                        boolean open = c.size() == 0 && source.size() > c.at() && fmt != null;
                        if (c.size() == 0xFFFFFFFFL && size64 >= 0) {
                            data = new Chunk("data", c.at(), size64);
                        } else if (c.size() == 0xFFFFFFFFL || open) {
                            data = new Chunk("data", c.at(), source.size() - c.at());
                            warnings.add("does not say how long it is; all that is there is used");
                        }
                        c = data;
                    }
                    default -> {}
                }
            }
        } catch (java.io.EOFException e) {
            if (fmt == null || data == null) {
                throw e;
            }
        }
    }

    private PcmReader.Layout layout() throws UnusableSound {
        if (data == null || fmt == null || fmt.length < 16) {
            throw SoundFiles.damaged(source, data == null ? "no samples in it" : "no description of its samples");
        }
        int tag = (int) Chunks.number(fmt, 0, 2, bigEndian);
        int channels = (int) Chunks.number(fmt, 2, 2, bigEndian);
        int rate = (int) Math.min(Integer.MAX_VALUE, Chunks.number(fmt, 4, 4, bigEndian));
        int frameBytes = (int) Chunks.number(fmt, 12, 2, bigEndian);
        int bits = (int) Chunks.number(fmt, 14, 2, bigEndian);
        if (tag == EXTENSIBLE && fmt.length >= 26) {
            tag = (int) Chunks.number(fmt, 24, 2, bigEndian);
        }
        int bytes = (bits + 7) / 8;
        if (channels > 0 && frameBytes >= channels && frameBytes % channels == 0) {
            bytes = Math.max(bytes, frameBytes / channels); // 20 bits may lie in 3 or 4 bytes
        }
        SampleForm form = form(tag, bits, bytes);
        SoundFiles.check(source, rate, channels);
        long there = Math.max(0, Math.min(data.size(), source.size() - data.at()));
        int frame = bytes * channels;
        if (there < data.size() && there / frame < data.size() / frame) {
            warnings.add(SoundFiles.cutShort((double) data.size() / frame / rate, (double) there / frame / rate));
        }
        SoundFormat format = new SoundFormat("WAV, " + form.title(), rate, channels, there / frame);
        return new PcmReader.Layout(format, form, data.at(), there, warnings);
    }

    private SampleForm form(int tag, int bits, int bytes) throws UnusableSound {
        Law law = switch (tag) {
            case PCM -> bits > 8 || bytes > 1 ? Law.SIGNED : Law.UNSIGNED;
            case FLOAT -> Law.FLOAT;
            case A_LAW -> Law.A_LAW;
            case MU_LAW -> Law.MU_LAW;
            default -> null;
        };
        boolean fits = law == Law.FLOAT
                ? bytes == 4 || bytes == 8
                : law == Law.SIGNED ? bytes >= 1 && bytes <= 4 && bits > 0 : bytes == 1 && bits > 0;
        if (law == null || !fits) {
            String what = switch (tag) {
                case 2, 0x11 -> "ADPCM-compressed sound";
                case 0x31 -> "GSM-compressed sound";
                case 0x55 -> "MP3-compressed sound in a WAV wrapper";
                default ->
                    String.format(Locale.ROOT, "sound of a kind that cannot be read (kind %d, %d bit)", tag, bits);
            };
            throw new UnusableSound(source.name() + " holds " + what + ": export it as PCM WAV.");
        }
        return new SampleForm(bytes, law, bigEndian);
    }
}
