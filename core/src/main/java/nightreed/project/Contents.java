package nightreed.project;

import java.nio.file.Path;
import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import nightreed.files.Shown;

/**
 * Looks whether a file holds a project and nothing else, before anything of it is used or written. Nothing in it may run by
 * itself: triggers, views, virtual tables and computed columns are refused.
 */
final class Contents {
    /** Columns that every version has; later versions add some. */
    private static final Map<String, Set<String>> COLUMNS = Map.of(
            "project", Set.of("name"),
            "imitation", Set.of("id", "name", "head"),
            "recording", Set.of("id", "name", "wav", "measurement"),
            "edit", Set.of("id", "imitation", "label", "at", "recording", "recipe", "fitted", "note"),
            "take", Set.of("id", "imitation", "name", "note", "at", "total_jnd", "recipe"));

    /** Tables that later versions added. */
    private static final Set<String> LATER = Set.of("mark", "frontier");

    private final String name;
    private final Connection db;

    private Contents(Path path, Connection db) {
        this.name = Shown.of(path.getFileName());
        this.db = db;
    }

    /**
     * @return version of its tables
     * @throws UnusableProject if it is no project, one of a newer version, or damaged
     */
    static int version(Path path, Connection db) throws UnusableProject, SQLException {
        return new Contents(path, db).checked();
    }

    private int checked() throws UnusableProject, SQLException {
        if (!Schema.isOurs(db)) {
            throw new UnusableProject(name + " is a database, but not a Night Reed project: choose a file ending in "
                    + ProjectFile.ENDING + ".");
        }
        int version = Schema.version(db);
        if (version > Schema.VERSION) {
            throw new UnusableProject(name + " was written by a newer version of Night Reed (schema " + version
                    + ", this one knows " + Schema.VERSION + "): update Night Reed.");
        }
        if (version < 1) {
            throw damaged("its version is " + version);
        }
        if (!Schema.isWhole(db)) {
            throw damaged("some of its pages make no sense");
        }
        nothingActive();
        for (var table : COLUMNS.entrySet()) {
            columns(table.getKey(), table.getValue());
        }
        none(
                "select 1 from (select count(*) n from project where name is not null) where n != 1",
                "it has not one name");
        none("select 1 from imitation where name is null", "an imitation has no name");
        none(
                "select 1 from imitation i where i.head is not null and not exists"
                        + " (select 1 from edit e where e.id = i.head and e.imitation = i.id)",
                "the state of an imitation is missing");
        none(
                "select 1 from edit e where not exists (select 1 from imitation i where i.id = e.imitation)"
                        + " or e.recording is not null and not exists"
                        + " (select 1 from recording r where r.id = e.recording)",
                "what an edit belongs to is missing");
        none(
                "select 1 from take t where not exists (select 1 from imitation i where i.id = t.imitation)",
                "the imitation of a take is missing");
        return version;
    }

    private void nothingActive() throws SQLException, UnusableProject {
        for (String[] thing : rows("select type, name, coalesce(sql, '') from sqlite_master", 3)) {
            boolean known = thing[0].equals("table")
                    && (COLUMNS.containsKey(thing[1]) || LATER.contains(thing[1]) || thing[1].startsWith("sqlite_"));
            boolean plainIndex = thing[0].equals("index") && thing[2].isEmpty();
            if (!known && !plainIndex
                    || thing[2].toLowerCase(java.util.Locale.ROOT).startsWith("create virtual")) {
                throw new UnusableProject(name + " holds a " + thing[0] + " '" + Shown.of(thing[1])
                        + "' that no project of Night Reed has, and is not opened: ask who made it for a clean copy.");
            }
        }
    }

    private void columns(String table, Set<String> needed) throws SQLException, UnusableProject {
        List<String> there = new ArrayList<>();
        for (String[] c : rows("select name, hidden from pragma_table_xinfo('" + table + "')", 2)) {
            if (!c[1].equals("0")) {
                throw new UnusableProject(name + " holds a computed column, " + table + "." + Shown.of(c[0])
                        + ", and is not opened: ask who made it for a clean copy.");
            }
            there.add(c[0]);
        }
        if (!there.containsAll(needed)) {
            throw damaged("its table '" + table + "' is not whole");
        }
    }

    private void none(String query, String fault) throws SQLException, UnusableProject {
        if (!rows(query, 1).isEmpty()) {
            throw damaged(fault);
        }
    }

    private List<String[]> rows(String query, int columns) throws SQLException {
        List<String[]> out = new ArrayList<>();
        try (Statement s = db.createStatement();
                ResultSet r = s.executeQuery(query)) {
            while (r.next()) {
                String[] row = new String[columns];
                for (int i = 0; i < columns; i++) {
                    row[i] = String.valueOf(r.getString(i + 1));
                }
                out.add(row);
            }
        }
        return out;
    }

    private UnusableProject damaged(String how) {
        return damaged(name, how, null);
    }

    /** The one message about damage; it never advises to write over a file. */
    static UnusableProject damaged(String name, String how, Exception cause) {
        return new UnusableProject(
                name + " is damaged (" + how + ") and was left as it is: open a backup of it under another name.",
                cause);
    }

    /** The mark of the state in which a file is, "-" for files of versions that had none. */
    static String mark(Connection db) throws SQLException {
        Contents c = new Contents(Path.of(""), db);
        boolean hasMarks =
                !c.rows("select name from sqlite_master where name = 'mark'", 1).isEmpty();
        List<String[]> marks = hasMarks ? c.rows("select text from mark", 1) : List.of();
        return marks.isEmpty() ? "-" : marks.get(0)[0];
    }
}
