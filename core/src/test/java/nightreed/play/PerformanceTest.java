package nightreed.play;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import javax.sound.midi.MetaMessage;
import javax.sound.midi.MidiEvent;
import javax.sound.midi.MidiSystem;
import javax.sound.midi.Sequence;
import javax.sound.midi.ShortMessage;
import javax.sound.midi.Track;
import nightreed.Tones;
import nightreed.recipe.Patch;
import nightreed.recipe.RecipeTest;
import nightreed.sound.Clip;
import nightreed.voice.Playable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class PerformanceTest {
    private static final int FS = 48_000;

    @TempDir
    Path folder;

    /** Says what hands did. */
    private static final class Told implements Playable {
        final List<String> all = new ArrayList<>();

        private void say(String format, Object... values) {
            all.add(String.format(Locale.ROOT, format, values));
        }

        @Override
        public void noteOn(int key, double velocity) {
            say("on %d %.3f", key, velocity);
        }

        @Override
        public void noteOff(int key) {
            say("off %d", key);
        }

        @Override
        public void pedal(boolean down) {
            say("pedal %s", down);
        }

        @Override
        public void bend(double value) {
            say("bend %.4f", value);
        }

        @Override
        public void wheel(double value) {
            say("wheel %.3f", value);
        }

        @Override
        public void panic() {
            say("panic");
        }
    }

    @ParameterizedTest
    @CsvSource({
        "144, 60, 127, on 60 1.000",
        "153, 60, 64, on 60 0.504", // any channel
        "144, 60, 0, off 60",
        "128, 61, 64, off 61",
        "176, 64, 63, pedal false",
        "176, 64, 64, pedal true",
        "176, 1, 127, wheel 1.000",
        "224, 0, 64, bend 0.0000",
        "224, 0, 0, bend -1.0000",
        "224, 127, 127, bend 1.0000",
        "176, 120, 0, panic",
        "176, 123, 0, panic",
        "176, 21, 127, control 21 1.000",
    })
    void messagesBecomeWhatHandsDo(int status, int first, int second, String what) {
        Told told = new Told();
        new MidiHand(told, (c, v) -> told.say("control %d %.3f", c, v)).take(status, first, second);
        assertThat(told.all).containsExactly(what);
    }

    @Test
    void pressureProgrammesAndSystemMessagesDoNothing() {
        Told told = new Told();
        MidiHand hand = new MidiHand(told, (c, v) -> told.say("control"));
        for (int status : new int[] {0xA0, 0xC3, 0xD0, 0xF8, 0xFE, 0, 64}) {
            hand.take(status, 60, 60);
        }
        assertThat(told.all).isEmpty();
    }

    /** Two notes a quarter apart; the tempo doubles at the second. */
    private Path file() throws Exception {
        Sequence s = new Sequence(Sequence.PPQ, 96);
        Track tempo = s.createTrack();
        Track notes = s.createTrack();
        tempo.add(new MidiEvent(new MetaMessage(0x51, new byte[] {0x07, (byte) 0xA1, 0x20}, 3), 0)); // 0.5 s
        tempo.add(new MidiEvent(new MetaMessage(0x51, new byte[] {0x03, (byte) 0xD0, (byte) 0x90}, 3), 96)); // 0.25 s
        notes.add(new MidiEvent(new ShortMessage(ShortMessage.NOTE_ON, 0, 57, 100), 0));
        notes.add(new MidiEvent(new ShortMessage(ShortMessage.NOTE_OFF, 0, 57, 0), 96));
        notes.add(new MidiEvent(new ShortMessage(ShortMessage.NOTE_ON, 2, 69, 100), 192));
        Path file = folder.resolve("two.mid");
        MidiSystem.write(s, 1, file.toFile());
        return file;
    }

    @Test
    void filesArePlayedAtTheirOwnTempo() throws Exception {
        Performance p = Performance.read(file());
        assertThat(p.events()).hasSize(3);
        assertThat(p.events().get(1).seconds()).isCloseTo(0.5, within(1e-9));
        assertThat(p.seconds()).isCloseTo(0.75, within(1e-9));
        Clip c = p.render(Patch.of(RecipeTest.bar()), FS, 1);
        assertThat(c.seconds()).isCloseTo(1.75, within(1e-4));
        float[] x = c.channel(0);
        double second = Tones.amplitudeAt(x, FS, 440, 36_100, 9600);
        assertThat(second).isGreaterThan(10 * Tones.amplitudeAt(x, FS, 440, 24_000, 9600));
    }

    @Test
    void whatIsNoMidiFileIsRefusedInWords() throws Exception {
        Path text = Files.writeString(folder.resolve("words.mid"), "no music here");
        assertThatThrownBy(() -> Performance.read(text))
                .isInstanceOf(IOException.class)
                .hasMessageContaining("words.mid")
                .hasMessageContaining("no Standard MIDI File");
        byte[] whole = Files.readAllBytes(file());
        Path cutShort = Files.write(folder.resolve("cut.mid"), java.util.Arrays.copyOf(whole, whole.length - 3));
        assertThatThrownBy(() -> Performance.read(cutShort)).hasMessageContaining("cut short, track 2 announces");
        for (int cut = 1; cut < whole.length; cut++) {
            Path part = Files.write(folder.resolve("part.mid"), java.util.Arrays.copyOf(whole, cut));
            try {
                assertThat(Performance.read(part).events()).isNotEmpty();
            } catch (IOException e) {
                assertThat(e).hasMessageContaining("part.mid");
            }
        }
    }

    @ParameterizedTest
    @CsvSource({"0", "57", "127"})
    void thePhraseUsesOnlyWhatMidiKnows(int home) {
        Performance p = Performance.phrase(home);
        assertThat(p.seconds()).isBetween(5.0, 30.0);
        assertThat(p.events()).allMatch(e -> e.first() >= 0 && e.first() < 128 && e.second() >= 0 && e.second() < 128);
        Clip c = p.render(Patch.of(RecipeTest.bar()), FS, 1);
        assertThat(c.peak()).isGreaterThan(0.001f);
    }
}
