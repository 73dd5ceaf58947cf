package nightreed.sound.file;

import java.io.EOFException;
import java.io.IOException;
import java.io.InputStream;
import java.util.function.Predicate;

/**
 * Walks the chunks of a RIFF or FORM file: four letters, four bytes of size, the bytes, one more if their number is odd.
 */
final class Chunks implements AutoCloseable {
    /** Files that come apart into more chunks than this are damaged. */
    private static final int MOST = 4096;

    private final InputStream in;
    private final long size;
    private final boolean bigEndian;
    private final Predicate<String> known;
    private long at;
    private int count;

    /** @param id four letters @param at first byte of the contents @param size announced number of bytes */
    record Chunk(String id, long at, long size) {}

    /**
     * @param first first byte after the file's own header
     * @param known ids that are believed where a writer may have left the odd byte out
     */
    Chunks(Source source, long first, boolean bigEndian, Predicate<String> known) throws IOException {
        this.in = source.from(first);
        this.size = source.size();
        this.bigEndian = bigEndian;
        this.known = known;
        this.at = first;
    }

    /** Next chunk, or null at the end of the file or of all sense. The stream stands at its first byte. */
    Chunk next(Chunk before) throws IOException {
        if (before != null) {
            long end = before.at + before.size;
            if (end > size || end < at) {
                return null;
            }
            in.skipNBytes(end - at);
            at = end;
            if ((before.size & 1) == 1 && !atKnown()) {
                if (at >= size) {
                    return null;
                }
                in.skipNBytes(1);
                at++;
            }
        }
        if (at + 8 > size || ++count > MOST) {
            return null;
        }
        byte[] head = bytes(8);
        String id = letters(head, 0);
        long n = number(head, 4, 4, bigEndian);
        return new Chunk(id, at, n);
    }

    /** Whether a chunk of a known kind starts right here, where a padding byte should be. */
    private boolean atKnown() throws IOException {
        in.mark(8);
        byte[] four = in.readNBytes(4);
        in.reset();
        return four.length == 4 && known.test(letters(four, 0));
    }

    /** Reads bytes of the chunk the stream stands in. */
    byte[] bytes(int n) throws IOException {
        byte[] b = in.readNBytes(n);
        at += b.length;
        if (b.length < n) {
            throw new EOFException("the file ends within its header");
        }
        return b;
    }

    static String letters(byte[] b, int from) {
        return new String(b, from, 4, java.nio.charset.StandardCharsets.ISO_8859_1);
    }

    /** Unsigned number of up to 8 bytes. */
    static long number(byte[] b, int from, int bytes, boolean bigEndian) {
        long v = 0;
        for (int k = 0; k < bytes; k++) {
            v = v << 8 | b[bigEndian ? from + k : from + bytes - 1 - k] & 0xff;
        }
        return v;
    }

    @Override
    public void close() throws IOException {
        in.close();
    }
}
