package nightreed.music;

import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Equal-tempered keys by MIDI number (A4 = 69 = 440 Hz unless a reference is given), their names, Hz and cents.
 */
public final class Pitch {
    /** Concert pitch of A4 [Hz]. */
    public static final double A4_HZ = 440;

    private static final String[] NAMES = {"C", "C#", "D", "Eb", "E", "F", "F#", "G", "Ab", "A", "Bb", "B"};
    private static final Pattern NAME = Pattern.compile("([A-Ga-g])([#b]{0,2})(-?\\d{1,2})");
    private static final int[] STEPS = {9, 11, 0, 2, 4, 5, 7}; // A B C D E F G

    private Pitch() {}

    /** Frequency [Hz] of a key, which may be fractional: 440·2^((m-69)/12). */
    public static double hz(double midi) {
        return A4_HZ * Math.pow(2, (midi - 69) / 12);
    }

    /** Fractional MIDI number of a frequency [Hz] above 0. */
    public static double midi(double hz) {
        return 69 + 12 * Math.log(hz / A4_HZ) / Math.log(2);
    }

    /** Interval from {@code fromHz} to {@code toHz} in cents, positive upward. */
    public static double cents(double fromHz, double toHz) {
        return 1200 * Math.log(toHz / fromHz) / Math.log(2);
    }

    /** Nearest equal-tempered key of a frequency [Hz] above 0. */
    public static int nearestKey(double hz) {
        return (int) Math.round(midi(hz));
    }

    /** Distance of a frequency from its nearest key in cents, -50 to 50. */
    public static double centsFromNearest(double hz) {
        return 100 * (midi(hz) - nearestKey(hz));
    }

    /** Name of a key, C4 = 60: "A3", "Eb4". */
    public static String name(int key) {
        return NAMES[Math.floorMod(key, 12)] + (Math.floorDiv(key, 12) - 1);
    }

    /**
     * Key from a MIDI number ("57") or a name ("A3", "Eb4", "f#2").
     *
     * @throws IllegalArgumentException if it is neither, or not within 0..127
     */
    public static int key(String text) {
        String t = text.trim();
        int key;
        Matcher m = NAME.matcher(t);
        if (m.matches()) {
            int step = STEPS[Character.toUpperCase(m.group(1).charAt(0)) - 'A'];
            for (char c : m.group(2).toCharArray()) {
                step += c == '#' ? 1 : -1;
            }
            key = 12 * (Integer.parseInt(m.group(3)) + 1) + step;
        } else if (t.matches("\\d{1,3}")) {
            key = Integer.parseInt(t);
        } else {
            throw new IllegalArgumentException(
                    "'" + text + "' is not a key: give a MIDI number (57) or a name (A3, Eb4)");
        }
        if (key < 0 || key > 127) {
            throw new IllegalArgumentException("key '" + text + "' is outside 0 to 127 (C-1 to G9)");
        }
        return key;
    }
}
