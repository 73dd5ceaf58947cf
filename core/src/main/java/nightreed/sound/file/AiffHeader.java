package nightreed.sound.file;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import nightreed.sound.UnusableSound;
import nightreed.sound.file.Chunks.Chunk;
import nightreed.sound.file.SampleForm.Law;

/** Finds the samples in AIFF and AIFF-C files. */
final class AiffHeader {
    private static final Set<String> KNOWN =
            Set.of("COMM", "SSND", "MARK", "INST", "NAME", "AUTH", "(c) ", "ANNO", "FVER", "APPL", "COMT", "CHAN");

    private AiffHeader() {}

    static boolean starts(byte[] magic) {
        String kind = Chunks.letters(magic, 8);
        return Chunks.letters(magic, 0).equals("FORM") && (kind.equals("AIFF") || kind.equals("AIFC"));
    }

    static PcmReader.Layout read(Source source, byte[] magic) throws UnusableSound, IOException {
        boolean compressed = Chunks.letters(magic, 8).equals("AIFC");
        byte[] common = null;
        Chunk sound = null;
        long offset = 0;
        try (Chunks chunks = new Chunks(source, 12, true, KNOWN::contains)) {
            Chunk c = null;
            while ((common == null || sound == null) && (c = chunks.next(c)) != null) {
                if (c.id().equals("COMM")) {
                    common = chunks.bytes((int) Math.min(c.size(), 22));
                } else if (c.id().equals("SSND")) {
                    offset = Chunks.number(chunks.bytes(8), 0, 4, true);
                    sound = c;
                }
            }
        }
        if (common == null || sound == null || common.length < 18) {
            throw SoundFiles.damaged(source, sound == null ? "no samples in it" : "no description of its samples");
        }
        return layout(source, common, compressed, sound, offset);
    }

    private static PcmReader.Layout layout(Source source, byte[] common, boolean compressed, Chunk sound, long offset)
            throws UnusableSound {
        int channels = (int) Chunks.number(common, 0, 2, true);
        long frames = Chunks.number(common, 2, 4, true);
        int bits = (int) Chunks.number(common, 6, 2, true);
        int rate = (int) Math.max(0, Math.min(Integer.MAX_VALUE, Math.rint(extended(common, 8))));
        String kind = compressed && common.length >= 22 ? Chunks.letters(common, 18) : "NONE";
        SampleForm form = form(source, kind, bits);
        SoundFiles.check(source, rate, channels);
        int frameBytes = form.bytes() * channels;
        long at = sound.at() + 8 + Math.min(offset, source.size());
        long announced = frames * frameBytes;
        long there = Math.max(0, Math.min(announced, source.size() - at));
        List<String> warnings = new ArrayList<>();
        if (frames == 0 && source.size() > at && sound.size() > 8) {
            there = Math.min(sound.size() - 8, source.size() - at);
            warnings.add("does not say how long it is; all that is there is used");
        } else if (there / frameBytes < frames) {
            warnings.add(SoundFiles.cutShort((double) frames / rate, (double) there / frameBytes / rate));
        }
        SoundFormat format = new SoundFormat(
                (compressed ? "AIFF-C, " : "AIFF, ") + form.title(), rate, channels, there / frameBytes);
        return new PcmReader.Layout(format, form, at, there, warnings);
    }

    private static SampleForm form(Source source, String kind, int bits) throws UnusableSound {
        int bytes = (bits + 7) / 8;
        SampleForm form = switch (kind) {
            case "NONE", "twos" -> new SampleForm(bytes, Law.SIGNED, true);
            case "in24" -> new SampleForm(3, Law.SIGNED, true);
            case "in32" -> new SampleForm(4, Law.SIGNED, true);
            case "sowt" -> new SampleForm(bytes, Law.SIGNED, false);
            case "raw " -> new SampleForm(1, Law.UNSIGNED, true);
            case "fl32", "FL32" -> new SampleForm(4, Law.FLOAT, true);
            case "fl64", "FL64" -> new SampleForm(8, Law.FLOAT, true);
            case "ulaw", "ULAW" -> new SampleForm(1, Law.MU_LAW, true);
            case "alaw", "ALAW" -> new SampleForm(1, Law.A_LAW, true);
            default -> null;
        };
        if (form == null || form.bytes() < 1 || form.law() == Law.SIGNED && form.bytes() > 4) {
            throw new UnusableSound(String.format(
                    Locale.ROOT,
                    "%s holds sound of a kind that cannot be read ('%s', %d bit): export it as plain AIFF or WAV.",
                    source.name(),
                    kind.replaceAll("[^\\x20-\\x7e]", "?"),
                    bits));
        }
        return form;
    }

    /** IEEE 754 extended number of 80 bits, big-endian. */
    private static double extended(byte[] b, int from) {
        int exponent = (int) Chunks.number(b, from, 2, true) & 0x7fff;
        long mantissa = Chunks.number(b, from + 2, 8, true);
        double m = (mantissa >>> 1) * 2.0 + (mantissa & 1);
        return m * Math.pow(2, exponent - 16383 - 63);
    }
}
