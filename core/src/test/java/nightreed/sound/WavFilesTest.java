package nightreed.sound;

import static java.nio.charset.StandardCharsets.US_ASCII;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.io.RandomAccessFile;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Random;
import nightreed.Tones;
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
        WavFiles.Loaded loaded = WavFiles.read(file);
        assertThat(loaded.warning()).isNull();
        assertThat(loaded.clip().sampleRateHz()).isEqualTo(44_100);
        assertThat(loaded.clip().channelCount()).isEqualTo(2);
        for (int c = 0; c < 2; c++) {
            assertThat(loaded.clip().channel(c)).containsExactly(clip.channel(c), within((float) rounding));
        }
    }

    @ParameterizedTest
    @CsvSource({"8, 0.012", "16, 6.2e-5", "32, 1e-6"}) // a step and a half
    void integerSamplesOfAnyWidthAreRead(int bits, double rounding) throws Exception {
        int n = 500;
        ByteBuffer b = header(1, bits, n * bits / 8, 48_000);
        for (int i = 0; i < n; i++) {
            double v = 0.9 * Math.sin(0.05 * i);
            switch (bits) {
                case 8 -> b.put((byte) Math.round(128 + 127 * v)); // 8 bits are unsigned in WAV
                case 16 -> b.putShort((short) Math.round(32_767 * v));
                default -> b.putInt((int) Math.round(2_147_483_000 * v));
            }
        }
        Clip clip = WavFiles.read(b.array(), "note.wav").clip();
        for (int i = 0; i < n; i++) {
            assertThat(clip.channel(0)[i]).isCloseTo((float) (0.9 * Math.sin(0.05 * i)), within((float) rounding));
        }
    }

    private static ByteBuffer header(int tag, int bits, int dataBytes, int rate) {
        ByteBuffer b = ByteBuffer.allocate(44 + dataBytes).order(ByteOrder.LITTLE_ENDIAN);
        b.put("RIFF".getBytes(US_ASCII))
                .putInt(36 + dataBytes)
                .put("WAVEfmt ".getBytes(US_ASCII))
                .putInt(16);
        b.putShort((short) tag).putShort((short) 1).putInt(rate).putInt(rate * bits / 8);
        return b.putShort((short) (bits / 8))
                .putShort((short) bits)
                .put("data".getBytes(US_ASCII))
                .putInt(dataBytes);
    }

    @Test
    void integerFormatsHoldLoudSamplesAtFullScale() throws Exception {
        Clip loud = Clip.mono(new float[] {2, -2, 0.5f, 0}, 48_000);
        Clip back =
                WavFiles.read(WavFiles.encode(loud, WavFiles.Format.PCM16), "x").clip();
        assertThat(back.channel(0)).containsExactly(new float[] {1, -1, 0.5f, 0}, within(4e-5f));
    }

    @Test
    void anEmptyFileIsExplained() throws Exception {
        Path file = Files.createFile(folder.resolve("nothing.wav"));
        assertThatThrownBy(() -> WavFiles.read(file))
                .isInstanceOf(UnusableSound.class)
                .hasMessageContaining("nothing.wav")
                .hasMessageContaining("empty")
                .hasMessageContaining("again");
    }

    @Test
    void aFileOfAnotherKindIsExplained() throws Exception {
        Path file = Files.writeString(folder.resolve("letter.wav"), "Dear engineer, here is no sound at all.");
        assertThatThrownBy(() -> WavFiles.read(file))
                .isInstanceOf(UnusableSound.class)
                .hasMessageContaining("letter.wav is not a WAV file");
    }

    @Test
    void aTruncatedFileIsReadAsFarAsItGoesWithAWarning() throws Exception {
        byte[] whole = WavFiles.encode(stereo(), WavFiles.Format.PCM16);
        Path file = Files.write(folder.resolve("cut.wav"), Arrays.copyOf(whole, 44 + 4000));
        WavFiles.Loaded loaded = WavFiles.read(file);
        assertThat(loaded.clip().length()).isEqualTo(1000);
        assertThat(loaded.warning()).contains("cut short").contains("0.10 s").contains("0.02 s");
    }

    @Test
    void aHeaderWithoutSamplesIsExplained() {
        byte[] head = Arrays.copyOf(WavFiles.encode(stereo(), WavFiles.Format.PCM16), 44);
        assertThatThrownBy(() -> WavFiles.read(head, "head.wav"))
                .isInstanceOf(UnusableSound.class)
                .hasMessageContaining("no samples");
    }

    @Test
    void valuesThatAreNotNumbersAreRefusedWithTheirPlace() {
        float[] x = Tones.sine(48_000, 440, 0.5, 0.1);
        x[123] = Float.NaN;
        byte[] wav = WavFiles.encode(Clip.mono(x, 48_000), WavFiles.Format.FLOAT32);
        assertThatThrownBy(() -> WavFiles.read(wav, "odd.wav"))
                .isInstanceOf(UnusableSound.class)
                .hasMessageContaining("not a number at sample 123");
    }

    @Test
    void aTwoHourFileIsRefusedBeforeItIsReadIn() throws Exception {
        Path file = folder.resolve("session.wav");
        int bytes = 2 * 3600 * 48_000 * 2;
        try (RandomAccessFile f = new RandomAccessFile(file.toFile(), "rw")) { // sparse: takes no room on disk
            f.write(Arrays.copyOf(header(1, 16, 0, 48_000).array(), 40));
            f.write(ByteBuffer.allocate(4)
                    .order(ByteOrder.LITTLE_ENDIAN)
                    .putInt(bytes)
                    .array());
            f.setLength(44L + bytes);
        }
        assertThatThrownBy(() -> WavFiles.read(file))
                .isInstanceOf(UnusableSound.class)
                .hasMessageContaining("2 h 00 min")
                .hasMessageContaining("cut the note out");
    }

    @Test
    void missingFilesAndFoldersAreExplained() {
        assertThatThrownBy(() -> WavFiles.read(folder.resolve("none.wav"))).hasMessageContaining("There is no file");
        assertThatThrownBy(() -> WavFiles.read(folder)).hasMessageContaining("is a folder");
    }

    @Test
    void aThousandDamagedHeadersEndInAMessageOrInSound() {
        byte[] good = WavFiles.encode(stereo(), WavFiles.Format.PCM16);
        Random r = new Random(99);
        for (int i = 0; i < 1000; i++) {
            byte[] bad = Arrays.copyOf(good, 44 + r.nextInt(400));
            for (int k = 0; k <= r.nextInt(4); k++) {
                bad[r.nextInt(Math.min(bad.length, 60))] = (byte) r.nextInt(256);
            }
            try {
                assertThat(WavFiles.read(bad, "bad.wav").clip().length()).isPositive();
            } catch (UnusableSound e) {
                assertThat(e.getMessage()).startsWith("bad.wav ").hasSizeLessThan(200);
            }
        }
    }

    @Test
    void aFolderThatCannotBeWrittenIsExplainedAndNothingIsLeftBehind() throws IOException {
        Path file = Files.writeString(folder.resolve("a-file"), "in the way");
        assertThatThrownBy(() -> SafeFiles.write(file.resolve("sheet.html"), "text"))
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
        assertThat(WavFiles.read(file).clip().length()).isEqualTo(2);
    }
}
