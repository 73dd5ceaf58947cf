package nightreed.device.midi;

/** An open MIDI device. Its messages go to the listener it was opened with, on a thread of its own. */
public interface MidiInput extends AutoCloseable {
    /** Takes messages; must return at once. */
    @FunctionalInterface
    interface Listener {
        /** @param status first byte, 0 to 255 @param first 0 to 127 @param second 0 to 127 */
        void message(int status, int first, int second);
    }

    /** Name for people. */
    String name();

    /** Whether it is a stand-in for a device. */
    boolean standIn();

    /** Returns once no more messages come. */
    @Override
    void close();
}
