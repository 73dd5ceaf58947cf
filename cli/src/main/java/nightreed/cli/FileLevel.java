package nightreed.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.Arrays;
import nightreed.recipe.Patch;
import nightreed.sound.Clip;
import nightreed.sound.TruePeak;
import nightreed.sound.WavFiles;
import nightreed.voice.PlayingLevel;
import picocli.CommandLine.Option;

/** How loud a sound stands in its file, and in what form: options that several commands share. */
final class FileLevel {
    /** What the samples are multiplied by. */
    enum Level {
        AS_PLAYED("as-played"),
        MATCH("match"),
        PEAK("peak");

        private final String word;

        Level(String word) {
            this.word = word;
        }

        @Override
        public String toString() {
            return word;
        }
    }

    @Option(
            names = "--level",
            paramLabel = "LEVEL",
            converter = LevelConverter.class,
            description = "as-played: as loud as in the window, strengths as they are to one another (the usual);"
                    + " match: as loud as the recording; peak: up to -1 dBTP.")
    Level level = Level.AS_PLAYED;

    @Option(names = "--float", description = "32-bit float samples, which nothing can clip, in place of 24 bits.")
    boolean floats;

    /** Takes one of the words. */
    static final class LevelConverter implements picocli.CommandLine.ITypeConverter<Level> {
        @Override
        public Level convert(String value) {
            return Arrays.stream(Level.values())
                    .filter(l -> l.word.equals(value))
                    .findFirst()
                    .orElseThrow(() -> new picocli.CommandLine.TypeConversionException(
                            "'" + value + "' is none of as-played, match, peak"));
        }
    }

    /**
     * Writes a sound; what would be cut off is held back, and that is said.
     *
     * @param clip  as loud as the recording that the patch imitates
     * @param patch what plays it
     */
    void write(Clip clip, Patch patch, Path out, PrintWriter err) throws IOException {
        double db = switch (level) {
            case AS_PLAYED -> PlayingLevel.gainDb(patch);
            case MATCH -> 0;
            case PEAK -> clip.peak() == 0 ? 0 : PlayingLevel.CEILING_DB - TruePeak.db(clip);
        };
        Clip loud = db == 0 ? clip : clip.scaled(Math.pow(10, db / 20));
        if (floats) {
            WavFiles.write(loud, WavFiles.Format.FLOAT32, out);
            return;
        }
        PlayingLevel.Safe safe = PlayingLevel.safe(loud);
        if (!safe.words().isEmpty() && level != Level.PEAK) {
            err.println(safe.words());
        }
        WavFiles.write(safe.clip(), WavFiles.Format.PCM24, out);
    }
}
