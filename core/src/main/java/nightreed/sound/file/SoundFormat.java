package nightreed.sound.file;

/**
 * What a file says about its sound.
 *
 * @param kind         name of the format for people, such as "WAV, 24 bit"
 * @param sampleRateHz samples a second of each channel
 * @param channels     1 or more
 * @param frames       samples per channel, -1 if the file does not say
 */
public record SoundFormat(String kind, int sampleRateHz, int channels, long frames) {
    /** Length [s], NaN if the file does not say. */
    public double seconds() {
        return frames < 0 ? Double.NaN : (double) frames / sampleRateHz;
    }
}
