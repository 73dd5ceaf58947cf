package nightreed.files;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.regex.Pattern;

/** Tells what this program has written from what another has, so that nobody's work is replaced unasked. */
public final class Written {
    /** Name of the program, as its WAV files bear it. */
    public static final String PROGRAM = "Night Reed";

    private static final int LOOKED_AT = 4096;

    /** How the JSON and CSV files of this program begin; names of others would have to be the same by chance. */
    private static final Pattern OURS =
            Pattern.compile("^\\s*\\{\\s*\"(schema\" : \"(measurement|recipe|patch|arithmetic|machine)-\\d"
                    + "|totalJnd\" : |method\" : \"(resonators|fm|ring|formant|string|subtractive)\")"
                    + "|^name,frequency_hz,");

    private Written() {}

    /** Whether a file is there and its contents are of another program. Empty files are nobody's. */
    public static boolean byAnother(Path file) throws IOException {
        if (!Files.isRegularFile(file) || Files.size(file) == 0) {
            return false;
        }
        try (FileChannel c = FileChannel.open(file)) {
            String head = part(c, 0);
            String tail = part(c, Math.max(0, c.size() - LOOKED_AT));
            boolean wav = head.startsWith("RIFF") && tail.contains("ISFT") && tail.contains(PROGRAM);
            return !wav && !head.contains(PROGRAM) && !OURS.matcher(head).find();
        }
    }

    private static String part(FileChannel c, long from) throws IOException {
        ByteBuffer b = ByteBuffer.allocate(LOOKED_AT);
        c.read(b, from);
        return new String(b.array(), 0, b.position(), StandardCharsets.ISO_8859_1);
    }
}
