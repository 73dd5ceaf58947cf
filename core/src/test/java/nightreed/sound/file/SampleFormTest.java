package nightreed.sound.file;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import nightreed.sound.Clip;
import nightreed.sound.UnusableSound;
import nightreed.sound.WavFiles;
import nightreed.sound.file.SampleForm.Law;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Bytes against the definitions, and headers that say where they are. */
class SampleFormTest {
    @ParameterizedTest
    @CsvSource({"1", "2", "3", "4"})
    void integersSpanFullScaleInEitherByteOrder(int bytes) {
        byte[] most = new byte[bytes];
        byte[] least = new byte[bytes];
        java.util.Arrays.fill(most, (byte) 0xff);
        most[0] = 0x7f;
        least[0] = (byte) 0x80;
        SampleForm big = new SampleForm(bytes, Law.SIGNED, true);
        double step = Math.pow(2, 1 - 8 * bytes);
        assertThat(big.value(most, 0)).isCloseTo((float) (1 - step), within(1e-7f));
        assertThat(big.value(least, 0)).isEqualTo(-1f);
        SampleForm little = new SampleForm(bytes, Law.SIGNED, false);
        assertThat(little.value(reversed(most), 0)).isEqualTo(big.value(most, 0));
        assertThat(little.value(reversed(least), 0)).isEqualTo(-1f);
    }

    private static byte[] reversed(byte[] b) {
        byte[] r = new byte[b.length];
        for (int i = 0; i < b.length; i++) {
            r[i] = b[b.length - 1 - i];
        }
        return r;
    }

    @Test
    void unsignedBytesRestAtTheirMiddle() {
        SampleForm f = new SampleForm(1, Law.UNSIGNED, false);
        assertThat(f.value(new byte[] {(byte) 128}, 0)).isZero();
        assertThat(f.value(new byte[] {0}, 0)).isEqualTo(-1f);
        assertThat(f.value(new byte[] {(byte) 255}, 0)).isEqualTo(127 / 128f);
    }

    @ParameterizedTest
    @CsvSource({"MU_LAW", "A_LAW"
    }) // G.711 codes step evenly in the logarithm: about 38 dB of signal to noise everywhere
    void companionLawsAreOddRisingAndFineNearZero(Law law) {
        SampleForm f = new SampleForm(1, law, false);
        double largest = 0;
        double smallest = 1;
        for (int code = 0; code < 128; code++) {
            int flipped = code ^ 0x80; // the sign
            float a = f.value(new byte[] {(byte) code}, 0);
            float b = f.value(new byte[] {(byte) flipped}, 0);
            assertThat(a).isEqualTo(-b);
            largest = Math.max(largest, Math.abs(a));
            smallest = a == 0 ? smallest : Math.min(smallest, Math.abs(a));
        }
        assertThat(largest).isBetween(0.97, 1.0); // 32124 and 32256 of 32768
        assertThat(smallest).isLessThan(4e-4);
    }

    @Test
    void floatsOfBothWidthsAreTheirValues() {
        byte[] d = ByteBuffer.allocate(8).putDouble(-0.123456789).array();
        assertThat(new SampleForm(8, Law.FLOAT, true).value(d, 0)).isEqualTo(-0.12345679f);
        byte[] s = ByteBuffer.allocate(4)
                .order(ByteOrder.LITTLE_ENDIAN)
                .putFloat(0.75f)
                .array();
        assertThat(new SampleForm(4, Law.FLOAT, false).value(s, 0)).isEqualTo(0.75f);
    }

    private static byte[] wav() {
        return WavFiles.encode(Clip.mono(new float[] {0, 0.25f, -0.5f, 0.75f}, 48_000), WavFiles.Format.PCM16);
    }

    /** EBU Tech 3306: sizes of 64 bits stand in a chunk of their own. */
    @Test
    void filesBeyondFourGigabytesSayTheirLengthInAChunkOfItsOwn() throws Exception {
        byte[] plain = wav();
        ByteBuffer b = ByteBuffer.allocate(plain.length + 36).order(ByteOrder.LITTLE_ENDIAN);
        b.put("RF64".getBytes(java.nio.charset.StandardCharsets.US_ASCII)).putInt(-1);
        b.put("WAVEds64".getBytes(java.nio.charset.StandardCharsets.US_ASCII)).putInt(28);
        b.putLong(plain.length + 28).putLong(8).putLong(4).putInt(0);
        b.put(plain, 12, plain.length - 12);
        b.putInt(b.position() - 12, -1); // of "data"
        SoundFiles.Loaded l = SoundFiles.read(b.array(), "long.wav");
        assertThat(l.warning()).isNull();
        assertThat(l.clip().channel(0)).containsExactly(new float[] {0, 0.25f, -0.5f, 0.75f}, within(3.1e-5f));
    }

    @Test
    void extensibleHeadersNameTheLawInTheirSecondHalf() throws Exception {
        ByteBuffer b = ByteBuffer.allocate(12 + 48 + 8 + 8).order(ByteOrder.LITTLE_ENDIAN);
        b.put("RIFF".getBytes(java.nio.charset.StandardCharsets.US_ASCII)).putInt(68);
        b.put("WAVEfmt ".getBytes(java.nio.charset.StandardCharsets.US_ASCII)).putInt(40);
        b.putShort((short) 0xFFFE)
                .putShort((short) 2)
                .putInt(44_100)
                .putInt(44_100 * 8)
                .putShort((short) 8);
        b.putShort((short) 32).putShort((short) 22).putShort((short) 32).putInt(3);
        b.putShort((short) 3).put(new byte[14]); // float, and the rest of its name
        b.put("data".getBytes(java.nio.charset.StandardCharsets.US_ASCII))
                .putInt(8)
                .putFloat(0.5f)
                .putFloat(-0.25f);
        SoundFiles.Loaded l = SoundFiles.read(b.array(), "x.wav");
        assertThat(l.format().kind()).isEqualTo("WAV, 32 bit float");
        assertThat(l.clip().channel(1)).containsExactly(-0.25f);
    }

    @ParameterizedTest
    @CsvSource({"22, 0, channels", "24, 100, samples a second", "24, 900000, samples a second"})
    void absurdHeadersAreRefusedWithWhatWouldDo(int at, int value, String what) {
        ByteBuffer b = ByteBuffer.wrap(wav()).order(ByteOrder.LITTLE_ENDIAN);
        if (at == 22) {
            b.putShort(at, (short) value);
        } else {
            b.putInt(at, value);
        }
        org.assertj.core.api.Assertions.assertThatThrownBy(() -> SoundFiles.read(b.array(), "x.wav"))
                .isInstanceOf(UnusableSound.class)
                .hasMessageContaining(what)
                .hasMessageContaining("can be used");
    }
}
