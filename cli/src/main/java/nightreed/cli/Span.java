package nightreed.cli;

import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.Locale;
import nightreed.files.Shown;
import nightreed.sound.Clip;
import nightreed.sound.UnusableSound;
import nightreed.sound.file.SoundFiles;
import picocli.CommandLine.Option;

/** The part of a recording that a command works on. */
final class Span {
    /**
     * Longest that is measured at once, in samples of one channel: two minutes at 96 kHz. Measuring takes some 60 bytes for
     * each, so that this fits into the memory that the launcher gives.
     */
    private static final long MOST_SAMPLES = 120L * 96_000;

    @Option(names = "--from", paramLabel = "S", description = "Begins at this time of the recording [s]; 0 by default.")
    double from;

    @Option(
            names = "--to",
            paramLabel = "S",
            description = "Ends at this time of the recording [s]; its end by default.")
    double to = Double.POSITIVE_INFINITY;

    /** Reads it and says on standard error what its reader had to put up with. */
    Clip read(Path file, PrintWriter err) throws UnusableSound {
        if (!(from >= 0 && to > from)) {
            throw new UnusableSound("--from " + from + " and --to " + to + " are no span: --to must be later.");
        }
        boolean all = from == 0 && Double.isInfinite(to);
        SoundFiles.Loaded loaded = all ? SoundFiles.read(file) : SoundFiles.read(file, from, to);
        if (loaded.warning() != null) {
            err.println(loaded.warning());
        }
        Clip clip = loaded.clip();
        if (clip.length() > MOST_SAMPLES) {
            throw new UnusableSound(String.format(
                    Locale.ROOT,
                    "%s lasts %.0f s; up to %.0f s of it are measured at once: give a span with --from and --to.",
                    Shown.of(file.getFileName()),
                    (double) clip.length() / clip.sampleRateHz(),
                    (double) MOST_SAMPLES / clip.sampleRateHz()));
        }
        return clip;
    }
}
