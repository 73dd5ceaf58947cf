package nightreed.cli;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import nightreed.files.OutputFile;
import nightreed.files.Shown;
import nightreed.files.Written;
import picocli.CommandLine.Option;

/** Looks at the files that a command will write before it begins its work. */
final class Results {
    @Option(names = "--force", description = "Replaces files that are there already, also those of other programs.")
    boolean force;

    /**
     * @param out    null or "-" for none
     * @param inputs what the command reads, which is never written over
     * @throws IOException if it cannot be written, is one of the inputs, or holds the work of another program
     */
    void check(Path out, List<Path> inputs) throws IOException {
        if (out == null || out.toString().equals("-")) {
            return;
        }
        for (Path in : inputs) {
            if (in != null && Files.exists(in) && Files.exists(out) && Files.isSameFile(in, out)) {
                throw new IOException(
                        Shown.of(out) + " is read by this command and not written over: choose another name.");
            }
        }
        OutputFile.check(out);
        if (!force && Written.byAnother(out)) {
            throw new IOException(
                    Shown.of(out)
                            + " is there and was not written by Night Reed: choose another name, or add --force to replace it.");
        }
    }
}
