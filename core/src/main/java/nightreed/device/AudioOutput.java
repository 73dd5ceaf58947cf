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

    /** Samples it has taken so far; one that stands still for a second has been lost. */
    long played();

    /** Whether it takes no more sound: unplugged, or its format has changed. It must then be closed and opened anew. */
    boolean lost();

    /** Stops; returns within a second. */
    @Override
    void close();
}
