package nightreed.project;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.SQLException;
import java.util.Arrays;
import nightreed.files.Shown;

/**
 * The log of edits beside a project that is not open yet; a window leaves one when it is killed. Looks whether file and log belong
 * together, and sets a log aside that does not; nothing is thrown away.
 */
final class WriteAheadLog {
    private static final byte[] SQLITE = "SQLite format 3\0".getBytes(StandardCharsets.ISO_8859_1);
    private static final int JOURNAL_MODE_AT = 18; // byte of the head: 2 if edits go to a log
    private static final int LOG_MODE = 2;

    private final Path project;
    private final ProjectLock lock;
    private String remark;

    /** @param lock held for as long as this is used */
    WriteAheadLog(Path project, ProjectLock lock) {
        this.project = project;
        this.lock = lock;
    }

    Path file() {
        return beside("-wal");
    }

    /** What was done, for people; null for nothing. */
    String remark() {
        return remark;
    }

    private Path beside(String ending) {
        return project.resolveSibling(project.getFileName() + ending);
    }

    /** @return version of the tables, once file and log are known to be whole and to belong together */
    int checkedVersion() throws UnusableProject {
        boolean logMode = head();
        try {
            if (logMode && Files.exists(beside("-journal"))) { // of another file: ours never have one
                setAside("-journal");
            }
            if (!isLogThere()) {
                Files.deleteIfExists(file());
                return checked(false);
            }
            if (!lock.marks().isEmpty() && !lock.marks().contains(markOfFileAlone())) {
                setAside("-wal");
                return checked(false);
            }
            return withLogOrWithout();
        } catch (SQLException e) {
            throw Database.failed(project, "could not be read", e);
        } catch (IOException e) {
            throw new UnusableProject(
                    Shown.of(project.getFileName()) + " cannot be read (" + e.getMessage()
                            + "): check its folder and disk.",
                    e);
        }
    }

    private boolean isLogThere() throws IOException {
        return Files.exists(file()) && Files.size(file()) > 0;
    }

    /** @return whether the file says that edits go to a log */
    private boolean head() throws UnusableProject {
        String name = Shown.of(project.getFileName());
        try (InputStream in = Files.newInputStream(project)) {
            byte[] head = in.readNBytes(JOURNAL_MODE_AT + 1);
            if (head.length <= JOURNAL_MODE_AT || !Arrays.equals(head, 0, SQLITE.length, SQLITE, 0, SQLITE.length)) {
                throw new UnusableProject(name + " is not a Night Reed project (it holds something else): choose a file"
                        + " ending in " + ProjectFile.ENDING + ".");
            }
            return head[JOURNAL_MODE_AT] == LOG_MODE;
        } catch (IOException e) {
            throw new UnusableProject(name + " may not be read: change its permissions or copy it elsewhere.", e);
        }
    }

    /** A log of which nothing is known: if the file makes sense only without it, it is not the file's. */
    private int withLogOrWithout() throws UnusableProject, SQLException, IOException {
        try {
            return checked(true);
        } catch (SQLException | UnusableProject with) {
            if (with instanceof SQLException e && !Database.isDamage(e)) {
                throw with;
            }
            int version;
            try {
                version = checked(false);
            } catch (SQLException | UnusableProject without) {
                with.addSuppressed(without);
                throw with;
            }
            setAside("-wal");
            return version;
        }
    }

    private int checked(boolean withLog) throws UnusableProject, SQLException {
        try (Connection c = withLog ? Database.readOnly(project) : Database.withoutLog(project)) {
            return Contents.version(project, c);
        }
    }

    private String markOfFileAlone() throws SQLException {
        try (Connection c = Database.withoutLog(project)) {
            return Contents.mark(c);
        }
    }

    private void setAside(String ending) throws IOException {
        Path aside = beside(ending + ".aside");
        for (int n = 2; Files.exists(aside); n++) {
            aside = beside(ending + ".aside" + n);
        }
        Files.move(beside(ending), aside);
        Files.deleteIfExists(beside("-shm"));
        remark = Shown.of(project.getFileName())
                + " is not the file that was open here last: it was replaced, by a backup"
                + " perhaps. Edits that belong to the other one were set aside as " + Shown.of(aside.getFileName())
                + ".";
    }
}
