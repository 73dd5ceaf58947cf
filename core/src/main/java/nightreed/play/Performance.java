package nightreed.play;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import javax.sound.midi.InvalidMidiDataException;
import javax.sound.midi.MetaMessage;
import javax.sound.midi.MidiEvent;
import javax.sound.midi.MidiSystem;
import javax.sound.midi.Sequence;
import javax.sound.midi.ShortMessage;
import javax.sound.midi.Track;
import nightreed.files.Shown;
import nightreed.recipe.Patch;
import nightreed.sound.Clip;
import nightreed.voice.Instrument;

/**
 * Messages in time.
 *
 * @param events in order of time
 */
public record Performance(List<Event> events) {
    /** Longest performance [s]. */
    public static final double LONGEST_SECONDS = 600;

    private static final int HEAD = 0x4D546864; // MThd
    private static final int TRACK = 0x4D54726B; // MTrk

    /** Far more than ten minutes of the densest playing [bytes]. */
    private static final int MOST_BYTES = 16 << 20;

    private static final int TEMPO = 0x51; // of the meta messages
    private static final double USUAL_TEMPO = 0.5; // seconds a quarter, until a file says otherwise

    /**
     * A message.
     *
     * @param seconds since the start, at least 0
     * @param status  first byte of a channel message, 128 to 239
     */
    public record Event(double seconds, int status, int first, int second) {}

    public Performance {
        events = List.copyOf(events);
    }

    /** Time of the last message [s]. */
    public double seconds() {
        return events.isEmpty() ? 0 : events.get(events.size() - 1).seconds();
    }

    /**
     * Reads a Standard MIDI File: all its tracks together, at its own tempo.
     *
     * @throws IOException with a message for the user if it is none, or holds no notes
     */
    public static Performance read(Path file) throws IOException {
        Sequence s;
        try {
            byte[] bytes = whole(file);
            s = MidiSystem.getSequence(new ByteArrayInputStream(bytes));
        } catch (InvalidMidiDataException
                | IllegalArgumentException
                | ArithmeticException
                | IndexOutOfBoundsException e) {
            throw new IOException(Shown.of(file) + " is no Standard MIDI File that can be read: " + e.getMessage(), e);
        } catch (IOException e) {
            throw new IOException("cannot read " + Shown.of(file) + ": " + e.getMessage(), e);
        }
        Performance p = new Performance(timed(s));
        if (p.events.stream().noneMatch(e -> (e.status & 0xF0) == ShortMessage.NOTE_ON && e.second > 0)) {
            throw new IOException(Shown.of(file) + " holds no notes: choose a MIDI file with at least one");
        }
        if (p.seconds() > LONGEST_SECONDS) {
            throw new IOException(String.format(
                    java.util.Locale.ROOT,
                    "%s lasts %.0f s, and %.0f s can be played at the most: cut it shorter",
                    file,
                    p.seconds(),
                    LONGEST_SECONDS));
        }
        return p;
    }

    /** All bytes of a file, once its tracks are known to be as long as they say: the system's reader takes a cut one without a word. */
    private static byte[] whole(Path file) throws IOException {
        byte[] bytes;
        try (InputStream in = Files.newInputStream(file)) {
            bytes = in.readNBytes(MOST_BYTES + 1);
        }
        if (bytes.length > MOST_BYTES) {
            throw new IOException("it is larger than " + (MOST_BYTES >> 20) + " MB");
        }
        ByteBuffer b = ByteBuffer.wrap(bytes);
        int track = 0;
        boolean isMidi = bytes.length >= 4 && b.getInt(0) == HEAD; // of others the reader says that they are none
        while (isMidi && b.remaining() >= 8) {
            boolean isTrack = b.getInt() == TRACK;
            long length = b.getInt() & 0xFFFF_FFFFL;
            track += isTrack ? 1 : 0;
            if (length > b.remaining()) {
                throw new IOException(String.format(
                        java.util.Locale.ROOT,
                        "it is cut short, %s announces %d bytes and %d are there; copy or export it again",
                        isTrack ? "track " + track : "its head",
                        length,
                        b.remaining()));
            }
            b.position(b.position() + (int) length);
        }
        return bytes;
    }

