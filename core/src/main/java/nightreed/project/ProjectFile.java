package nightreed.project;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.json.JsonMapper;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import nightreed.measure.Measurement;
import nightreed.recipe.Recipe;
import nightreed.recipe.RecipeJson;
import nightreed.recipe.ResonatorRecipe;
import nightreed.recipe.UnusableRecipe;
import nightreed.sound.Clip;
import nightreed.sound.UnusableSound;
import nightreed.sound.WavFiles;
import nightreed.sound.file.SoundFiles;

/**
 * An open project. Every call that changes something has committed it to disk when it returns, so that a crash loses at
 * most the edit in flight. One thread at a time.
 */
public final class ProjectFile implements AutoCloseable {
    /** File name ending of projects. */
    public static final String ENDING = ".nightreed";

    /** Marks the file as ours for tools that look at SQLite headers ("NRED"). */
    private static final int APPLICATION_ID = 0x4E524544;

    private static final int VERSION = 1;
    private static final byte[] SQLITE = "SQLite format 3\0".getBytes(StandardCharsets.ISO_8859_1);

    /** Each statement of version 1 of the schema. */
    private static final List<String> SCHEMA = List.of(
            "create table project(name text not null)",
            "create table imitation(id integer primary key, name text not null, head integer)",
            "create table recording(id integer primary key, name text not null, wav blob not null, measurement text)",
            "create table edit(id integer primary key, imitation integer not null references imitation(id),"
                    + " label text not null, at text not null, recording integer references recording(id),"
                    + " recipe text, fitted text, note text not null)",
            "create table take(id integer primary key, imitation integer not null references imitation(id),"
                    + " name text not null, note text not null, at text not null, total_jnd real not null,"
                    + " recipe text not null)");

    private final Path path;
    private final Connection db;
    private final ObjectMapper mapper = JsonMapper.builder().build();

    private ProjectFile(Path path, Connection db) {
        this.path = path;
        this.db = db;
    }

    /**
     * Creates a project with no imitation in it.
     *
     * @throws UnusableProject if there is a file of that name already, or the folder cannot be written
     */
    public static ProjectFile create(Path path, String name) throws UnusableProject {
        if (Files.exists(path)) {
            throw new UnusableProject(path + " exists already: open it, or choose another name.");
        }
        ProjectFile p = connect(path, "cannot be created");
        try {
            p.settle();
            p.inTransaction(() -> {
                try (Statement s = p.db.createStatement()) {
                    for (String table : SCHEMA) {
                        s.execute(table);
                    }
                    s.execute("pragma application_id = " + APPLICATION_ID);
                    s.execute("pragma user_version = " + VERSION);
                }
                try (PreparedStatement s = p.prepare("insert into project values (?)", name)) {
                    s.executeUpdate();
                }
                return null;
            });
        } catch (UnusableProject e) {
            p.close();
            throw e;
        }
        return p;
    }

    /** @throws UnusableProject if the file is missing, is no project, is damaged or comes from a newer version */
    public static ProjectFile open(Path path) throws UnusableProject {
        String name = String.valueOf(path.getFileName());
        if (!Files.isRegularFile(path)) {
            throw new UnusableProject("There is no project " + path + ": check the name and the folder.");
        }
        byte[] head;
        try (InputStream in = Files.newInputStream(path)) {
            head = in.readNBytes(SQLITE.length);
        } catch (IOException e) {
            throw new UnusableProject(name + " may not be read: change its permissions or copy it elsewhere.", e);
        }
        if (!Arrays.equals(head, SQLITE)) {
            throw new UnusableProject(name + " is not a Night Reed project (it holds something else): choose a file"
                    + " ending in " + ENDING + ".");
        }
        ProjectFile p = connect(path, "cannot be opened");
        try {
            p.verify(name); // before anything is written, so that a damaged file stays as it is
            p.settle();
        } catch (UnusableProject e) {
            p.close();
            throw e;
        }
        return p;
    }

