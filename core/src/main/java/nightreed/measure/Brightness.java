package nightreed.measure;

/**
 * Path of the spectral centroid.
 *
 * @param startHz         centroid in the first 30 ms [Hz]
 * @param endHz           centroid when the note has fallen by 30 dB, or at the end of the clip [Hz]
 * @param halfTimeSeconds time from the onset until half the way (in Bark) is done [s]
 */
public record Brightness(double startHz, double endHz, double halfTimeSeconds) {}
