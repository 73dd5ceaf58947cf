package nightreed.project;

import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.List;

/** The tables of a project, version by version; docs/formats.md describes the latest. */
final class Schema {
    /** Marks a file as ours for tools that look at SQLite headers ("NRED"). */
    static final int APPLICATION_ID = 0x4E524544;

    /** Statements that lead from each version to the next; the first makes version 1 out of nothing. */
    private static final List<List<String>> STEPS = List.of(
            List.of(
                    "create table project(name text not null)",
                    "create table imitation(id integer primary key, name text not null, head integer)",
                    "create table recording(id integer primary key, name text not null, wav blob not null,"
                            + " measurement text)",
                    "create table edit(id integer primary key, imitation integer not null references imitation(id),"
                            + " label text not null, at text not null, recording integer references recording(id),"
                            + " recipe text, fitted text, note text not null)",
                    "create table take(id integer primary key, imitation integer not null references imitation(id),"
                            + " name text not null, note text not null, at text not null, total_jnd real not null,"
                            + " recipe text not null)"),
            List.of(
                    "alter table take add column worst_aspect text",
                    "alter table take add column worst_jnd real",
                    "alter table take add column picture text"),
            List.of("alter table edit add column hand text"),
            List.of("alter table imitation add column family integer"),
            List.of("alter table edit add column locked text", "alter table edit add column marks text"),
            List.of(), // recipes may be layers, which programs before it cannot read
            List.of("create table if not exists mark(text text not null)"), // of the state of the file, see Database
            List.of("alter table edit add column chosen integer"), // layer that is shaped
            List.of("create table if not exists frontier(imitation integer primary key references imitation(id),"
                    + " recording integer references recording(id), points text not null)"),
            List.of("alter table edit add column claims text"));

    /** The version that this program writes. */
    static final int VERSION = STEPS.size();

    private Schema() {}

    /** Version of an open file, 0 if it has no tables of ours. */
    static int version(Connection db) throws SQLException {
        return number(db, "pragma user_version");
    }

    static boolean isOurs(Connection db) throws SQLException {
        return number(db, "pragma application_id") == APPLICATION_ID;
    }

    /** Whether every page of the file makes sense. */
    static boolean isWhole(Connection db) throws SQLException {
        try (Statement s = db.createStatement();
                ResultSet r = s.executeQuery("pragma quick_check")) {
            return r.next() && r.getString(1).equals("ok");
        }
    }

    private static int number(Connection db, String pragma) throws SQLException {
        try (Statement s = db.createStatement();
                ResultSet r = s.executeQuery(pragma)) {
            return r.next() ? r.getInt(1) : 0;
        }
    }

    /** Brings the tables from a version to {@link #VERSION}; call within a transaction. */
    static void bringUp(Connection db, int from) throws SQLException {
        try (Statement s = db.createStatement()) {
            for (int v = from; v < VERSION; v++) {
                for (String step : STEPS.get(v)) {
                    s.execute(step);
                }
            }
            s.execute("pragma application_id = " + APPLICATION_ID);
            s.execute("pragma user_version = " + VERSION);
        }
    }
}
