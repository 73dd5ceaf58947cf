package nightreed.play;

import nightreed.voice.Playable;

/**
 * Turns MIDI channel messages of any channel into what hands do to an instrument (MIDI 1.0 detailed specification, 1996:
 * notes, sustain pedal, modulation and pitch wheel, all sound off, all notes off). Other controllers go to a listener.
 * Stateless; allocates nothing.
 */
public final class MidiHand {
    private static final int NOTE_OFF = 0x80;
    private static final int NOTE_ON = 0x90;
    private static final int CONTROL = 0xB0;
    private static final int BEND = 0xE0;
    private static final int WHEEL = 1;
    private static final int SUSTAIN = 64;
    private static final int ALL_SOUND_OFF = 120;
    private static final int FIRST_MODE_MESSAGE = 120;
    private static final int ALL_NOTES_OFF = 123;

    private final Playable instrument;
    private final ControlListener controls;

    /** Told of controllers that have no fixed meaning here. */
    @FunctionalInterface
    public interface ControlListener {
        /** @param controller 0 to 119 @param value 0 to 1 */
        void turned(int controller, double value);
    }

    public MidiHand(Playable instrument, ControlListener controls) {
        this.instrument = instrument;
        this.controls = controls;
    }

    /**
     * Takes a message; what is no channel message is left aside.
     *
     * @param status first byte, 0 to 255
     * @param first  0 to 127
     * @param second 0 to 127
     */
    public void take(int status, int first, int second) {
        switch (status & 0xF0) {
            case NOTE_ON -> {
                if (second > 0) {
                    instrument.noteOn(first, second / 127.0);
                } else {
                    instrument.noteOff(first);
                }
            }
            case NOTE_OFF -> instrument.noteOff(first);
            case BEND -> {
                int value = first + 128 * second - 8192;
                instrument.bend(value < 0 ? value / 8192.0 : value / 8191.0);
            }
            case CONTROL -> control(first, second);
            default -> {
                // pressure and programme changes have no meaning here yet
            }
        }
    }

    private void control(int controller, int value) {
        switch (controller) {
            case WHEEL -> instrument.wheel(value / 127.0);
            case SUSTAIN -> instrument.pedal(value >= 64);
            case ALL_SOUND_OFF, ALL_NOTES_OFF -> instrument.panic();
            default -> {
                if (controller < FIRST_MODE_MESSAGE) {
                    controls.turned(controller, value / 127.0);
                }
            }
        }
    }
}
