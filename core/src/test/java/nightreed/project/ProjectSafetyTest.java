package nightreed.project;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.Statement;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** What can happen to a project from outside: other windows, copies, replaced files, foreign contents. */
class ProjectSafetyTest {
    @TempDir
    Path folder;

    private Path file;

    @BeforeEach
    void aProject() throws Exception {
        file = folder.toRealPath().resolve("a.nightreed");
        try (ProjectFile p = ProjectFile.create(file, "A")) {
            p.commit(p.addImitation("bar"), "first", Snapshot.EMPTY.withNote("first"));
        }
    }

    /** Another process: opens a project, commits one edit, and either closes it or dies. */
    public static final class Other {
        private Other() {}

        public static void main(String[] args) throws Exception {
            try {
                ProjectFile p = ProjectFile.open(Path.of(args[0]));
                p.commit(p.imitations().get(0), "edit", Snapshot.EMPTY.withNote(args[1]));
                if (args[1].equals("vanishes")) {
                    Files.delete(Path.of(args[0]));
                    p.commit(p.imitations().get(0), "edit", Snapshot.EMPTY.withNote("written again"));
                    p.commit(p.imitations().get(0), "edit", Snapshot.EMPTY.withNote("after it vanished"));
                    Runtime.getRuntime().halt(7);
                }
                if (args[1].equals("dies")) {
                    Runtime.getRuntime().halt(7);
                }
                p.close();
            } catch (UnusableProject e) {
                System.out.println(e.getMessage());
                Runtime.getRuntime().halt(3);
            }
        }
    }

    /** @return exit code of the other process */
    private int other(String what) throws Exception {
        Process p = new ProcessBuilder(
                        System.getProperty("java.home") + "/bin/java",
                        "-cp",
                        System.getProperty("java.class.path"),
                        Other.class.getName(),
                        file.toString(),
                        what)
                .redirectErrorStream(true)
                .redirectOutput(folder.resolve("other.txt").toFile())
                .start();
        assertThat(p.waitFor(60, TimeUnit.SECONDS)).isTrue();
        return p.exitValue();
    }

    private String note() throws Exception {
        try (ProjectFile p = ProjectFile.open(file)) {
            return p.now(p.imitations().get(0)).note();
        }
    }

    @Test
    void whoeverReadsTheFileInThisProcessDoesNotUnlockIt() throws Exception {
        try (ProjectFile p = ProjectFile.open(file)) {
            Files.readAllBytes(file); // on POSIX systems closing this ends all locks of SQLite
            Path link = Files.createSymbolicLink(folder.resolve("link.nightreed"), file);
            for (Path way : new Path[] {file, Path.of("").toAbsolutePath().relativize(file), link}) {
                assertThat(p.isAt(way)).isTrue();
                assertThatThrownBy(() -> ProjectFile.open(way)).hasMessageContaining("open in another window");
            }
            assertThat(other("from outside")).isEqualTo(3);
            assertThat(folder.resolve("other.txt")).content().contains("open in another window");
            p.commit(p.imitations().get(0), "second", Snapshot.EMPTY.withNote("second"));
        }
        assertThat(note()).isEqualTo("second");
        assertThat(other("from outside")).isZero();
        assertThat(note()).isEqualTo("from outside");
    }

    @Test
    void whatADeadProcessCommittedIsThereAndItsLockIsTakenOver() throws Exception {
        assertThat(other("dies")).isEqualTo(7);
        assertThat(folder.resolve("a.nightreed.lock")).exists();
        assertThat(note()).isEqualTo("dies");
        assertThat(folder.resolve("a.nightreed.lock")).doesNotExist();
    }

    @Test
    void aLockOfAnotherMachineIsRespectedAndNamed() throws Exception {
        Files.writeString(folder.resolve("a.nightreed.lock"), "17\n0\nelsewhere\nboot\n\n");
        assertThatThrownBy(() -> ProjectFile.open(file))
                .hasMessageContaining("another machine")
                .hasMessageContaining("a.nightreed.lock");
    }

    /** The number of a dead process may be another's by now: here that of this one. */
    @Test
    void aNumberThatAnotherProcessHasByNowIsNoOwner() throws Exception {
        Path lock = folder.resolve("a.nightreed.lock");
        ProjectFile p = ProjectFile.open(file);
        String mine = Files.readString(lock);
        p.close();
        String[] line = mine.split("\n", -1);
        line[1] = "1"; // began at another time
        Files.writeString(lock, String.join("\n", line));
        assertThat(note()).isEqualTo("first");
    }

    /** Written again after it vanished, and killed then: what was committed since must not hang on a log that is gone. */
    @Test
    void whatIsCommittedAfterTheFileWasWrittenAgainSurvivesADeath() throws Exception {
        assertThat(other("vanishes")).isEqualTo(7);
        assertThat(note()).isEqualTo("after it vanished");
    }

    /** The edit is on the disk by then: it must not be told as lost, nor be written a second time. */
    @Test
    void anEditStandsEvenIfItsLogCannotBeCarriedOver() throws Exception {
        String longNote = "x".repeat(17 << 20);
        ProjectFile p = ProjectFile.open(file);
        Imitation bar = p.imitations().get(0);
        Files.createDirectory(folder.resolve("a.nightreed.lock.new")); // so that no new mark can be written
        p.commit(bar, "long", Snapshot.EMPTY.withNote(longNote));
        assertThat(p.now(bar).note()).hasSize(longNote.length());
        assertThat(p.undo(bar).note()).isEqualTo("first");
        p.close();
    }

