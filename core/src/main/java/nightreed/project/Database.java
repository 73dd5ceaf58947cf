package nightreed.project;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.BasicFileAttributes;
import java.nio.file.attribute.FileTime;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.UUID;
import nightreed.files.Shown;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.sqlite.SQLiteConfig;
import org.sqlite.SQLiteConnection;
import org.sqlite.SQLiteLimits;

/**
 * One SQLite file, held by one window at a time: whoever opens it first has it until it is closed or its process dies.
 * Every failure becomes a message for people. One thread at a time.
 *
 * <p>Edits go to a log beside the file (SQLite's write-ahead log), which is carried over into the file at times. The file bears
 * a mark that changes with each of those times, and the lock beside it names the mark that the log belongs to. So a log is
 * never applied to another file, such as a backup that was copied to its place; and before each commit it is seen whether the file is
 * still the one that was opened.
 */
final class Database implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(Database.class);

    /** Primary result codes of SQLite (sqlite3.h). */
    private static final int PERMISSION = 3;

    private static final int BUSY = 5;
    private static final int LOCKED = 6;
    private static final int READONLY = 8;
    private static final int INTERRUPTED = 9;
    private static final int IO_ERROR = 10;
    private static final int CORRUPT = 11;
    private static final int FULL = 13;
    private static final int CANNOT_OPEN = 14;
    private static final int TOO_BIG = 18;
    private static final int NO_DATABASE = 26;

    /** A log longer than this is carried over after a commit [bytes]. Chosen. */
    private static final long LONG_LOG = 16L << 20;

    /** Largest text or recording [bytes]: more than ten minutes of stereo at 96 kHz, which no recording may have. */
    private static final int LARGEST_VALUE = 512 << 20;

    private static final int HEAD = 100; // bytes at the start of an SQLite file, which say in what state it is

    private final Path path;
    private final ProjectLock lock;
    private Connection db;
    private FileState state; // of the file after this process has last changed it; null until it has

    private Database(Path path, ProjectLock lock, Connection db) {
        this.path = path;
        this.lock = lock;
        this.db = db;
    }

    /** What tells one file, and one state of it, from another. */
    private record FileState(Object key, long size, FileTime changed, List<Byte> head) {
        static FileState of(Path path) throws IOException {
            BasicFileAttributes a = Files.readAttributes(path, BasicFileAttributes.class);
            return new FileState(a.fileKey(), a.size(), a.lastModifiedTime(), head(path));
        }

        /** Reads the file: only where it has to be. */
        private static List<Byte> head(Path path) throws IOException {
            List<Byte> out = new ArrayList<>();
            try (InputStream in = Files.newInputStream(path)) {
                for (byte b : in.readNBytes(HEAD)) {
                    out.add(b);
                }
            }
            return out;
        }

        boolean isStill(Path path) throws IOException {
            BasicFileAttributes a = Files.readAttributes(path, BasicFileAttributes.class);
            if (!Objects.equals(a.fileKey(), key) || a.size() != size) {
                return false;
            }
            return a.lastModifiedTime().equals(changed) || head(path).equals(head); // touched, but not written
        }
    }

    /**
     * Opens a file that this process has taken.
     *
     * @param path real path
     * @param lock released if that fails
     */
    static Database connect(Path path, ProjectLock lock) throws UnusableProject {
        try {
            return new Database(path, lock, connection(path, false));
        } catch (SQLException e) {
            lock.release(Files.exists(log(path)));
            throw failed(path, "could not be opened", e);
        }
    }

    /** Of a file and the log beside it, without changing either. */
    static Connection readOnly(Path path) throws SQLException {
        return connection(path, true);
    }

    /** Of a file alone, as if there were no log. */
    static Connection withoutLog(Path path) throws SQLException {
        SQLiteConfig config = new SQLiteConfig();
        config.setReadOnly(true);
        return DriverManager.getConnection("jdbc:sqlite:" + path.toUri() + "?immutable=1", config.toProperties());
    }

    private static Connection connection(Path path, boolean readOnly) throws SQLException {
        SQLiteConfig config = new SQLiteConfig();
        config.setReadOnly(readOnly);
        Connection c = DriverManager.getConnection("jdbc:sqlite:" + path.toAbsolutePath(), config.toProperties());
        try (Statement s = c.createStatement()) {
            s.execute("pragma busy_timeout = 500");
            if (!readOnly) {
                s.execute("pragma locking_mode = exclusive");
            }
            s.execute("pragma trusted_schema = off");
            s.execute("pragma wal_autocheckpoint = 0"); // see carryOver
            ((SQLiteConnection) c).setLimit(SQLiteLimits.SQLITE_LIMIT_LENGTH, LARGEST_VALUE);
        } catch (SQLException | RuntimeException e) {
            c.close();
            throw e;
        }
        return c;
    }

    /** Durable and quick: a commit is on disk when it returns. */
    void settle() throws UnusableProject {
        try {
            settle(db);
        } catch (SQLException e) {
            throw failed("cannot be written", e);
        }
    }

    private static void settle(Connection c) throws SQLException {
        try (Statement s = c.createStatement()) {
            s.execute("pragma journal_mode = wal");
            s.execute("pragma synchronous = full");
            s.execute("pragma foreign_keys = on");
        }
    }

    Connection connection() {
        return db;
    }

    /** Something to do in the database. */
    interface Work<T> {
        T run() throws SQLException, UnusableProject;
    }

    /** One row of an answer. */
    interface Row<T> {
        T of(ResultSet r) throws SQLException;
    }

    <T> T inTransaction(Work<T> work) throws UnusableProject {
        refuseIfReplaced();
        if (!Files.exists(path)) {
            putBack();
        }
        try {
            T result = committed(work);
            shortenLog();
            return result;
        } catch (SQLException e) {
            throw failed("could not be written", e);
        }
    }

    /** Carries a long log over. The edit before is on the disk already: that the log stays long is no failure of it. */
    private void shortenLog() {
        try {
            if (state != null && Files.exists(log(path)) && Files.size(log(path)) > LONG_LOG) {
                carryOver();
            }
        } catch (IOException | UnusableProject e) {
            LOG.warn("the log of {} stays long", path, e);
        }
    }

    private <T> T committed(Work<T> work) throws SQLException, UnusableProject {
        execute("begin immediate");
        try {
            T result = work.run();
            execute("commit");
            return result;
        } catch (SQLException
                | UnusableProject
                | RuntimeException
                | Error e) { // nothing half done may stay, whatever went wrong
            rollBack(e);
            throw e;
        }
    }

    /** A full disk ends a transaction by itself, and then there is nothing left to roll back. */
    private void rollBack(Throwable why) {
        try {
            execute("rollback");
        } catch (SQLException nothingLeft) {
            why.addSuppressed(nothingLeft);
        }
    }

    private static Path log(Path path) {
        return path.resolveSibling(path.getFileName() + "-wal");
    }

    /**
     * Carries the log over into the file, which gets a new mark. Until that is done the log may belong to a file with the old
     * mark or the new.
     */
    void carryOver() throws UnusableProject {
        refuseIfReplaced();
        try {
            String old = Contents.mark(db);
            String next = UUID.randomUUID().toString();
            List<String> either = new ArrayList<>(lock.marks());
            either.addAll(List.of(old, next));
            lock.expect(either);
            committed(() -> {
                execute("delete from mark");
                execute("pragma user_version = " + Schema.VERSION); // so that the head of the file changes too
                return update("insert into mark values (?)", next);
            });
            boolean all;
            try {
                all = isLogCarriedOver();
            } finally {
                state = FileState.of(path); // a part may have been, even where the disk then refused
            }
            if (all) {
                lock.expect(List.of(next));
            }
        } catch (SQLException e) {
            throw failed("could not be written", e);
        } catch (IOException e) {
            throw failed("could not be written", new SQLException(e.getMessage(), "", IO_ERROR));
        }
    }

    /** @return whether all of the log is in the file now; if not, it goes on belonging to the old mark too */
    private boolean isLogCarriedOver() throws SQLException {
        try (Statement s = db.createStatement();
                ResultSet r = s.executeQuery("pragma wal_checkpoint(truncate)")) {
            return r.next() && r.getInt(1) == 0; // 1 if something was in the way
        }
    }

    private boolean isReplaced() {
        try {
            return state != null && Files.exists(path) && !state.isStill(path);
        } catch (IOException e) {
            return false; // the commit itself will tell
        }
    }

    private void refuseIfReplaced() throws UnusableProject {
        if (isReplaced()) {
            throw new UnusableProject(
                    "The file " + path + " was replaced by another while it was open. Nothing is written"
                            + " into that one: save a copy under another name to keep what you see here.");
        }
    }

    /** The file was deleted or moved away under us; all of it is still held open, so it is written again. */
    private void putBack() throws UnusableProject {
        try {
            for (Path beside : ProjectLock.beside(path)) {
                Files.deleteIfExists(beside);
            }
            copyTo(path);
            Connection again = connection(path, false);
            Connection old = db;
            db = again;
            old.close(); // before the new one begins its log, which has the same name
            settle(again);
            state = FileState.of(path);
            lock.expect(List.of(Contents.mark(db)));
        } catch (SQLException | IOException e) {
            throw new UnusableProject(
                    path
                            + " is gone and cannot be written again: bring its folder or disk back, or save a copy elsewhere."
                            + " What you see is still there.",
                    e);
        }
    }

    /** Writes all of it, compact, to a file that does not exist. It gets a mark of its own: the log here is not the copy's. */
    void copyTo(Path target) throws SQLException {
        try (PreparedStatement s = db.prepareStatement("vacuum into ?")) {
            s.setString(1, target.toAbsolutePath().toString());
            s.execute();
        }
        try (Connection copy = DriverManager.getConnection("jdbc:sqlite:" + target.toAbsolutePath());
                Statement s = copy.createStatement()) {
            if (!Contents.mark(copy).equals("-")) {
                s.execute("update mark set text = '" + UUID.randomUUID() + "'");
            }
        }
    }

    void execute(String sql) throws SQLException {
        try (Statement s = db.createStatement()) {
            s.execute(sql);
        }
    }

    <T> List<T> query(String sql, Row<T> row, Object... values) throws UnusableProject {
        try (PreparedStatement s = prepare(sql, values);
                ResultSet r = s.executeQuery()) {
            List<T> out = new ArrayList<>();
            while (r.next()) {
                out.add(row.of(r));
            }
            return out;
        } catch (SQLException e) {
            throw failed("could not be read", e);
        }
    }

    /** @return id of the new row */
    long insert(String sql, Object... values) throws SQLException {
        update(sql, values);
        try (Statement s = db.createStatement();
                ResultSet r = s.executeQuery("select last_insert_rowid()")) {
            return r.getLong(1);
        }
    }

    /** @return rows changed */
    int update(String sql, Object... values) throws SQLException {
        try (PreparedStatement s = prepare(sql, values)) {
            return s.executeUpdate();
        }
    }

    private PreparedStatement prepare(String sql, Object... values) throws SQLException {
        PreparedStatement s = db.prepareStatement(sql);
        for (int i = 0; i < values.length; i++) {
            s.setObject(i + 1, values[i]);
        }
        return s;
    }

    UnusableProject failed(String what, SQLException e) {
        return failed(path, what, e);
    }

    /** What went wrong and what to do, by SQLite's code. */
    static UnusableProject failed(Path path, String what, SQLException e) {
        String name = Shown.of(path.getFileName());
        String advice = switch (primary(e)) {
            case FULL -> "the disk is full: free some space";
            case READONLY, PERMISSION ->
                "the file or its folder may not be written: change the permissions, or save a copy elsewhere";
            case CANNOT_OPEN ->
                "the file, or what is written beside it, cannot be opened: check the folder " + path.getParent()
                        + " and its permissions";
            case BUSY, LOCKED -> "another window has it open: close that one";
            case IO_ERROR ->
                "the disk did not take it (" + firstLine(e) + "): check the disk, or save a copy elsewhere";
            case TOO_BIG -> "a value in it is larger than " + (LARGEST_VALUE >> 20) + " MB, which none of ours is";
            case INTERRUPTED -> "it was stopped";
            case CORRUPT, NO_DATABASE -> null;
            default -> firstLine(e);
        };
        if (advice == null) {
            return Contents.damaged(name, firstLine(e), e);
        }
        return new UnusableProject("The project " + name + " " + what + ": " + advice + ".", e);
    }

    /** SQLite's primary result code, without what extends it. */
    private static int primary(SQLException e) {
        return e.getErrorCode() & 0xff;
    }

    /** Whether the file itself makes no sense. */
    static boolean isDamage(SQLException e) {
        return primary(e) == CORRUPT || primary(e) == NO_DATABASE;
    }

    static String firstLine(SQLException e) {
        return String.valueOf(e.getMessage()).lines().findFirst().orElse("no reason given");
    }

    @Override
    public void close() {
        if (isReplaced()) {
            return; // closing would carry the log over into the other file; what holds this one ends with the process
        }
        try {
            db.close();
        } catch (SQLException e) {
            // all edits are committed; a file that cannot be closed is still whole
            LOG.warn("closing {}", path, e);
        }
        lock.release(Files.exists(log(path)));
    }
}
