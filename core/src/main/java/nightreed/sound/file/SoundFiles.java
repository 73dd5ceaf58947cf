package nightreed.sound.file;

import java.io.EOFException;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.AccessDeniedException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.function.DoubleConsumer;
import nightreed.files.Shown;
import nightreed.sound.Clip;
import nightreed.sound.UnusableSound;

/** Recorded sound from files of every common kind, told by their first bytes, whatever their names end in. */
public final class SoundFiles {
    /** Name endings of the kinds that can be read, for file choosers. */
    public static final List<String> ENDINGS =
            List.of("wav", "wave", "rf64", "aif", "aiff", "aifc", "flac", "ogg", "oga", "mp3");

    /** Longest recording that is taken in whole [s]: notes, not sessions. Of longer ones, a span can be read. */
    public static final double LONGEST_SECONDS = 300;

    /** Most samples over all channels that are held: 128 MB. */
    private static final long MOST_SAMPLES = 1L << 25;

    private static final int BLOCK = 1 << 14;
    private static final double STRETCH_SECONDS = 0.01;

    private SoundFiles() {}

    /** A clip as read, and what its reader had to put up with, in a sentence for the user (null if nothing). */
    public record Loaded(Clip clip, SoundFormat format, String warning) {}

    /**
     * Reads a whole file.
     *
     * @throws UnusableSound if it is missing, of no known kind, damaged, empty, longer than {@link #LONGEST_SECONDS}, or
     *     holds values that are not numbers; the message says what, where and what to do
     */
    public static Loaded read(Path file) throws UnusableSound {
        return guarded(file, (source, dog) -> load(source, dog, 0, Double.POSITIVE_INFINITY));
    }

    /** Reads the part of a file between two times [s]; it may be part of a file of any length. */
    public static Loaded read(Path file, double from, double to) throws UnusableSound {
        return guarded(file, (source, dog) -> load(source, dog, from, to));
    }

    /** Reads a file held in memory, such as one stored in a project. */
    public static Loaded read(byte[] bytes, String name) throws UnusableSound {
        return guarded(Source.of(bytes, name), (source, dog) -> load(source, dog, 0, Double.POSITIVE_INFINITY));
    }

    /** What a file says about itself, without reading its samples. */
    public static SoundFormat format(Path file) throws UnusableSound {
        return guarded(file, (source, dog) -> {
            try (SoundReader reader = open(source, dog)) {
                return reader.format();
            }
        });
    }

    /**
     * Looks through a file of any length without holding it.
     *
     * @param watcher told the seconds read so far; may throw to stop
     */
    public static Outline outline(Path file, DoubleConsumer watcher) throws UnusableSound {
        return guarded(file, (source, dog) -> {
            try (SoundReader reader = open(source, dog)) {
                return outline(reader, watcher);
            }
        });
    }

    private static Outline outline(SoundReader reader, DoubleConsumer watcher) throws IOException {
        SoundFormat format = reader.format();
        int stretch = Math.max(1, (int) Math.round(STRETCH_SECONDS * format.sampleRateHz()));
        float[][] block = new float[format.channels()][stretch];
        float[] peaks = new float[1024];
        int n = 0;
        int filled = 0;
        while (true) {
            int got = reader.read(block, stretch - filled);
            if (got == 0) {
                break;
            }
            if (n == peaks.length) {
                peaks = Arrays.copyOf(peaks, 2 * n);
            }
            for (float[] channel : block) {
                for (int i = 0; i < got; i++) {
                    peaks[n] = Math.max(peaks[n], Math.abs(channel[i]));
                }
            }
            filled += got;
            if (filled >= stretch) {
                filled = 0;
                n++;
                if (n % 100 == 0) {
                    watcher.accept(n * STRETCH_SECONDS);
                }
            }
        }
        return new Outline(
                format, (double) stretch / format.sampleRateHz(), Arrays.copyOf(peaks, n + (filled > 0 ? 1 : 0)));
    }

