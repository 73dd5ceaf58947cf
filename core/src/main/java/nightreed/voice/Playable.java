package nightreed.voice;

/** What hands do to an instrument. */
public interface Playable {
    /** @param key MIDI number @param velocity 0 to 1 */
    void noteOn(int key, double velocity);

    void noteOff(int key);

    /** Sustain pedal. */
    void pedal(boolean down);

    /** Pitch wheel, -1 to 1. */
    void bend(double value);

    /** Modulation wheel, 0 to 1. */
    void wheel(double value);

    /** Silences everything at once. */
    void panic();
}