    private static ProjectFile connect(Path path, String failing) throws UnusableProject {
        try {
            Connection c = DriverManager.getConnection("jdbc:sqlite:" + path.toAbsolutePath());
            return new ProjectFile(path, c);
        } catch (SQLException e) {
            throw new UnusableProject(
                    path + " " + failing + " (" + firstLine(e) + "): check the folder and its permissions, or choose"
                            + " another.",
                    e);
        }
    }

    /** Durable and quick: a commit is on disk when it returns, readers never wait. */
    private void settle() throws UnusableProject {
        try (Statement s = db.createStatement()) {
            s.execute("pragma journal_mode = wal");
            s.execute("pragma synchronous = full");
            s.execute("pragma foreign_keys = on");
            s.execute("pragma busy_timeout = 2000");
        } catch (SQLException e) {
            throw failed("cannot be written", e);
        }
    }

    private void verify(String name) throws UnusableProject {
        try (Statement s = db.createStatement()) {
            int application = number(s, "pragma application_id");
            int version = number(s, "pragma user_version");
            if (application != APPLICATION_ID) {
                throw new UnusableProject(name + " is a database, but not a Night Reed project: choose a file ending"
                        + " in " + ENDING + ".");
            }
            if (version > VERSION) {
                throw new UnusableProject(name + " was written by a newer version of Night Reed (schema " + version
                        + ", this one knows " + VERSION + "): update Night Reed.");
            }
            try (ResultSet r = s.executeQuery("pragma quick_check")) {
                if (!r.next() || !r.getString(1).equals("ok")) {
                    throw new UnusableProject(name + " is damaged: copy your last backup over it. The damaged file was"
                            + " left as it is.");
                }
            }
        } catch (SQLException e) {
            throw new UnusableProject(
                    name + " is damaged (" + firstLine(e) + "): copy your last backup over it. The damaged file was"
                            + " left as it is.",
                    e);
        }
    }

    private static int number(Statement s, String pragma) throws SQLException {
        try (ResultSet r = s.executeQuery(pragma)) {
            return r.next() ? r.getInt(1) : 0;
        }
    }

    public Path path() {
        return path;
    }

    public String name() throws UnusableProject {
        return query("select name from project", r -> r.getString(1)).stream()
                .findFirst()
                .orElse("");
    }

    public List<Imitation> imitations() throws UnusableProject {
        return query("select id, name from imitation order by id", r -> new Imitation(r.getLong(1), r.getString(2)));
    }

    public Imitation addImitation(String name) throws UnusableProject {
        long id = inTransaction(() -> {
            long row = insert("insert into imitation(name) values (?)", name);
            appendEdit(row, "new imitation", Snapshot.EMPTY);
            return row;
        });
        return new Imitation(id, name);
    }

    /** Gives an imitation another name. @return it under that name */
    public Imitation rename(Imitation imitation, String name) throws UnusableProject {
        inTransaction(() -> {
            try (PreparedStatement s = prepare("update imitation set name = ? where id = ?", name, imitation.id())) {
                return s.executeUpdate();
            }
        });
        return new Imitation(imitation.id(), name);
    }

    /** Stores a recording; it belongs to no imitation until an edit names it. */
    public long addRecording(String name, Clip clip, Measurement measurement) throws UnusableProject {
        byte[] wav = WavFiles.encode(clip, WavFiles.Format.FLOAT32);
        String json = measurement == null ? null : write(measurement);
        return inTransaction(
                () -> insert("insert into recording(name, wav, measurement) values (?, ?, ?)", name, wav, json));
    }

    public Recording recording(long id) throws UnusableProject {
        List<Recording> found = query(
                "select name, wav, measurement from recording where id = ?",
                r -> {
                    String name = r.getString(1);
                    try {
                        String json = r.getString(3);
                        Measurement m = json == null ? null : mapper.readValue(json, Measurement.class);
                        return new Recording(
                                id, name, SoundFiles.read(r.getBytes(2), name).clip(), m);
                    } catch (UnusableSound | JsonProcessingException e) {
                        throw new SQLException("recording '" + name + "' is damaged: " + e.getMessage(), e);
                    }
                },
                id);
        if (found.isEmpty()) {
            throw new UnusableProject("The project holds no recording " + id + ".");
        }
        return found.get(0);
    }

