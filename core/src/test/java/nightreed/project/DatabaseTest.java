package nightreed.project;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.SQLException;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The file that a project is kept in, below the tables. */
class DatabaseTest {
    @TempDir
    Path folder;

    private Database opened(String name) throws Exception {
        Path file = folder.toRealPath().resolve(name);
        Database db = Database.connect(file, ProjectLock.take(file));
        db.settle();
        db.execute("create table if not exists t(v integer)");
        return db;
    }

    @Test
    void aFailedTransactionLeavesNothingBehind() throws Exception {
        try (Database db = opened("a.db")) {
            db.inTransaction(() -> db.update("insert into t values(?)", 1));
            assertThatThrownBy(() -> db.inTransaction(() -> {
                        db.update("insert into t values(?)", 2);
                        return db.update("insert into nowhere values(?)", 3);
                    }))
                    .isInstanceOf(UnusableProject.class)
                    .hasMessageContaining("a.db")
                    .hasMessageContaining("could not be written");
            assertThat(db.query("select v from t", r -> r.getInt(1))).isEqualTo(List.of(1));
        }
    }

    @Test
    void whatIsCommittedIsThereAfterClosing() throws Exception {
        try (Database db = opened("b.db")) {
            db.inTransaction(() -> db.update("insert into t values(?)", 7));
        }
        try (Database db = opened("b.db")) {
            assertThat(db.query("select v from t", r -> r.getInt(1))).isEqualTo(List.of(7));
        }
    }

    @Test
    void aFileThatWasTakenAwayIsWrittenAgainWithTheNextEdit() throws Exception {
        Path file = folder.resolve("c.db");
        try (Database db = opened("c.db")) {
            db.inTransaction(() -> db.update("insert into t values(?)", 1));
            Files.delete(file);
            db.inTransaction(() -> db.update("insert into t values(?)", 2));
            assertThat(db.query("select v from t order by v", r -> r.getInt(1))).isEqualTo(List.of(1, 2));
        }
        assertThat(file).exists();
    }

    @Test
    void whateverEndsATransactionLeavesNothingHalfDone() throws Exception {
        try (Database db = opened("e.db")) {
            assertThatThrownBy(() -> db.inTransaction(() -> {
                        db.update("insert into t values(?)", 2);
                        throw new IllegalStateException("a fault");
                    }))
                    .isInstanceOf(IllegalStateException.class);
            db.inTransaction(() -> db.update("insert into t values(?)", 3));
            assertThat(db.query("select v from t", r -> r.getInt(1))).isEqualTo(List.of(3));
        }
    }

    /** Codes of SQLite, extended ones too: whatever the words are, the advice is that of the code. */
    @ParameterizedTest
    @CsvSource({
        "13, the disk is full",
        "8, may not be written",
        "1032, may not be written",
        "5, another window has it open",
        "261, another window has it open",
        "778, check the disk",
        "1, no such thing"
    })
    void eachFailureHasItsOwnAdvice(int code, String advice) throws Exception {
        try (Database db = opened("d.db")) {
            assertThat(db.failed("could not be written", new SQLException("no such thing", "", code)))
                    .hasMessageContaining(advice);
        }
    }
}