    private static Loaded load(Source source, Watchdog dog, double from, double to) throws UnusableSound, IOException {
        try (SoundReader reader = open(source, dog)) {
            SoundFormat f = reader.format();
            boolean whole = from <= 0 && Double.isInfinite(to);
            double seconds = Math.min(to, Double.isNaN(f.seconds()) ? to : f.seconds()) - from;
            double longest = longestSeconds(f);
            if (seconds > longest && !Double.isInfinite(seconds)) {
                throw tooLong(source, seconds, longest);
            }
            long skip = Math.round(from * f.sampleRateHz());
            if (skip > 0 && reader.skip(skip) < skip) {
                throw new UnusableSound(String.format(
                        Locale.ROOT, "%s ends before %.1f s: choose an earlier span.", source.name(), from));
            }
            long most = Math.round(Math.min(whole ? longest : to - from, longest) * f.sampleRateHz());
            float[][] samples = collect(reader, source, most, whole);
            List<String> warnings = reader.warnings();
            String warning = warnings.isEmpty() ? null : source.name() + " " + String.join("; it ", warnings) + ".";
            return new Loaded(new Clip(samples, f.sampleRateHz()), f, warning);
        }
    }

    /** What of a format is taken in at once [s]. */
    private static double longestSeconds(SoundFormat f) {
        return Math.min(LONGEST_SECONDS, (double) MOST_SAMPLES / f.channels() / f.sampleRateHz());
    }

    /** Samples up to a number per channel; more than that is too long if the whole file was asked for. */
    private static float[][] collect(SoundReader reader, Source source, long most, boolean whole)
            throws UnusableSound, IOException {
        SoundFormat f = reader.format();
        float[][] out = new float[f.channels()][(int) Math.min(most, f.frames() < 0 ? 1 << 16 : f.frames())];
        float[][] block = new float[f.channels()][BLOCK];
        int n = 0;
        while (n < most) {
            int got = reader.read(block, (int) Math.min(BLOCK, most - n));
            if (got == 0) {
                break;
            }
            for (int c = 0; c < out.length; c++) {
                if (n + got > out[c].length) {
                    out[c] = Arrays.copyOf(out[c], (int) Math.min(most, Math.max(n + got, 2L * out[c].length)));
                }
                for (int i = 0; i < got; i++) {
                    if (!Float.isFinite(block[c][i])) {
                        throw new UnusableSound(source.name() + " holds a value that is not a number at sample "
                                + (n + i) + ": the file is damaged, export it again.");
                    }
                }
                System.arraycopy(block[c], 0, out[c], n, got);
            }
            n += got;
        }
        if (n == 0) {
            throw new UnusableSound(source.name() + " holds no samples: export the recording again.");
        }
        if (whole && n == most && reader.read(block, 1) > 0) {
            throw tooLong(source, Double.NaN, longestSeconds(f));
        }
        for (int c = 0; c < out.length; c++) {
            out[c] = out[c].length == n ? out[c] : Arrays.copyOf(out[c], n);
        }
        return out;
    }

    private static UnusableSound tooLong(Source source, double seconds, double longest) {
        return new UnusableSound(String.format(
                Locale.ROOT,
                "%s lasts %s; up to %s of it are taken in: cut the note out first, or choose a span of it (in the window, or"
                        + " with --from and --to).",
                source.name(),
                Double.isNaN(seconds) ? "too long" : clock(seconds),
                clock(longest)));
    }

    private static String clock(double seconds) {
        long s = Math.round(seconds);
        return s >= 3600
                ? String.format(Locale.ROOT, "%d h %02d min", s / 3600, s % 3600 / 60)
                : s % 60 == 0 ? s / 60 + " min" : String.format(Locale.ROOT, "%d min %02d s", s / 60, s % 60);
    }

    private static SoundReader open(Source source, Watchdog dog) throws UnusableSound, IOException {
        byte[] magic = new byte[12];
        try (InputStream in = source.from(0)) {
            int got = in.readNBytes(magic, 0, magic.length);
            if (got < magic.length) {
                throw unknown(source);
            }
        }
        if (WavHeader.starts(magic)) {
            return dog.watched(new PcmReader(source, WavHeader.read(source, magic)));
        }
        if (AiffHeader.starts(magic)) {
            return dog.watched(new PcmReader(source, AiffHeader.read(source, magic)));
        }
        if (isPacked(magic)) {
            return dog.watched(packed(source, Chunks.letters(magic, 0)));
        }
        throw unknown(source);
    }

