package nightreed.desktop;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import nightreed.project.ProjectFile;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Whatever is asked for, the window gets a project to work on, and its user a word when it is another one. */
class ProjectsTest {
    @TempDir
    Path home;

    private String before;

    @BeforeEach
    void live() {
        before = System.getProperty("user.home");
        System.setProperty("user.home", home.toString());
    }

    @AfterEach
    void leave() {
        System.setProperty("user.home", before);
    }

    @Test
    void theFirstStartMakesAProjectAndTheNextOpensTheLastOne() throws Exception {
        Projects.Opened first = Projects.open("", List.of());
        assertThat(first.message()).isNull();
        assertThat(first.project().path()).isEqualTo(home.resolve("Night Reed").resolve("My imitations.nightreed"));
        first.project().close();
        Path other = home.resolve("other.nightreed");
        ProjectFile.create(other, "Other").close();
        try (ProjectFile p = Projects.open(
                        "", List.of(home.resolve("gone.nightreed").toString(), other.toString()))
                .project()) {
            assertThat(p.name()).isEqualTo("Other");
        }
    }

    @Test
    void aProjectThatCannotBeOpenedIsToldAndReplaced() throws Exception {
        Path letter = Files.writeString(home.resolve("letter.nightreed"), "Dear engineer");
        for (String what :
                List.of(letter.toString(), home.resolve("none.nightreed").toString())) {
            Projects.Opened o = Projects.open(what, List.of());
            try (ProjectFile p = o.project()) {
                assertThat(o.message()).matches(".*(is not a Night Reed project|There is no project).*");
                assertThat(p.name()).isEqualTo("My imitations");
            }
        }
        assertThat(Files.readString(letter)).isEqualTo("Dear engineer");
    }

    @Test
    void aSecondWindowGetsAProjectOfItsOwn() throws Exception {
        try (ProjectFile first = Projects.open("", List.of()).project()) {
            Projects.Opened second = Projects.open("", List.of(first.path().toString()));
            try (ProjectFile p = second.project()) {
                assertThat(second.message()).contains("open in another window");
                assertThat(p.path()).isNotEqualTo(first.path());
            }
        }
    }

    @Test
    void aDamagedProjectAtHomeIsLeftAloneAndAnotherIsBegun() throws Exception {
        Path usual = home.resolve("Night Reed").resolve("My imitations.nightreed");
        Files.createDirectories(usual.getParent());
        Files.writeString(usual, "SQLite format 3\0 but no more");
        Projects.Opened o = Projects.open("", List.of());
        try (ProjectFile p = o.project()) {
            assertThat(o.message()).contains("damaged");
            assertThat(p.path().getFileName()).hasToString("More imitations.nightreed");
        }
        assertThat(Files.readString(usual)).startsWith("SQLite format 3");
    }
}
