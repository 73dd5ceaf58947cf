package nightreed.device.midi;

import java.util.List;

/** The MIDI devices a machine has at this moment. */
public interface MidiDevices {
    /** Names of all that can be listened to, no two alike; empty if there is none. */
    List<String> names();

    /** Opens one of {@link #names()}. @return null if it refuses or has gone */
    MidiInput open(String name, MidiInput.Listener listener);

    /** A machine without any. */
    static MidiDevices none() {
        return new MidiDevices() {
            @Override
            public List<String> names() {
                return List.of();
            }

            @Override
            public MidiInput open(String name, MidiInput.Listener listener) {
                return null;
            }
        };
    }
}
