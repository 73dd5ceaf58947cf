package nightreed.music;

/**
 * A note as it is written: a letter, and how many sharps (above 0) or flats (below 0) stand before it.
 *
 * @param letter      0 for C, 1 for D, to 6 for B
 * @param accidentals semitones up
 */
public record Spelling(int letter, int accidentals) {
    private static final String LETTERS = "CDEFGAB";
    private static final int[] SEMITONES = {0, 2, 4, 5, 7, 9, 11};

    /** How a pitch class is written where nothing says otherwise: with at most one accidental, flats for the black keys but C# and F#. */
    private static final String[] USUAL = {"C", "Db", "D", "Eb", "E", "F", "F#", "G", "Ab", "A", "Bb", "B"};

    /** @param text letter and accidentals: {@code F#}, {@code Bb}, {@code E} */
    static Spelling of(String text) {
        int accidentals = 0;
        for (char c : text.substring(1).toCharArray()) {
            accidentals += c == '#' ? 1 : -1;
        }
        return new Spelling(LETTERS.indexOf(Character.toUpperCase(text.charAt(0))), accidentals);
    }

    static Spelling usual(int pitchClass) {
        return of(USUAL[Math.floorMod(pitchClass, 12)]);
    }

    /** 0 for C, to 11 for B. */
    public int pitchClass() {
        return Math.floorMod(SEMITONES[letter] + accidentals, 12);
    }

    /** So many letters and so many semitones higher; accidentals make up the rest. */
    Spelling up(int letters, int semitones) {
        int at = letter + letters;
        int natural = 12 * Math.floorDiv(at, 7) + SEMITONES[Math.floorMod(at, 7)];
        int wanted = SEMITONES[letter] + accidentals + semitones;
        int off = wanted - natural;
        return new Spelling(Math.floorMod(at, 7), off - 12 * Math.round(off / 12f));
    }

    /** As this note at a key: with the octave that the letter stands in, so that B#3 is the key of C4. */
    public String at(int key) {
        int natural = key - accidentals;
        return this + String.valueOf(Math.floorDiv(natural, 12) - 1);
    }

    @Override
    public String toString() {
        return LETTERS.charAt(letter) + (accidentals < 0 ? "b" : "#").repeat(Math.abs(accidentals));
    }
}
