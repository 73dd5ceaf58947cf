package nightreed.device;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import nightreed.Tones;
import nightreed.recipe.RecipeTest;
import nightreed.sound.Clip;
import nightreed.sound.TruePeak;
import nightreed.sound.file.SoundFiles;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class WavRecorderTest {
    private static final int FS = 48_000;

    @TempDir
    Path folder;

    private static void run(OutputMixer d, int blocks) {
        float[] l = new float[256];
        float[] r = new float[256];
        for (int i = 0; i < blocks; i++) {
            d.render(l, r, 256);
        }
    }

    @Test
    void whatIsPlayedIsInTheFileWhateverTheVolume() throws Exception {
        OutputMixer d = new OutputMixer(FS);
        d.volumeDb(-60);
        d.instrument(RecipeTest.bar());
        Path file = folder.resolve("new folder").resolve("take.wav");
        WavRecorder tape = new WavRecorder(file, FS);
        d.tape(tape);
        d.noteOn(57, 0.9);
        run(d, 400);
        d.tape(null);
        tape.close();
        Clip kept = SoundFiles.read(file).clip();
        assertThat(kept.channelCount()).isEqualTo(2);
        assertThat(kept.length()).isEqualTo(400 * 256);
        assertThat(kept.peak()).isGreaterThan(0.01);
        float[] x = kept.channel(0);
        assertThat(Math.abs(x[0]) + Math.abs(x[200])).as("no silence in front").isGreaterThan(0);
        assertThat(tape.lostSeconds()).isZero();
        assertThat(tape.problem()).isNull();
    }

    @Test
    void whatIsTooLoudIsHeldUnderTheCeiling() throws Exception {
        Path file = folder.resolve("loud.wav");
        WavRecorder tape = new WavRecorder(file, FS);
        float[] x = Clip.mono(Tones.sine(FS, 997, 4, 1), FS).channel(0);
        for (int at = 0; at + 480 <= FS; at += 480) {
            float[] part = java.util.Arrays.copyOfRange(x, at, at + 480);
            tape.put(part, part, 480);
        }
        tape.close();
        assertThat(TruePeak.db(SoundFiles.read(file).clip())).isCloseTo(-1.2, within(0.3));
    }

    @Test
    void aTakeThatIsCutOffCanBeRead() throws Exception {
        Path file = folder.resolve("cut.wav");
        try (WavRecorder tape = new WavRecorder(file, FS)) {
            float[] x = Clip.mono(Tones.sine(FS, 400, 0.3, 2.5), FS).channel(0);
            tape.put(x, x, x.length);
            long end = System.nanoTime() + 10_000_000_000L;
            while (Files.size(file) < 6L * FS && System.nanoTime() < end) { // a second of two channels at 24 bits
                Thread.sleep(5);
            }
            Clip before = SoundFiles.read(file).clip(); // as it lies on the disk, before it is finished
            assertThat(before.seconds()).isGreaterThan(0.9);
        }
        assertThat(SoundFiles.read(file).clip().seconds()).isCloseTo(2.5, within(1e-3));
    }

    @Test
    void aPlaceThatCannotBeWrittenIsToldAtOnce() throws IOException {
        Path notAFolder = Files.writeString(folder.resolve("file"), "x");
        assertThatThrownBy(() -> new WavRecorder(notAFolder.resolve("take.wav"), FS))
                .isInstanceOf(IOException.class)
                .hasMessageContaining("take.wav")
                .hasMessageContaining("choose a folder that can be written");
    }

    @Test
    void soundThatFindsNoRoomIsCountedAndNothingWaits() throws Exception {
        try (WavRecorder tape = new WavRecorder(folder.resolve("full.wav"), FS)) {
            float[] x = new float[300_000]; // more than ever waits
            tape.put(x, x, x.length);
            assertThat(tape.lostSeconds()).isCloseTo(300_000.0 / FS, within(1e-9));
        }
    }
}
