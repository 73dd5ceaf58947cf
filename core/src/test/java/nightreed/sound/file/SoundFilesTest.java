package nightreed.sound.file;

import static java.nio.charset.StandardCharsets.US_ASCII;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;
import static org.junit.jupiter.api.Assertions.assertTimeoutPreemptively;

import java.io.RandomAccessFile;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.Random;
import java.util.concurrent.CancellationException;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.stream.Stream;
import nightreed.Tones;
import nightreed.sound.Clip;
import nightreed.sound.UnusableSound;
import nightreed.sound.WavFiles;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;

class SoundFilesTest {
    @TempDir
    Path folder;

    private static Clip stereo() {
        return new Clip(new float[][] {Tones.sine(44_100, 300, 0.8, 0.1), Tones.sine(44_100, 700, 0.3, 0.1)}, 44_100);
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
        Clip clip = SoundFiles.read(b.array(), "note.wav").clip();
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

    /** Each made a decoder loop for ever, or read gigabytes of zeros for a sample. */
    @ParameterizedTest
    @CsvSource({
        "664c6143800000221000100000057d000d5307d002f000003e80534ca2de8df53fd02579e4fb1a17dc3f, 0",
        "664c6143, 40",
        "fffb0000, 40",
        "664c6143, 40000000",
        "4f676753, 40000000",
        "49443303000000000000, 40000000"
    })
    @Timeout(20)
    void damageThatDecodersDoNotNoticeIsRefusedSoon(String start, int zeros) throws Exception {
        Path file = folder.resolve("odd");
        Files.write(file, HexFormat.of().parseHex(start));
        try (RandomAccessFile f = new RandomAccessFile(file.toFile(), "rw")) {
            f.setLength(f.length() + zeros);
        }
        assertThatThrownBy(() -> SoundFiles.read(file)).isInstanceOf(UnusableSound.class);
    }

    @Test
    @Timeout(20)
    void aDecoderThatNeitherReadsNorGivesIsGivenUp() throws Exception {
        Source source = Source.of(new byte[10], "odd");
        AtomicBoolean end = new AtomicBoolean();
        assertThatThrownBy(() -> new Watchdog().run(source, s -> {
                    while (!end.get()) {
                        Thread.onSpinWait();
                    }
                    return null;
                }))
                .isInstanceOf(UnusableSound.class)
                .hasMessageContaining("comes to no end");
        end.set(true);
    }

    @Test
    void devicesAndPipesAreNoFiles() {
        assertThatThrownBy(() -> SoundFiles.read(Path.of("/dev/zero"))).hasMessageContaining("is a pipe or a device");
    }

    @Test
    void anEmptyFileIsExplained() throws Exception {
        Path file = Files.createFile(folder.resolve("nothing.wav"));
        assertThatThrownBy(() -> SoundFiles.read(file))
                .isInstanceOf(UnusableSound.class)
                .hasMessageContaining("nothing.wav")
                .hasMessageContaining("empty")
                .hasMessageContaining("again");
    }

    @Test
    void aFileOfAnotherKindIsExplained() throws Exception {
        Path file = Files.writeString(folder.resolve("letter.wav"), "Dear engineer, here is no sound at all.");
        assertThatThrownBy(() -> SoundFiles.read(file))
                .isInstanceOf(UnusableSound.class)
                .hasMessageContaining("letter.wav is not a sound file");
    }

    @Test
    void aTruncatedFileIsReadAsFarAsItGoesWithAWarning() throws Exception {
        byte[] whole = WavFiles.encode(stereo(), WavFiles.Format.PCM16);
        Path file = Files.write(folder.resolve("cut.wav"), Arrays.copyOf(whole, 44 + 4000));
        SoundFiles.Loaded loaded = SoundFiles.read(file);
        assertThat(loaded.clip().length()).isEqualTo(1000);
        assertThat(loaded.warning()).contains("cut short").contains("0.10 s").contains("0.02 s");
    }

    @Test
    void aHeaderWithoutSamplesIsExplained() {
        byte[] head = Arrays.copyOf(WavFiles.encode(stereo(), WavFiles.Format.PCM16), 44);
        assertThatThrownBy(() -> SoundFiles.read(head, "head.wav"))
                .isInstanceOf(UnusableSound.class)
                .hasMessageContaining("no samples");
    }

    @Test
    void valuesThatAreNotNumbersAreRefusedWithTheirPlace() {
        float[] x = Tones.sine(48_000, 440, 0.5, 0.1);
        x[123] = Float.NaN;
        byte[] wav = WavFiles.encode(Clip.mono(x, 48_000), WavFiles.Format.FLOAT32);
        assertThatThrownBy(() -> SoundFiles.read(wav, "odd.wav"))
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
        assertThatThrownBy(() -> SoundFiles.read(file))
                .isInstanceOf(UnusableSound.class)
                .hasMessageContaining("2 h 00 min")
                .hasMessageContaining("cut the note out");
    }

    @Test
    void missingFilesAndFoldersAreExplained() {
        assertThatThrownBy(() -> SoundFiles.read(folder.resolve("none.wav"))).hasMessageContaining("There is no file");
        assertThatThrownBy(() -> SoundFiles.read(folder)).hasMessageContaining("is a folder");
    }

    static Stream<Path> everyKind() throws Exception {
        Path all = Path.of(SoundFilesTest.class.getResource("/sounds").toURI());
        try (Stream<Path> files = Files.list(all)) {
            return files
                    .filter(f -> !f.toString().endsWith(".f32") && !f.toString().endsWith(".sh"))
                    .sorted()
                    .toList()
                    .stream();
        }
    }

    @ParameterizedTest
    @MethodSource("everyKind")
    void filesOfAnotherProgramAreReadAsItReadsThem(Path file) throws Exception {
        ByteBuffer expected = ByteBuffer.wrap(Files.readAllBytes(file.resolveSibling(file.getFileName() + ".f32")))
                .order(ByteOrder.LITTLE_ENDIAN);
        SoundFiles.Loaded loaded = SoundFiles.read(file);
        assertThat(loaded.warning()).isNull();
        Clip clip = loaded.clip();
        int frames = expected.remaining() / 4 / clip.channelCount();
        // the other program leaves out the last two frames of MPEG sound, of 576 or 1152 samples
        assertThat(clip.length() - frames).isBetween(0, file.toString().endsWith(".mp3") ? 2303 : 0);
        double off = 0;
        for (int i = 0; i < frames; i++) {
            for (int c = 0; c < clip.channelCount(); c++) {
                off = Math.max(off, Math.abs(clip.channel(c)[i] - expected.getFloat()));
            }
        }
        // 32 bits and more do not fit a float: the last bit may be rounded another way
        double rounding = file.toString().matches(".*(32|64).*") ? 0x1.0p-24 : 0;
        assertThat(off).isLessThanOrEqualTo(file.toString().matches(".*\\.(mp3|ogg)") ? 1e-3 : rounding);
        assertThat(SoundFiles.format(file).sampleRateHz()).isEqualTo(clip.sampleRateHz());
        assertThat(SoundFiles.looksLikeSound(file)).isTrue();
    }

    @ParameterizedTest
    @MethodSource("everyKind")
    void aSpanIsThatPartOfTheWhole(Path file) throws Exception {
        Clip whole = SoundFiles.read(file).clip();
        double rate = whole.sampleRateHz();
        int from = whole.length() / 3;
        int to = whole.length() / 2;
        Clip span = SoundFiles.read(file, from / rate, to / rate).clip();
        assertThat(span.length()).isEqualTo(to - from);
        for (int c = 0; c < whole.channelCount(); c++) {
            assertThat(span.channel(c)).containsExactly(Arrays.copyOfRange(whole.channel(c), from, to));
        }
        assertThatThrownBy(() -> SoundFiles.read(file, 20, 21)).hasMessageContaining("ends before 20.0 s");
    }

    @ParameterizedTest
    @MethodSource("everyKind")
    void anOutlineHoldsThePeaks(Path file) throws Exception {
        Clip whole = SoundFiles.read(file).clip();
        Outline outline = SoundFiles.outline(file, seconds -> {});
        double peak = 0;
        for (float p : outline.peaks()) {
            peak = Math.max(peak, p);
        }
        assertThat(peak).isCloseTo(whole.peak(), within(1e-9));
        assertThat(outline.seconds()).isCloseTo(whole.seconds(), within(0.0101));
    }

    /** Bytes changed, cut out, doubled and cut off, the more of them near the start, where headers are. */
    @ParameterizedTest
    @MethodSource("everyKind")
    void damagedFilesEndInAMessageOrInSound(Path file) throws Exception {
        byte[] good = Files.readAllBytes(file);
        Random r = new Random(file.getFileName().toString().hashCode());
        assertTimeoutPreemptively(Duration.ofMinutes(10), () -> {
            for (int i = 0; i < Integer.getInteger("damaged", 60); i++) { // -Ddamaged=1000 for a long look
                byte[] bad = Damage.to(good, r);
                try {
                    assertThat(SoundFiles.read(bad, "bad").clip().length()).isPositive();
                } catch (UnusableSound e) {
                    assertThat(e.getMessage()).startsWith("bad ").contains(": ").hasSizeLessThan(240);
                }
            }
        });
    }

    @Test
    void chunksInAnotherOrderAndOddBytesLeftOutAreFound() throws Exception {
        byte[] wav = WavFiles.encode(stereo(), WavFiles.Format.PCM16);
        ByteBuffer odd = ByteBuffer.allocate(wav.length + 8 + 3).order(ByteOrder.LITTLE_ENDIAN);
        odd.put(wav, 0, 12);
        odd.put("LIST".getBytes(US_ASCII)).putInt(3).put(new byte[] {1, 2, 3}); // and no byte to make it even
        odd.put(wav, 36, wav.length - 36).put(wav, 12, 24); // the samples before their description
        Clip back = SoundFiles.read(odd.array(), "odd.wav").clip();
        assertThat(back.length()).isEqualTo(stereo().length());
        assertThat(back.channel(1)).containsExactly(stereo().channel(1), within(3.1e-5f));
    }

    @ParameterizedTest
    @CsvSource({"0", "-1"}) // what writers leave that cannot go back to fill in the length
    void aLengthThatWasNeverFilledInIsNoObstacle(int announced) throws Exception {
        ByteBuffer wav = ByteBuffer.wrap(WavFiles.encode(stereo(), WavFiles.Format.PCM16))
                .order(ByteOrder.LITTLE_ENDIAN);
        wav.putInt(40, announced);
        SoundFiles.Loaded loaded = SoundFiles.read(wav.array(), "stream.wav");
        assertThat(loaded.clip().length()).isEqualTo(stereo().length());
        assertThat(loaded.warning()).contains("stream.wav does not say how long it is");
    }

    @Test
    void compressedKindsInsideWavAreNamed() {
        ByteBuffer adpcm = header(2, 4, 400, 44_100);
        assertThatThrownBy(() -> SoundFiles.read(adpcm.array(), "old.wav")).hasMessageContaining("ADPCM");
    }

    @Test
    void anHourIsLookedThroughAndASpanOfItIsRead() throws Exception {
        Path file = folder.resolve("session.wav");
        int frames = 3600 * 8000;
        try (RandomAccessFile f = new RandomAccessFile(file.toFile(), "rw")) { // sparse
            f.write(Arrays.copyOf(header(1, 16, 0, 8000).array(), 40));
            f.writeInt(Integer.reverseBytes(2 * frames));
            f.setLength(44L + 2L * frames);
            f.seek(44 + 2L * 8000 * 1800); // one loud sample after half an hour
            f.writeShort(Short.reverseBytes((short) 16_384));
        }
        long[] told = new long[1];
        Outline outline = SoundFiles.outline(file, seconds -> told[0]++);
        assertThat(told[0]).isGreaterThan(1000);
        assertThat(outline.seconds()).isCloseTo(3600, within(0.02));
        assertThat(outline.peaks()[180_000]).isEqualTo(0.5f);
        assertThat(SoundFiles.read(file, 1799.5, 1800.5).clip().channel(0)[4000])
                .isEqualTo(0.5f);
        assertThatThrownBy(() -> SoundFiles.outline(file, seconds -> {
                    throw new CancellationException();
                }))
                .isInstanceOf(CancellationException.class);
    }
}
