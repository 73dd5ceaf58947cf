package nightreed.measure;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.Random;
import nightreed.room.RecordingRoom;
import nightreed.sound.Clip;
import nightreed.sound.UnusableSound;
import nightreed.sound.WavFiles;
import nightreed.sound.file.SoundFiles;
import org.junit.jupiter.api.Test;

/** Damaged files are measured, or refused in words; a long look is taken in bench/. */
class DamagedSoundTest {
    @Test
    void aDamagedFileIsMeasuredOrRefusedInWords() {
        Clip note = RecordingRoom.record(RecordingRoom.instrument("slate-bars"), 64, 0.8, 1);
        byte[] whole = WavFiles.encode(note.span(0, 20_000), WavFiles.Format.FLOAT32);
        float[] odd = {Float.NaN, Float.NEGATIVE_INFINITY, 1e30f, 1e-42f, 4f};
        int measured = 0;
        int refused = 0;
        for (int seed = 0; seed < 60; seed++) {
            Random r = new Random(seed);
            byte[] b = whole.clone();
            if (seed % 3 == 0) {
                b = java.util.Arrays.copyOf(b, 44 + r.nextInt(b.length - 44));
            } else if (seed % 3 == 1) {
                for (int k = 0; k < 300; k++) {
                    b[100 + r.nextInt(b.length - 100)] = (byte) r.nextInt(256);
                }
            } else {
                ByteBuffer.wrap(b)
                        .order(ByteOrder.LITTLE_ENDIAN)
                        .putFloat(80 + 4 * r.nextInt((b.length - 84) / 4), odd[r.nextInt(odd.length)]);
            }
            try {
                Measurement m = Measurer.measure(SoundFiles.read(b, "damaged").clip());
                assertThat(m.partials()).allSatisfy(p -> {
                    assertThat(p.frequencyHz()).isFinite().isPositive();
                    assertThat(p.levelDb()).isNotNaN();
                });
                measured++;
            } catch (UnusableSound e) {
                assertThat(e.getMessage()).hasSizeGreaterThan(20);
                refused++;
            }
        }
        assertThat(measured).isGreaterThan(5);
        assertThat(refused).isGreaterThan(5);
    }
}
