package nightreed.sound;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.AccessDeniedException;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.ReadOnlyFileSystemException;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.util.UUID;

/** Files that are either written whole or left as they were. */
public final class SafeFiles {
    private SafeFiles() {}

    public static void write(Path file, String text) throws IOException {
        write(file, text.getBytes(StandardCharsets.UTF_8));
    }

    /**
     * Writes beside the target and moves into place, so that a full disk never leaves half a file.
     *
     * @throws IOException whose message says what, where and what to do
     */
    public static void write(Path file, byte[] bytes) throws IOException {
        Path target = file.toAbsolutePath();
        Path folder = target.getParent();
        Path part = null;
        try {
            Files.createDirectories(folder);
            part = folder.resolve(".night-reed-" + UUID.randomUUID() + ".part");
            Files.write(part, bytes, StandardOpenOption.CREATE_NEW);
            Files.move(part, target, StandardCopyOption.REPLACE_EXISTING);
        } catch (FileSystemException | ReadOnlyFileSystemException e) {
            discard(part);
            String why = e instanceof AccessDeniedException || e instanceof ReadOnlyFileSystemException
                    ? "the folder may not be written"
                    : reason((FileSystemException) e);
            throw new IOException(
                    target.getFileName() + " was not written to " + folder + ": " + why + "; choose another folder.",
                    e);
        } catch (IOException e) {
            discard(part);
            throw new IOException(
                    target.getFileName() + " was not written to " + folder + ": " + e.getMessage()
                            + "; free some space or choose another folder.",
                    e);
        }
    }

    private static String reason(FileSystemException e) {
        return e.getReason() == null ? "a file stands where a folder is needed, or the disk refuses" : e.getReason();
    }

    private static void discard(Path part) {
        if (part != null) {
            part.toFile().delete();
        }
    }
}
