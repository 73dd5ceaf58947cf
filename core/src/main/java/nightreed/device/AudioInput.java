package nightreed.device;

/** A running microphone. Blocks of sound go to the listener it was opened with, on a thread of its own. */
public interface AudioInput extends AutoCloseable {
    /** Takes in what the microphone hears. */
    interface Listener {
        /** @param block samples, full scale = 1, valid during the call only @param n how many */
        void heard(float[] block, int n);
    }

    /** Name for people. */
    String name();

    /** Whether it is a stand-in for a microphone. */
    boolean standIn();

    int sampleRateHz();

    /** Whether it hears nothing more: unplugged. */
    boolean lost();

    @Override
    void close();
}