    /** What the imitation is now. */
    public Snapshot now(Imitation imitation) throws UnusableProject {
        return query(
                        "select e.recording, e.recipe, e.fitted, e.note from edit e join imitation i on i.head = e.id"
                                + " where i.id = ?",
                        this::snapshot,
                        imitation.id())
                .stream()
                .findFirst()
                .orElse(Snapshot.EMPTY);
    }

    /** Commits an edit. What had been undone before it can no longer be redone. */
    public void commit(Imitation imitation, String label, Snapshot snapshot) throws UnusableProject {
        inTransaction(() -> {
            try (PreparedStatement s = prepare(
                    "delete from edit where imitation = ? and id > (select head from imitation where id = ?)",
                    imitation.id(),
                    imitation.id())) {
                s.executeUpdate();
            }
            appendEdit(imitation.id(), label, snapshot);
            return null;
        });
    }

    /** Name of the edit that undo would take back. */
    public Optional<String> undoLabel(Imitation imitation) throws UnusableProject {
        return previous(imitation).isEmpty() ? Optional.empty() : label("e.id = i.head", imitation);
    }

    /** Name of the edit that redo would bring back. */
    public Optional<String> redoLabel(Imitation imitation) throws UnusableProject {
        return label("e.imitation = i.id and e.id > i.head", imitation);
    }

    private Optional<String> label(String which, Imitation imitation) throws UnusableProject {
        return query(
                        "select e.label from edit e, imitation i where i.id = ? and " + which
                                + " order by e.id limit 1",
                        r -> r.getString(1),
                        imitation.id())
                .stream()
                .findFirst();
    }

    /** Steps back; nothing happens at the beginning. */
    public Snapshot undo(Imitation imitation) throws UnusableProject {
        return moveHead(imitation, previous(imitation));
    }

    /** Steps forward again; nothing happens at the end. */
    public Snapshot redo(Imitation imitation) throws UnusableProject {
        return moveHead(imitation, neighbour(imitation, "e.id > i.head order by e.id"));
    }

    private Snapshot moveHead(Imitation imitation, Optional<Long> head) throws UnusableProject {
        if (head.isPresent()) {
            inTransaction(() -> {
                try (PreparedStatement s =
                        prepare("update imitation set head = ? where id = ?", head.get(), imitation.id())) {
                    s.executeUpdate();
                }
                return null;
            });
        }
        return now(imitation);
    }

    private Optional<Long> previous(Imitation imitation) throws UnusableProject {
        return neighbour(imitation, "e.id < i.head order by e.id desc");
    }

    private Optional<Long> neighbour(Imitation imitation, String which) throws UnusableProject {
        return query(
                        "select e.id from edit e, imitation i where i.id = ? and e.imitation = i.id and " + which
                                + " limit 1",
                        r -> r.getLong(1),
                        imitation.id())
                .stream()
                .findFirst();
    }

    public void addTake(Imitation imitation, String name, String note, double totalJnd, ResonatorRecipe recipe)
            throws UnusableProject {
        inTransaction(() -> insert(
                "insert into take(imitation, name, note, at, total_jnd, recipe) values (?, ?, ?, ?, ?, ?)",
                imitation.id(),
                name,
                note,
                timestamp(),
                totalJnd,
                RecipeJson.text(recipe)));
    }

    /** Takes of an imitation, the oldest first. */
    public List<Take> takes(Imitation imitation) throws UnusableProject {
        return query(
                "select id, name, note, at, total_jnd, recipe from take where imitation = ? order by id",
                r -> new Take(
                        r.getLong(1),
                        r.getString(2),
                        r.getString(3),
                        r.getString(4),
                        r.getDouble(5),
                        recipe(r.getString(6))),
                imitation.id());
    }

