package nightreed.project;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;

/**
 * One SQLite file, held by one window at a time: whoever opens it first has it until it is closed or its process dies.
 * Every failure becomes a message for people. One thread at a time.
 */
final class Database implements AutoCloseable {
    /** Primary result codes of SQLite (sqlite3.h). */
    private static final int PERMISSION = 3;

    private static final int BUSY = 5;
    private static final int LOCKED = 6;
    private static final int READONLY = 8;
    private static final int IO_ERROR = 10;
    private static final int FULL = 13;

    private final Path path;
    private Connection db;

    private Database(Path path, Connection db) {
        this.path = path;
        this.db = db;
    }

    static Database connect(Path path, String failing) throws UnusableProject {
        try {
            return new Database(path, connection(path));
        } catch (SQLException e) {
            throw new UnusableProject(
                    path + " " + failing + " (" + firstLine(e) + "): check the folder and its permissions, or choose"
                            + " another.",
                    e);
        }
    }

    private static Connection connection(Path path) throws SQLException {
        Connection c = DriverManager.getConnection("jdbc:sqlite:" + path.toAbsolutePath());
        try (Statement s = c.createStatement()) {
            s.execute("pragma busy_timeout = 500");
            s.execute("pragma locking_mode = exclusive");
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
        T run() throws SQLException;
    }

    /** One row of an answer. */
    interface Row<T> {
        T of(ResultSet r) throws SQLException;
    }

    <T> T inTransaction(Work<T> work) throws UnusableProject {
        if (!Files.exists(path)) {
            putBack();
        }
        try {
            execute("begin immediate");
            try {
                T result = work.run();
                execute("commit");
                return result;
            } catch (SQLException e) {
                rollBack(e);
                throw e;
            }
        } catch (SQLException e) {
            throw failed("could not be written", e);
        }
    }

    /** A full disk ends a transaction by itself, and then there is nothing left to roll back. */
    private void rollBack(SQLException why) {
        try {
            execute("rollback");
        } catch (SQLException nothingLeft) {
            why.addSuppressed(nothingLeft);
        }
    }

    /** The file was deleted or moved away under us; all of it is still held open, so it is written again. */
    private void putBack() throws UnusableProject {
        try {
            for (String beside : List.of("-wal", "-shm", "-journal")) {
                Files.deleteIfExists(path.resolveSibling(path.getFileName() + beside));
            }
            copyTo(path);
            Connection again = connection(path);
            settle(again);
            Connection old = db;
            db = again;
            old.close();
        } catch (SQLException | IOException e) {
            throw new UnusableProject(
                    path
                            + " is gone and cannot be written again: bring its folder or disk back, or save a copy elsewhere."
                            + " What you see is still there.",
                    e);
        }
    }

    /** Writes all of it, compact, to a file that does not exist. */
    void copyTo(Path target) throws SQLException {
        try (PreparedStatement s = db.prepareStatement("vacuum into ?")) {
            s.setString(1, target.toAbsolutePath().toString());
            s.execute();
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
        String advice = switch (primary(e)) {
            case FULL -> "the disk is full: free some space";
            case READONLY, PERMISSION ->
                "the file may not be written: change its permissions, or save a copy" + " elsewhere";
            case BUSY, LOCKED -> "another window has it open: close that one";
            case IO_ERROR ->
                "the disk did not take it (" + firstLine(e) + "): check the disk, or save a copy" + " elsewhere";
            default -> firstLine(e);
        };
        return new UnusableProject("The project " + path.getFileName() + " " + what + ": " + advice + ".", e);
    }

    static boolean isBusy(SQLException e) {
        int code = primary(e);
        return code == BUSY || code == LOCKED;
    }

    /** SQLite's primary result code, without what extends it. */
    private static int primary(SQLException e) {
        return e.getErrorCode() & 0xff;
    }

    static String firstLine(SQLException e) {
        return String.valueOf(e.getMessage()).lines().findFirst().orElse("no reason given");
    }

    @Override
    public void close() {
        try {
            db.close();
        } catch (SQLException e) {
            // all edits are committed; a file that cannot be closed is still whole
            org.slf4j.LoggerFactory.getLogger(Database.class).warn("closing {}", path, e);
        }
    }
}
