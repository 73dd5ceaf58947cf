package nightreed.measure;

import java.util.List;

/**
 * That a note is no recording: it stands for what is typical of a family of instruments, and nobody knows it better than so.
 *
 * @param words   how it was described, in words that can be read again
 * @param sources where its values are from
 */
public record Typical(String words, List<String> sources) {
    /** What instruments of a family differ by: their partials [cents], levels [dB], decays and rises [factor]. Working values. */
    public static final double SPREAD_CENTS = 30;

    public static final double LEVEL_DB = 6;
    public static final double TIME_FACTOR = 2;

    /** Brightness, as far as it differs between good instruments of a kind: a third of an octave [Bark]. */
    public static final double BRIGHTNESS_BARK = 0.9;

    public Typical {
        sources = List.copyOf(sources);
    }
}
