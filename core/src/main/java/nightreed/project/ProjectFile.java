package nightreed.project;

import com.fasterxml.jackson.core.JsonProcessingException;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.sql.SQLException;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import nightreed.claim.ClaimJson;
import nightreed.files.Shown;
import nightreed.match.compare.Comparison;
import nightreed.match.frontier.Frontier;
import nightreed.match.hearing.AspectWeights;
import nightreed.measure.ManualCorrections;
import nightreed.measure.Measurement;
import nightreed.recipe.Patch;
import nightreed.recipe.Recipe;
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

    private final Path path;
    private final Database db;
    private final String remark;
    private final Imitation.Opening opening = new Imitation.Opening();
    private final StoredValues stored = new StoredValues();

    private ProjectFile(Path path, Database db, String remark) {
        this.path = path;
        this.db = db;
        this.remark = remark;
    }

    /**
     * Creates a project with no imitation in it.
     *
     * @throws UnusableProject if there is a file of that name already, or the folder cannot be written
     */
    public static ProjectFile create(Path path, String name) throws UnusableProject {
        if (Files.exists(path, LinkOption.NOFOLLOW_LINKS)) {
            throw new UnusableProject(Shown.of(path) + " exists already: open it, or choose another name.");
        }
        Path real;
        try {
            Path folder = path.toAbsolutePath().getParent();
            real = folder.toRealPath().resolve(path.getFileName());
        } catch (IOException | RuntimeException e) {
            throw new UnusableProject(Shown.of(path) + " cannot be created: check that its folder exists.", e);
        }
        ProjectLock lock = ProjectLock.take(real);
        Database db = Database.connect(real, lock);
        try {
            db.settle();
            db.inTransaction(() -> {
                Schema.bringUp(db.connection(), 0);
                return db.update("insert into project values (?)", name);
            });
            db.carryOver();
        } catch (UnusableProject e) {
            db.close();
            throw e;
        }
        return new ProjectFile(real, db, null);
    }

    /**
     * Opens a project for this process alone. One of an older version is brought up to date; what it was is kept beside it. Nothing
     * is written before all of it has been looked at.
     *
     * @throws UnusableProject if the file is missing, is no project, is damaged, is open elsewhere or here, may not be written
     *     or comes from a newer version
     */
    public static ProjectFile open(Path path) throws UnusableProject {
        String name = Shown.of(path.getFileName());
        if (!Files.isRegularFile(path)) {
            throw new UnusableProject("There is no project " + Shown.of(path) + ": check the name and the folder.");
        }
        Path real;
        try {
            real = path.toRealPath();
        } catch (IOException e) {
            throw new UnusableProject(name + " cannot be found: check the name and the folder.", e);
        }
        if (!Files.isReadable(real)) {
            throw new UnusableProject(name + " may not be read: change its permissions or copy it elsewhere.");
        }
        if (!Files.isWritable(real)) {
            throw new UnusableProject(name + " may not be written: change its permissions, or open a copy of it.");
        }
        ProjectLock lock =
                ProjectLock.take(real); // first: whoever has it open loses SQLite's locks by a look at its head
        WriteAheadLog log = new WriteAheadLog(real, lock);
        int version;
        try {
            version = log.checkedVersion();
        } catch (UnusableProject e) {
            lock.release(Files.exists(log.file()));
            throw e;
        }
        Database db = Database.connect(real, lock);
        ProjectFile p = new ProjectFile(real, db, log.remark());
        try {
            db.settle();
            if (version < Schema.VERSION) {
                p.migrate(version);
            }
            db.carryOver();
        } catch (UnusableProject e) {
            db.close();
            throw e;
        }
        return p;
    }

    /** What whoever opened it should know, null for nothing. */
    public String remark() {
        return remark;
    }

    /** Whether a path leads to this file, by whatever name. */
    public boolean isAt(Path other) {
        try {
            return Files.exists(other) && Files.isSameFile(path, other);
        } catch (IOException e) {
            return path.equals(other.toAbsolutePath().normalize());
        }
    }

    private void migrate(int version) throws UnusableProject {
        Path backup = path.resolveSibling(path.getFileName() + ".schema" + version + ".backup");
        try {
            if (!Files.exists(backup)) {
                db.copyTo(backup);
            }
        } catch (SQLException e) {
            throw db.failed("could not be backed up before it is brought up to date", e);
        }
        db.inTransaction(() -> {
            Schema.bringUp(db.connection(), version);
            return null;
        });
    }

    /**
     * Writes a copy of the whole project, history included, and goes on with this one.
     *
     * @throws UnusableProject if there is a file of that name, or it cannot be written
     */
    public void saveCopy(Path target) throws UnusableProject {
        if (Files.exists(target)) {
            throw new UnusableProject(target + " exists already: choose another name.");
        }
        try {
            db.copyTo(target);
        } catch (SQLException e) {
            try {
                Files.deleteIfExists(target); // half a copy is worse than none
            } catch (IOException left) {
                e.addSuppressed(left);
            }
            throw new UnusableProject(
                    "No copy was written to " + target + " (" + Database.firstLine(e)
                            + "): free some space or choose another folder.",
                    e);
        }
    }

    /**
     * Gives back the room of recordings that no edit names any more, and of deleted history.
     *
     * @return bytes that the file shrank by
     */
    public long compact() throws UnusableProject {
        try {
            db.carryOver();
            long before = Files.size(path);
            String named = "(select recording from edit where recording is not null)";
            db.inTransaction(() -> {
                db.update("delete from frontier where recording not in " + named);
                return db.update("delete from recording where id not in " + named);
            });
            db.execute("vacuum");
            db.carryOver();
            return before - Files.size(path);
        } catch (SQLException e) {
            throw db.failed("could not be made smaller", e);
        } catch (IOException e) {
            throw new UnusableProject("The project " + path + " could not be made smaller: check its disk.", e);
        }
    }

    public Path path() {
        return path;
    }

    public String name() throws UnusableProject {
        return db.query("select name from project", r -> r.getString(1)).stream()
                .findFirst()
                .orElse("");
    }

    public List<Imitation> imitations() throws UnusableProject {
        return db.query(
                "select id, name from imitation order by id",
                r -> new Imitation(r.getLong(1), r.getString(2), opening));
    }

    public Imitation addImitation(String name) throws UnusableProject {
        long id = db.inTransaction(() -> {
            long row = db.insert("insert into imitation(name) values (?)", name);
            appendEdit(row, "new imitation", Snapshot.EMPTY);
            return row;
        });
        return new Imitation(id, name, opening);
    }

    /** Gives an imitation another name. @return it under that name */
    public Imitation rename(Imitation imitation, String name) throws UnusableProject {
        db.inTransaction(() -> {
            return db.update("update imitation set name = ? where id = ?", name, row(imitation));
        });
        return new Imitation(row(imitation), name, opening);
    }

    /** Imitations whose recordings are kept together as notes of one instrument with that of one, this one among them. */
    public List<Imitation> family(Imitation imitation) throws UnusableProject {
        return db.query(
                "select id, name from imitation where id = ? or family = (select family from imitation where id = ?)"
                        + " order by id",
                r -> new Imitation(r.getLong(1), r.getString(2), opening),
                row(imitation),
                row(imitation));
    }

    /** Takes an imitation into the family of another, out of that in which it was. */
    public void keepTogether(Imitation imitation, Imitation other) throws UnusableProject {
        db.inTransaction(() -> {
            db.update("update imitation set family = id where id = ? and family is null", row(imitation));
            return db.update(
                    "update imitation set family = (select family from imitation where id = ?) where id = ?",
                    row(imitation),
                    row(other));
        });
    }

    /** Takes an imitation out of the family in which it is. */
    public void keepApart(Imitation imitation) throws UnusableProject {
        db.inTransaction(() -> db.update("update imitation set family = null where id = ?", row(imitation)));
    }

    /** Stores a recording; it belongs to no imitation until an edit names it. */
    public long addRecording(String name, Clip clip, Measurement measurement) throws UnusableProject {
        byte[] wav = WavFiles.encode(clip, WavFiles.Format.FLOAT32);
        String json = measurement == null ? null : stored.write(measurement);
        return db.inTransaction(
                () -> db.insert("insert into recording(name, wav, measurement) values (?, ?, ?)", name, wav, json));
    }

    public Recording recording(long id) throws UnusableProject {
        List<Recording> found = db.query(
                "select name, wav, measurement from recording where id = ?",
                r -> {
                    String name = r.getString(1);
                    try {
                        String json = r.getString(3);
                        Measurement m = json == null ? null : stored.measurement(json);
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

    /** Row of an imitation that this project gave out; what belongs to another project must not be written here. */
    private long row(Imitation imitation) throws UnusableProject {
        if (imitation.of() != opening) {
            throw new UnusableProject("'" + Shown.of(imitation.name()) + "' belongs to a project that is closed by now;"
                    + " nothing was written into this one.");
        }
        return imitation.id();
    }

    /** What the imitation is now. */
    public Snapshot now(Imitation imitation) throws UnusableProject {
        return db
                .query(
                        "select e.recording, e.recipe, e.fitted, e.note, e.hand, e.locked, e.marks, e.chosen, e.claims from edit e join imitation i on i.head = e.id"
                                + " where i.id = ?",
                        stored::snapshot,
                        row(imitation))
                .stream()
                .findFirst()
                .orElse(Snapshot.EMPTY);
    }

    /**
     * Writes something that changes nothing, by the way that an edit takes, so that the first edit does not have to wait for
     * what is only done once.
     */
    public void rehearse(Snapshot snapshot) throws UnusableProject {
        db.inTransaction(() -> {
            if (snapshot.recipe() != null) {
                StoredValues.text(snapshot.patch());
            }
            stored.text(snapshot.hand());
            return db.update("update project set name = name");
        });
    }

    /** Commits an edit. What had been undone before it can no longer be redone. */
    public void commit(Imitation imitation, String label, Snapshot snapshot) throws UnusableProject {
        db.inTransaction(() -> {
            db.update(
                    "delete from edit where imitation = ? and id > (select head from imitation where id = ?)",
                    row(imitation),
                    row(imitation));
            appendEdit(row(imitation), label, snapshot);
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
        return db
                .query(
                        "select e.label from edit e, imitation i where i.id = ? and " + which
                                + " order by e.id limit 1",
                        r -> r.getString(1),
                        row(imitation))
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
            db.inTransaction(() -> db.update("update imitation set head = ? where id = ?", head.get(), row(imitation)));
        }
        return now(imitation);
    }

    private Optional<Long> previous(Imitation imitation) throws UnusableProject {
        return neighbour(imitation, "e.id < i.head order by e.id desc");
    }

    private Optional<Long> neighbour(Imitation imitation, String which) throws UnusableProject {
        return db
                .query(
                        "select e.id from edit e, imitation i where i.id = ? and e.imitation = i.id and " + which
                                + " limit 1",
                        r -> r.getLong(1),
                        row(imitation))
                .stream()
                .findFirst();
    }

    /** @param comparison how close the recipe is to the recording */
    public void addTake(Imitation imitation, String name, String note, Comparison comparison, Recipe recipe)
            throws UnusableProject {
        addTake(imitation, name, note, comparison, Patch.of(recipe));
    }

    /** @param comparison how close the layers together are to the recording; null if there is none */
    public void addTake(Imitation imitation, String name, String note, Comparison comparison, Patch patch)
            throws UnusableProject {
        String picture = comparison == null ? null : stored.write(TakePicture.of(comparison));
        db.inTransaction(() -> db.insert(
                "insert into take(imitation, name, note, at, total_jnd, worst_aspect, worst_jnd, picture, recipe)"
                        + " values (?, ?, ?, ?, ?, ?, ?, ?, ?)",
                row(imitation),
                name,
                note,
                timestamp(),
                comparison == null ? Take.NOT_COMPARED : comparison.totalJnd(),
                comparison == null ? null : comparison.worst().title(),
                comparison == null ? null : comparison.worstJnd(),
                picture,
                StoredValues.text(patch)));
    }

    /**
     * Keeps the patches that fits found for an imitation, in place of earlier ones.
     *
     * @param recordingId recording they were fitted to, null for none
     */
    public void keepFrontier(Imitation imitation, Long recordingId, Frontier frontier) throws UnusableProject {
        String points = stored.text(frontier);
        db.inTransaction(() -> db.update(
                "insert or replace into frontier(imitation, recording, points) values (?, ?, ?)",
                row(imitation),
                recordingId,
                points));
    }

    /** Patches that were last kept for an imitation and a recording, if any were. */
    public Optional<Frontier> frontier(Imitation imitation, Long recordingId) throws UnusableProject {
        return db
                .query(
                        "select points from frontier where imitation = ? and recording is ?",
                        r -> stored.frontier(r.getString(1)),
                        row(imitation),
                        recordingId)
                .stream()
                .findFirst();
    }

    /** Takes of an imitation, the oldest first. */
    public List<Take> takes(Imitation imitation) throws UnusableProject {
        return db.query(
                "select id, name, note, at, total_jnd, worst_aspect, worst_jnd, picture, recipe from take"
                        + " where imitation = ? order by id",
                stored::take,
                row(imitation));
    }

    private void appendEdit(long imitation, String label, Snapshot s) throws SQLException {
        long id = db.insert(
                "insert into edit(imitation, label, at, recording, recipe, fitted, note, hand, locked, marks, chosen, claims)"
                        + " values (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)",
                imitation,
                label,
                timestamp(),
                s.recordingId(),
                s.patch() == null ? null : StoredValues.text(s.patch()),
                s.origin() == null ? null : StoredValues.text(s.origin()),
                s.note(),
                s.hand().equals(ManualCorrections.NONE) ? null : stored.text(s.hand()),
                s.locks().isEmpty() ? null : s.locks().stream().sorted().collect(Collectors.joining(" ")),
                s.marks().equals(AspectWeights.NONE) ? null : stored.text(s.marks()),
                s.chosen(),
                s.claims().isEmpty() ? null : ClaimJson.text(s.claims()));
        db.update("update imitation set head = ? where id = ?", id, imitation);
    }

    private static String timestamp() {
        return Instant.now().truncatedTo(ChronoUnit.MILLIS).toString();
    }

    @Override
    public void close() {
        db.close();
    }
}
