package nightreed.device;

/** Makes sound when asked. Called on the audio thread: no locks, no allocation, no logging. */
@FunctionalInterface
public interface AudioSource {
    /** Fills {@code left[0..n)} and {@code right[0..n)}, two different arrays, full scale = 1. */
    void render(float[] left, float[] right, int n);
}
