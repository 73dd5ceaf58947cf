package nightreed.cli;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import picocli.CommandLine.IVersionProvider;

/** The version of the program, which stands in the build's description only. */
public final class ProgramVersion implements IVersionProvider {
    /** Such as 0.1.0. */
    public static String number() {
        try (InputStream in = ProgramVersion.class.getResourceAsStream("version.txt")) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8).strip();
        } catch (IOException e) {
            return "unknown";
        }
    }

    @Override
    public String[] getVersion() {
        return new String[] {"Night Reed " + number()};
    }
}
