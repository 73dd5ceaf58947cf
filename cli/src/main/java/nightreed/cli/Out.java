package nightreed.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import nightreed.files.OutputFile;
import nightreed.sound.Clip;
import nightreed.sound.UnusableSound;
import nightreed.sound.file.SoundFiles;
import nightreed.work.Progress;

/** What commands share in reading and writing. */
final class Out {
    private Out() {}

    /** Writes text to a file, or to standard output for "-". */
    static void text(Path file, String text, PrintWriter standardOut) throws IOException {
        if (file.toString().equals("-")) {
            standardOut.println(text.stripTrailing());
            standardOut.flush();
        } else {
            OutputFile.write(file, text);
        }
    }

    /** Reads a sound and says on standard error what its reader had to put up with. */
    static Clip read(Path file, PrintWriter err) throws UnusableSound {
        SoundFiles.Loaded loaded = SoundFiles.read(file);
        if (loaded.warning() != null) {
            err.println(loaded.warning());
        }
        return loaded.clip();
    }

    /** Progress for people at a terminal; silent in scripts. */
    @SuppressWarnings(
            "SystemConsoleNull") // newer JDKs are started with -Djdk.console=java.base, where null still tells
    static Progress progress(PrintWriter err) {
        if (System.console() == null) {
            return Progress.NONE;
        }
        return (fraction, doing) -> {
            err.printf("\r%3.0f %%  %-60s", 100 * fraction, doing);
            if (fraction >= 1) {
                err.printf("\r%70s\r", "");
            }
            err.flush();
        };
    }
}