    /** Whether a decoder that others wrote has to read it. */
    private static boolean isPacked(byte[] magic) {
        String four = Chunks.letters(magic, 0);
        boolean mpeg = (magic[0] & 0xff) == 0xff && (magic[1] & 0xe0) == 0xe0 && (magic[1] & 0x06) != 0;
        return mpeg || four.startsWith("ID3") || four.equals("fLaC") || four.equals("OggS");
    }

    private static SoundReader packed(Source source, String four) throws UnusableSound, IOException {
        return switch (four) {
            case "fLaC" -> new FlacReader(source);
            case "OggS" -> new VorbisReader(source);
            default -> new Mp3Reader(source);
        };
    }

    private static UnusableSound unknown(Source source) {
        return new UnusableSound(source.name() + " is not a sound file that can be read (it starts with other bytes):"
                + " choose a WAV, AIFF, FLAC, Ogg Vorbis or MP3 file, or convert it to one.");
    }

    /** Refuses rates and channel counts that no recording has. */
    static void check(Source source, int rateHz, int channels) throws UnusableSound {
        if (channels < 1 || channels > 256) {
            throw new UnusableSound(
                    source.name() + " says it has " + channels + " channels; 1 to 256 can be used: export it again.");
        }
        if (rateHz < 8000 || rateHz > 192_000) {
            throw new UnusableSound(source.name() + " says it has " + rateHz
                    + " samples a second; 8000 to 192000 can be used: export it again.");
        }
    }

    static UnusableSound damaged(Source source, String how) {
        return new UnusableSound(
                source.name() + " has a damaged header (" + how + "): export the recording again as WAV.");
    }

    /** Warning about a file that holds less than it announces [s]. */
    static String cutShort(double announced, double there) {
        return String.format(
                Locale.ROOT,
                "is cut short: it announces %.2f s and holds %.2f s; what is there is used",
                announced,
                there);
    }

    private interface Work<T> {
        T on(Source source, Watchdog dog) throws UnusableSound, IOException;
    }

    private static <T> T guarded(Path file, Work<T> work) throws UnusableSound {
        String name = Shown.of(file.getFileName() == null ? file : file.getFileName());
        try {
            if (Files.isDirectory(file)) {
                throw new UnusableSound(name + " is a folder: choose a sound file in it.");
            }
            if (Files.exists(file) && !Files.isRegularFile(file)) {
                throw new UnusableSound(name + " is a pipe or a device and no file: save the sound as a file first.");
            }
            if (Files.size(file) == 0) {
                throw new UnusableSound(name + " is empty (0 bytes): export or copy the recording again.");
            }
            return guarded(Source.of(file), work);
        } catch (NoSuchFileException e) {
            throw new UnusableSound("There is no file " + Shown.of(file) + ": check the name and the folder.", e);
        } catch (AccessDeniedException e) {
            throw new UnusableSound(name + " may not be read: change its permissions or copy it elsewhere.", e);
        } catch (IOException e) {
            throw new UnusableSound(name + " could not be read (" + e.getMessage() + "): copy it to a local disk.", e);
        }
    }

    private static <T> T guarded(Source source, Work<T> work) throws UnusableSound {
        try {
            Watchdog dog = new Watchdog();
            return dog.run(source, watched -> work.on(watched, dog));
        } catch (EOFException e) {
            throw new UnusableSound(source.name() + " ends within its header: copy or export it again.", e);
        } catch (NoSuchFileException | AccessDeniedException e) {
            throw new UnusableSound(source.name() + " can no longer be read: check that its disk is still there.", e);
        } catch (IOException | RuntimeException | OutOfMemoryError e) {
            // decoders meet damage with exceptions of all kinds, and may ask for room that a damaged number names
            stopIfWanted(e);
            throw new UnusableSound(
                    source.name() + " is damaged and cannot be read: export the recording again as WAV.", e);
        }
    }

    private static void stopIfWanted(Throwable e) {
        if (e instanceof java.util.concurrent.CancellationException stop) {
            throw stop;
        }
    }

    /** Whether a file's name looks like sound that can be read; its first bytes decide in the end. */
    public static boolean looksLikeSound(Path file) {
        String name = String.valueOf(file.getFileName()).toLowerCase(Locale.ROOT);
        return ENDINGS.stream().anyMatch(e -> name.endsWith("." + e));
    }
}
