package nightreed.device;

/** A running output of sound. */
public interface AudioOutput extends AutoCloseable {
    /** Name for people. */
    String name();

    /** Whether nothing is really heard. */
    boolean standIn();

    int sampleRateHz();

    /** Time from a rendered sample to the ear, as far as known [s]. */
    double latencySeconds();

    /** Blocks that came too late since the start. */
    long dropOuts();

    /** Stops; returns within a second. */
    @Override
    void close();
}
