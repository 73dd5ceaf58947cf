package nightreed.sound;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import nightreed.Tones;
import nightreed.files.OutputFile;
import nightreed.sound.file.SoundFiles;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

class WavFilesTest {
    @TempDir
    Path folder;

    private static Clip stereo() {
        return new Clip(new float[][] {Tones.sine(44_100, 300, 0.8, 0.1), Tones.sine(44_100, 700, 0.3, 0.1)}, 44_100);
    }

    @ParameterizedTest
    @CsvSource({"PCM16, 3.1e-5", "PCM24, 1.3e-7", "FLOAT32, 0"})
    void whatIsWrittenIsReadBack(WavFiles.Format format, double rounding) throws Exception {
        Clip clip = stereo();
        Path file = folder.resolve("note.wav");
        WavFiles.write(clip, format, file);
        SoundFiles.Loaded loaded = SoundFiles.read(file);
        assertThat(loaded.warning()).isNull();
        assertThat(loaded.clip().sampleRateHz()).isEqualTo(44_100);
        assertThat(loaded.clip().channelCount()).isEqualTo(2);
        for (int c = 0; c < 2; c++) {
            assertThat(loaded.clip().channel(c)).containsExactly(clip.channel(c), within((float) rounding));
        }
    }

    @Test
    void integerFormatsHoldLoudSamplesAtFullScale() throws Exception {
        Clip loud = Clip.mono(new float[] {2, -2, 0.5f, 0}, 48_000);
        Clip back = SoundFiles.read(WavFiles.encode(loud, WavFiles.Format.PCM16), "x")
                .clip();
        assertThat(back.channel(0)).containsExactly(new float[] {1, -1, 0.5f, 0}, within(4e-5f));
    }

    @Test
    void aFolderThatCannotBeWrittenIsExplainedAndNothingIsLeftBehind() throws IOException {
        Path file = Files.writeString(folder.resolve("a-file"), "in the way");
        assertThatThrownBy(() -> OutputFile.write(file.resolve("sheet.html"), "text"))
                .isInstanceOf(IOException.class)
                .hasMessageContaining("sheet.html was not written")
                .hasMessageContaining("choose another folder");
        try (var left = Files.list(folder)) {
            assertThat(left).containsExactly(file);
        }
    }

    @ParameterizedTest
    @EnumSource(WavFiles.Format.class)
    void anExistingFileIsReplacedWhole(WavFiles.Format format) throws Exception {
        Path file = Files.writeString(folder.resolve("note.wav"), "old and much longer than what comes".repeat(900));
        WavFiles.write(Clip.mono(new float[] {0.1f, 0.2f}, 8000), format, file);
        assertThat(SoundFiles.read(file).clip().length()).isEqualTo(2);
    }
}
