package nightreed.device;

/** Makes sound when asked. Called on the audio thread: no locks, no allocation, no logging. */
@FunctionalInterface
public interface AudioSource {
    /** Fills {@code block[0..n)}, mono, full scale = 1. */
    void render(float[] block, int n);
}