    @Test
    void aBackupCopiedBackIsNotMixedWithTheLogBesideIt() throws Exception {
        Path backup = Files.copy(file, folder.resolve("backup"));
        assertThat(other("closes")).isZero();
        assertThat(other("dies")).isEqualTo(7); // its edit is in the log only
        Files.copy(backup, file, StandardCopyOption.REPLACE_EXISTING);
        try (ProjectFile p = ProjectFile.open(file)) {
            assertThat(p.now(p.imitations().get(0)).note()).isEqualTo("first");
            assertThat(p.remark()).contains("set aside");
        }
        assertThat(folder.resolve("a.nightreed-wal.aside")).exists();
    }

    /** A copy saved from the window bears the edits, but the log is not its log. */
    @Test
    void aSavedCopyPutBackIsNotMixedWithTheLogEither() throws Exception {
        Path copy = folder.resolve("copy.nightreed");
        try (ProjectFile p = ProjectFile.open(file)) {
            p.saveCopy(copy);
        }
        assertThat(other("dies")).isEqualTo(7);
        Files.copy(copy, file, StandardCopyOption.REPLACE_EXISTING);
        assertThat(note()).isEqualTo("first");
    }

    @ParameterizedTest
    @ValueSource(booleans = {true, false})
    void aFileThatIsReplacedWhileOpenIsNotWrittenInto(boolean byRename) throws Exception {
        Path another = folder.resolve("b.nightreed");
        try (ProjectFile p = ProjectFile.create(another, "B")) {
            p.addImitation("another");
        }
        byte[] bytes = Files.readAllBytes(another);
        ProjectFile p = ProjectFile.open(file);
        Imitation bar = p.imitations().get(0);
        p.commit(bar, "second", Snapshot.EMPTY.withNote("second"));
        if (byRename) {
            Files.move(another, file, StandardCopyOption.REPLACE_EXISTING);
        } else {
            Files.write(file, bytes);
        }
        assertThatThrownBy(() -> p.commit(bar, "third", Snapshot.EMPTY))
                .isInstanceOf(UnusableProject.class)
                .hasMessageContaining("was replaced")
                .hasMessageContaining("save a copy");
        Path rescued = folder.resolve("rescued.nightreed");
        p.saveCopy(rescued);
        p.close();
        assertThat(Files.readAllBytes(file)).isEqualTo(bytes);
        try (ProjectFile r = ProjectFile.open(rescued)) {
            assertThat(r.now(r.imitations().get(0)).note()).isEqualTo("second");
        }
    }

    @Test
    void whatOnlyTouchesTheFileIsNoReplacement() throws Exception {
        try (ProjectFile p = ProjectFile.open(file)) {
            Files.setLastModifiedTime(file, java.nio.file.attribute.FileTime.fromMillis(1));
            p.commit(p.imitations().get(0), "second", Snapshot.EMPTY.withNote("second"));
        }
        assertThat(note()).isEqualTo("second");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "create trigger t after insert on edit begin delete from take; end | trigger",
                "create view v as select 1 | view",
                "create table extra(x) | table",
                "create virtual table f using fts5(x) | table",
                "create index i on edit(abs(id)) | index",
                "alter table take add column g text generated always as (note) | computed column",
                "delete from project | has not one name",
                "insert into project values ('B') | has not one name",
                "update imitation set head = 99 | state of an imitation",
                "update edit set imitation = 77 | missing",
                "alter table edit rename column note to other | not whole",
                "pragma user_version = -3 | version is -3",
                "pragma user_version = 0 | version is 0"
            })
    void whatNoProjectHasIsRefusedAndLeftAsItIs(String statement, String why) throws Exception {
        try (Connection c = DriverManager.getConnection("jdbc:sqlite:" + file);
                Statement s = c.createStatement()) {
            s.execute(statement);
        }
        byte[] before = Files.readAllBytes(file);
        assertThatThrownBy(() -> ProjectFile.open(file))
                .isInstanceOf(UnusableProject.class)
                .hasMessageContaining(why);
        assertThat(Files.readAllBytes(file)).isEqualTo(before);
        assertThat(folder.resolve("a.nightreed.lock")).doesNotExist();
    }

    @Test
    void anImitationOfAnotherProjectIsNotWrittenHere() throws Exception {
        Imitation before;
        try (ProjectFile p = ProjectFile.open(file)) {
            before = p.imitations().get(0);
        }
        try (ProjectFile p = ProjectFile.create(folder.resolve("b.nightreed"), "B")) {
            Imitation here = p.addImitation("here");
            assertThat(here.id()).isEqualTo(before.id());
            assertThatThrownBy(() -> p.commit(before, "edit", Snapshot.EMPTY.withNote("wrong")))
                    .hasMessageContaining("belongs to a project that is closed")
                    .isInstanceOf(UnusableProject.class);
            assertThat(p.now(here).note()).isEmpty();
        }
    }
}
