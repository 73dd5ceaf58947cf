package nightreed.music;

import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A major or minor key: which letter each of its notes is written with.
 *
 * @param tonic letter and accidentals of its first note
 * @param minor whether it is minor (natural)
 */
public record Tonality(Spelling tonic, boolean minor) {
    private static final Pattern NAME =
            Pattern.compile("\\s*([A-Ga-g][#b]?)\\s*(major|minor|maj|min|m|)\\s*", Pattern.CASE_INSENSITIVE);
    private static final int[] MAJOR = {0, 2, 4, 5, 7, 9, 11};
    private static final int[] MINOR = {0, 2, 3, 5, 7, 8, 10};

    /**
     * From words such as {@code D minor}, {@code Bb}, {@code f# m}.
     *
     * @throws IllegalArgumentException if it is no key
     */
    public static Tonality of(String text) {
        Matcher m = NAME.matcher(text);
        if (!m.matches()) {
            throw new IllegalArgumentException("'" + text + "' is no key: write D minor, Bb major or F#m");
        }
        String mode = m.group(2);
        boolean minor =
                mode.equals("m") || mode.toLowerCase(java.util.Locale.ROOT).startsWith("min");
        return new Tonality(Spelling.of(m.group(1)), minor);
    }

    /** The note of a degree. @param degree 0 to 6 */
    public Spelling degree(int degree) {
        int[] steps = minor ? MINOR : MAJOR;
        return tonic.up(degree, steps[degree]);
    }

    /** How this key writes a pitch class; null if it is not of its scale. @param pitchClass 0 for C, to 11 */
    public Spelling of(int pitchClass) {
        for (int d = 0; d < 7; d++) {
            if (degree(d).pitchClass() == pitchClass) {
                return degree(d);
            }
        }
        return null;
    }

    public String name() {
        return tonic + (minor ? " minor" : " major");
    }
}
