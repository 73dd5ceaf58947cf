package nightreed.files;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.concurrent.CompletableFuture;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class OutputFileTest {
    @TempDir
    Path folder;

    @Test
    void aFolderIsNotReplaced() throws Exception {
        Path inside = Files.createDirectory(folder.resolve("results"));
        for (Path p : new Path[] {inside, Path.of("/"), folder.resolve("results/..")}) {
            assertThatThrownBy(() -> OutputFile.write(p, "x"))
                    .isInstanceOf(IOException.class)
                    .hasMessageContaining("is a folder");
            assertThatThrownBy(() -> OutputFile.check(p)).hasMessageContaining("is a folder");
        }
        assertThat(inside).isEmptyDirectory();
    }

    @Test
    void aLinkIsWrittenThroughAndAModeKept() throws Exception {
        Path real = Files.writeString(folder.resolve("real.txt"), "before");
        Files.setPosixFilePermissions(real, PosixFilePermissions.fromString("rw-------"));
        Path link = Files.createSymbolicLink(folder.resolve("link.txt"), Path.of("real.txt"));
        OutputFile.write(link, "after");
        assertThat(link).isSymbolicLink();
        assertThat(Files.readString(real)).isEqualTo("after");
        assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(real)))
                .isEqualTo("rw-------");
        Path circle = folder.resolve("circle");
        Files.createSymbolicLink(circle, Path.of("circle"));
        assertThatThrownBy(() -> OutputFile.write(circle, "x")).hasMessageContaining("circle");
    }

    @Test
    void aPipeIsWrittenIntoAndStaysAPipe() throws Exception {
        Path pipe = folder.resolve("pipe");
        assertThat(new ProcessBuilder("mkfifo", pipe.toString()).start().waitFor())
                .isZero();
        CompletableFuture<String> read = CompletableFuture.supplyAsync(() -> {
            try (InputStream in = Files.newInputStream(pipe)) {
                return new String(in.readAllBytes(), java.nio.charset.StandardCharsets.UTF_8);
            } catch (IOException e) {
                return e.toString();
            }
        });
        OutputFile.write(pipe, "through");
        assertThat(read.get(10, java.util.concurrent.TimeUnit.SECONDS)).isEqualTo("through");
        assertThat(Files.readAttributes(pipe, java.nio.file.attribute.BasicFileAttributes.class)
                        .isOther())
                .isTrue();
    }

    @Test
    void checkingLeavesNothingBehindAndSaysWhatIsInTheWay() throws Exception {
        OutputFile.check(folder.resolve("new/deep/result.wav"));
        assertThat(folder).isEmptyDirectory();
        Path file = Files.writeString(folder.resolve("file"), "x");
        assertThatThrownBy(() -> OutputFile.check(file.resolve("result.wav")))
                .hasMessageContaining("a file stands where");
    }

    @ParameterizedTest
    @CsvSource({
        "letter, true",
        "'{\"version\" : 1}', true",
        "'{\"method\" : \"POST\"}', true",
        "'{\"method\" : \"fm\"}', false",
        "'{\"schema\" : \"measurement-1\"}', false",
        "'{\"name\" : 1}', true",
        "'', false"
    })
    void whatAnotherProgramHasWrittenIsKnown(String text, boolean another) throws Exception {
        Path file = Files.writeString(folder.resolve("a"), text == null ? "" : text);
        assertThat(Written.byAnother(file)).isEqualTo(another);
        assertThat(Written.byAnother(folder)).isFalse();
        assertThat(Written.byAnother(folder.resolve("none"))).isFalse();
    }

    @Test
    void namesAreShownWithoutTheirControlCharacters() {
        assertThat(Shown.of("a\u001b[2Jb\nc\u202ed")).isEqualTo("a\\u001b[2Jb\\u000ac\\u202ed");
        assertThat(Shown.of("Übung 鐘 1.wav")).isEqualTo("Übung 鐘 1.wav");
        assertThat(Shown.of("x".repeat(9999)).length()).isLessThan(300);
    }
}
