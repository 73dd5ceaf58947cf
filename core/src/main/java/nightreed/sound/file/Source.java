package nightreed.sound.file;

import java.io.BufferedInputStream;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import nightreed.files.Shown;

/**
 * Bytes that can be read from the start as often as needed.
 *
 * @param name what to call them in messages
 */
record Source(String name, long size, Opener opener) {
    /** Opens the bytes. */
    interface Opener {
        InputStream open() throws IOException;
    }

    static Source of(Path file) throws IOException {
        return new Source(Shown.of(file.getFileName()), Files.size(file), () -> Files.newInputStream(file));
    }

    static Source of(byte[] bytes, String name) {
        return new Source(name, bytes.length, () -> new ByteArrayInputStream(bytes));
    }

    /** A buffered stream that starts at a byte. */
    InputStream from(long at) throws IOException {
        InputStream in = opener.open();
        try {
            in.skipNBytes(at);
        } catch (IOException e) {
            in.close();
            throw e;
        }
        return new BufferedInputStream(in, 1 << 16);
    }
}
