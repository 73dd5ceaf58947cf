package nightreed.files;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.AccessDeniedException;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.NotDirectoryException;
import java.nio.file.Path;
import java.nio.file.ReadOnlyFileSystemException;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.PosixFileAttributeView;
import java.util.UUID;

/**
 * Files that are either written whole or left as they were. A link is written through, a mode is kept, pipes and devices are
 * written into as they are; a folder is never replaced.
 */
public final class OutputFile {
    private static final int MOST_LINKS = 40; // as the system has it

    private OutputFile() {}

    public static void write(Path file, String text) throws IOException {
        write(file, text.getBytes(StandardCharsets.UTF_8));
    }

    /**
     * Writes beside the target and moves into place, so that a full disk never leaves half a file.
     *
     * @throws IOException whose message says what, where and what to do
     */
    public static void write(Path file, byte[] bytes) throws IOException {
        Path target = checked(file);
        Path part = null;
        try {
            if (Files.exists(target) && !Files.isRegularFile(target)) { // a pipe or a device
                try (OutputStream out = Files.newOutputStream(target, StandardOpenOption.WRITE)) {
                    out.write(bytes);
                }
                return;
            }
            Files.createDirectories(target.getParent());
            part = target.resolveSibling(".night-reed-" + UUID.randomUUID() + ".part");
            Files.write(part, bytes, StandardOpenOption.CREATE_NEW);
            try (FileChannel c = FileChannel.open(part, StandardOpenOption.WRITE)) {
                c.force(true);
            }
            keepMode(target, part);
            Files.move(part, target, StandardCopyOption.REPLACE_EXISTING, StandardCopyOption.ATOMIC_MOVE);
        } catch (IOException | ReadOnlyFileSystemException e) {
            discard(part);
            throw refused(target, e);
        }
    }

    /**
     * Whether a file can be written, as far as that can be told before; nothing is left behind.
     *
     * @throws IOException if not; the message says what, where and what to do
     */
    public static void check(Path file) throws IOException {
        Path target = checked(file);
        Path folder = target.getParent();
        while (folder != null && !Files.exists(folder)) { // it will be made
            folder = folder.getParent();
        }
        if (Files.exists(target) && !Files.isRegularFile(target)) {
            return;
        }
        if (folder == null || !Files.isDirectory(folder)) {
            throw refused(target, new NotDirectoryException(String.valueOf(folder)));
        }
        try {
            Files.delete(Files.createTempFile(folder, ".night-reed-", ".part"));
        } catch (IOException | ReadOnlyFileSystemException e) {
            throw refused(target, e);
        }
    }

    /** Where a file really lies, once it is known to be one. */
    private static Path checked(Path file) throws IOException {
        Path target = file.toAbsolutePath();
        for (int i = 0; Files.isSymbolicLink(target); i++) {
            if (i == MOST_LINKS) {
                throw new IOException(Shown.of(file) + " is a link that leads in a circle: choose another name.");
            }
            target = target.resolveSibling(Files.readSymbolicLink(target)).normalize();
        }
        if (target.getFileName() == null || Files.isDirectory(target)) {
            throw new IOException(Shown.of(file) + " is a folder: give the name of a file in it.");
        }
        if (Files.isRegularFile(target) && !Files.isWritable(target)) {
            throw new IOException(Shown.of(file)
                    + " is there and may not be written: change its permissions or choose another name.");
        }
        return target;
    }

    private static void keepMode(Path target, Path part) throws IOException {
        PosixFileAttributeView view =
                Files.getFileAttributeView(target, PosixFileAttributeView.class, LinkOption.NOFOLLOW_LINKS);
        if (view != null && Files.exists(target)) {
            Files.setPosixFilePermissions(part, view.readAttributes().permissions());
        }
    }

    private static IOException refused(Path target, Exception e) {
        String why;
        String what = "choose another folder";
        if (e instanceof AccessDeniedException || e instanceof ReadOnlyFileSystemException) {
            why = "the folder may not be written";
        } else if (e instanceof NotDirectoryException || e instanceof FileAlreadyExistsException) {
            why = "a file stands where a folder is needed";
        } else if (e instanceof FileSystemException f) {
            why = f.getReason() == null ? "a file stands where a folder is needed, or the disk refuses" : f.getReason();
            what = "free some space or choose another folder";
        } else {
            why = e.getMessage();
            what = "free some space or choose another folder";
        }
        return new IOException(
                Shown.of(target.getFileName()) + " was not written to " + Shown.of(target.getParent()) + ": " + why
                        + "; " + what + ".",
                e);
    }

    private static void discard(Path part) {
        if (part != null) {
            part.toFile().delete();
        }
    }
}