    private void appendEdit(long imitation, String label, Snapshot s) throws SQLException {
        long id = insert(
                "insert into edit(imitation, label, at, recording, recipe, fitted, note) values (?, ?, ?, ?, ?, ?, ?)",
                imitation,
                label,
                timestamp(),
                s.recordingId(),
                s.recipe() == null ? null : RecipeJson.text(s.recipe()),
                s.fitted() == null ? null : RecipeJson.text(s.fitted()),
                s.note());
        try (PreparedStatement u = prepare("update imitation set head = ? where id = ?", id, imitation)) {
            u.executeUpdate();
        }
    }

    private Snapshot snapshot(ResultSet r) throws SQLException {
        long recording = r.getLong(1);
        Long id = r.wasNull() ? null : (Long) recording;
        return new Snapshot(id, recipe(r.getString(2)), recipe(r.getString(3)), r.getString(4));
    }

    private static ResonatorRecipe recipe(String json) throws SQLException {
        if (json == null) {
            return null;
        }
        try {
            Recipe r = RecipeJson.parse(json, "a stored recipe");
            return (ResonatorRecipe) r;
        } catch (UnusableRecipe e) {
            throw new SQLException(e.getMessage(), e);
        }
    }

    private String write(Measurement m) throws UnusableProject {
        try {
            return mapper.writeValueAsString(m);
        } catch (JsonProcessingException e) {
            throw new UnusableProject("The measurement could not be stored: " + e.getOriginalMessage(), e);
        }
    }

    private static String timestamp() {
        return Instant.now().truncatedTo(ChronoUnit.MILLIS).toString();
    }

    private interface Work<T> {
        T run() throws SQLException;
    }

    private interface Row<T> {
        T of(ResultSet r) throws SQLException;
    }

    private <T> T inTransaction(Work<T> work) throws UnusableProject {
        try {
            db.setAutoCommit(false);
            try {
                T result = work.run();
                db.commit();
                return result;
            } catch (SQLException e) {
                db.rollback();
                throw e;
            } finally {
                db.setAutoCommit(true);
            }
        } catch (SQLException e) {
            throw failed("could not be written", e);
        }
    }

    private <T> List<T> query(String sql, Row<T> row, Object... values) throws UnusableProject {
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

    private UnusableProject failed(String what, SQLException e) {
        String cause = String.valueOf(e.getMessage()).toLowerCase(Locale.ROOT);
        String advice = cause.contains("full")
                ? "the disk is full: free some space and repeat the last step"
                : cause.contains("readonly") || cause.contains("read-only")
                        ? "the file may not be written: change its permissions, or save a copy elsewhere"
                        : cause.contains("locked") || cause.contains("busy")
                                ? "another window has it open: close that one"
                                : firstLine(e);
        return new UnusableProject("The project " + path.getFileName() + " " + what + ": " + advice + ".", e);
    }

    private static String firstLine(SQLException e) {
        return String.valueOf(e.getMessage()).lines().findFirst().orElse("no reason given");
    }

    private long insert(String sql, Object... values) throws SQLException {
        try (PreparedStatement s = prepare(sql, values)) {
            s.executeUpdate();
        }
        try (Statement s = db.createStatement();
                ResultSet r = s.executeQuery("select last_insert_rowid()")) {
            return r.getLong(1);
        }
    }

    private PreparedStatement prepare(String sql, Object... values) throws SQLException {
        PreparedStatement s = db.prepareStatement(sql);
        for (int i = 0; i < values.length; i++) {
            s.setObject(i + 1, values[i]);
        }
        return s;
    }

    @Override
    public void close() {
        try {
            db.close();
        } catch (SQLException e) {
            // all edits are committed; a file that cannot be closed is still whole
            org.slf4j.LoggerFactory.getLogger(ProjectFile.class).warn("closing {}", path, e);
        }
    }
}
