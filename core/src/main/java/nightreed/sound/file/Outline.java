package nightreed.sound.file;

/**
 * A long file at a glance: its loudest sample per short stretch.
 *
 * @param format         what the file says about itself
 * @param stretchSeconds length of a stretch [s]
 * @param peaks          largest absolute sample of any channel, per stretch; full scale = 1
 */
public record Outline(SoundFormat format, double stretchSeconds, float[] peaks) {
    /** Length that was really found [s]. */
    public double seconds() {
        return peaks.length * stretchSeconds;
    }
}