    private static List<Event> timed(Sequence s) {
        List<MidiEvent> all = new ArrayList<>();
        for (Track t : s.getTracks()) {
            for (int i = 0; i < t.size(); i++) {
                all.add(t.get(i));
            }
        }
        all.sort(Comparator.comparingLong(MidiEvent::getTick));
        boolean musical = s.getDivisionType() == Sequence.PPQ;
        double tick = musical
                ? USUAL_TEMPO / Math.max(1, s.getResolution())
                : 1.0 / (s.getDivisionType() * Math.max(1, s.getResolution()));
        List<Event> out = new ArrayList<>();
        double seconds = 0;
        long at = 0;
        for (MidiEvent e : all) {
            seconds += (e.getTick() - at) * tick;
            at = e.getTick();
            if (e.getMessage() instanceof MetaMessage m && musical && m.getType() == TEMPO && m.getData().length >= 3) {
                byte[] d = m.getData();
                int micros = (d[0] & 0xFF) << 16 | (d[1] & 0xFF) << 8 | d[2] & 0xFF;
                tick = micros * 1e-6 / Math.max(1, s.getResolution());
            } else if (e.getMessage() instanceof ShortMessage m && m.getStatus() < 0xF0) {
                out.add(new Event(seconds, m.getStatus(), m.getData1(), m.getData2()));
            }
        }
        return out;
    }

    /**
     * What ships for a first hearing and for machines without a keyboard: the range from low to high at rising strength, one
     * key struck again and again into its own tail, a chord with the pedal down, both wheels, and controller 21 turned up
     * and down.
     *
     * @param home key of the recording, MIDI number; the phrase stays within two octaves of it
     */
    public static Performance phrase(int home) {
        Builder b = new Builder();
        int low = Math.max(0, home - 24);
        for (int k = 0; k < 9; k++) {
            b.note(0.35 * k, Math.min(127, low + 6 * k), 30 + 11 * k, 0.3);
        }
        for (int k = 0; k < 8; k++) {
            b.note(3.6 + 0.12 * k, home, 64 + 8 * (k % 4), 0.08);
        }
        b.control(5.0, 64, 127);
        int[] chord = {0, 4, 7, 12, 16};
        for (int k = 0; k < chord.length; k++) {
            b.note(5.05 + 0.09 * k, Math.min(127, home + chord[k]), 90, 0.25);
        }
        b.control(7.0, 64, 0);
        b.note(7.4, home, 100, 2.2);
        for (int k = 0; k <= 20; k++) {
            b.bend(7.8 + 0.02 * k, (int) (8192 + 4096 * Math.sin(Math.PI * k / 10)));
            b.control(8.4 + 0.02 * k, 1, 127 * k / 20);
        }
        b.control(9.2, 1, 0);
        for (int k = 0; k <= 40; k++) {
            b.control(9.8 + 0.03 * k, 21, 127 - Math.abs(127 - 254 * k / 40));
        }
        b.note(9.8, Math.max(0, home - 12), 80, 0.5);
        b.note(10.4, home, 110, 0.5);
        return b.done();
    }

    /**
     * Plays it.
     *
     * @param tailSeconds how long the last notes may ring [s]
     * @return clip of two channels, not limited
     */
    public Clip render(Patch patch, int sampleRateHz, double tailSeconds) {
        Instrument instrument = new Instrument(patch, sampleRateHz);
        MidiHand hand = new MidiHand(instrument, (controller, value) -> {});
        int n = Math.max(1, (int) Math.ceil((seconds() + tailSeconds) * sampleRateHz));
        float[][] out = new float[2][n];
        int at = 0;
        for (Event e : events) {
            int due = Math.min(n, (int) Math.round(e.seconds() * sampleRateHz));
            instrument.render(out[0], out[1], at, due);
            at = due;
            hand.take(e.status(), e.first(), e.second());
        }
        instrument.render(out[0], out[1], at, n);
        return new Clip(out, sampleRateHz);
    }

    private static final class Builder {
        private final List<Event> events = new ArrayList<>();

        void note(double at, int key, int velocity, double held) {
            events.add(new Event(at, ShortMessage.NOTE_ON, key, Math.min(127, velocity)));
            events.add(new Event(at + held, ShortMessage.NOTE_OFF, key, 0));
        }

        void control(double at, int controller, int value) {
            events.add(new Event(at, ShortMessage.CONTROL_CHANGE, controller, value));
        }

        void bend(double at, int value) {
            int v = Math.max(0, Math.min(16_383, value));
            events.add(new Event(at, ShortMessage.PITCH_BEND, v & 127, v >> 7));
        }

        Performance done() {
            events.sort(Comparator.comparingDouble(Event::seconds));
            return new Performance(events);
        }
    }
}
