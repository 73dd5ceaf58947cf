package nightreed.device;

import java.util.List;

/** The outputs a machine has at this moment. */
public interface OutputDevices {
    /** Names of all outputs, the system's own choice first; empty if there is none. */
    List<String> names();

    /**
     * Opens an output and starts it.
     *
     * @param name         one of {@link #names()}, or null for the system's own choice
     * @param blockSamples samples per block
     * @param source       asked for 48 kHz; the output takes care of other rates
     * @return the running output, or null if it refuses
     */
    AudioOutput open(String name, int blockSamples, AudioSource source);
}
