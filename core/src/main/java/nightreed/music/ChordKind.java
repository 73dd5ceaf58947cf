package nightreed.music;

import java.util.List;

/**
 * Kinds of chords, the plainer first. Tones stand as semitones over the root, each with the letters it is away from it, so that a seventh that
 * is twice flattened is still a seventh.
 */
enum ChordKind {
    MAJOR("", 0, "0.0 4.2 7.4", ""),
    MINOR("m", 0, "0.0 3.2 7.4", ""),
    FIFTH("5", 1, "0.0 7.4", ""),
    SEVENTH("7", 1, "0.0 4.2 10.6", "7.4"),
    MINOR_SEVENTH("m7", 1, "0.0 3.2 10.6", "7.4"),
    MAJOR_SEVENTH("maj7", 1, "0.0 4.2 11.6", "7.4"),
    DIMINISHED("dim", 1, "0.0 3.2 6.4", ""),
    AUGMENTED("aug", 2, "0.0 4.2 8.4", ""),
    SUSPENDED_FOURTH("sus4", 2, "0.0 5.3 7.4", ""),
    SUSPENDED_SECOND("sus2", 2.5, "0.0 2.1 7.4", ""),
    HALF_DIMINISHED("m7b5", 2, "0.0 3.2 6.4 10.6", ""),
    DIMINISHED_SEVENTH("dim7", 2, "0.0 3.2 6.4 9.6", ""),
    SIXTH("6", 3, "0.0 4.2 7.4 9.5", ""),
    MINOR_SIXTH("m6", 3, "0.0 3.2 7.4 9.5", ""),
    MINOR_MAJOR_SEVENTH("m(maj7)", 3, "0.0 3.2 11.6", "7.4"),
    SEVENTH_SUSPENDED("7sus4", 3, "0.0 5.3 7.4 10.6", ""),
    AUGMENTED_SEVENTH("7#5", 3, "0.0 4.2 8.4 10.6", ""),
    SEVENTH_FLAT_FIFTH("7b5", 3, "0.0 4.2 6.4 10.6", ""),
    MAJOR_SEVENTH_SHARP_FIFTH("maj7#5", 4, "0.0 4.2 8.4 11.6", ""),
    ADDED_NINTH("add9", 3, "0.0 4.2 7.4 2.8", ""),
    MINOR_ADDED_NINTH("m(add9)", 3, "0.0 3.2 7.4 2.8", ""),
    NINTH("9", 2, "0.0 4.2 10.6 2.8", "7.4"),
    MINOR_NINTH("m9", 2, "0.0 3.2 10.6 2.8", "7.4"),
    MAJOR_NINTH("maj9", 2, "0.0 4.2 11.6 2.8", "7.4"),
    SIXTH_NINTH("6/9", 4, "0.0 4.2 9.5 2.8", "7.4"),
    MINOR_SIXTH_NINTH("m6/9", 5, "0.0 3.2 9.5 2.8", "7.4"),
    FLAT_NINTH("7b9", 3, "0.0 4.2 10.6 1.8", "7.4"),
    SHARP_NINTH("7#9", 3, "0.0 4.2 10.6 3.8", "7.4"),
    NINTH_SUSPENDED("9sus4", 4, "0.0 5.3 10.6 2.8", "7.4"),
    ELEVENTH("11", 3.5, "0.0 4.2 10.6 5.10", "7.4 2.8"),
    MINOR_ELEVENTH("m11", 3, "0.0 3.2 10.6 5.10", "7.4 2.8"),
    MAJOR_ELEVENTH("maj11", 4, "0.0 4.2 11.6 5.10", "7.4 2.8"),
    SHARP_ELEVENTH("7#11", 4, "0.0 4.2 7.4 10.6 6.10", "2.8"),
    MAJOR_SHARP_ELEVENTH("maj7#11", 4, "0.0 4.2 7.4 11.6 6.10", "2.8"),
    THIRTEENTH("13", 3.5, "0.0 4.2 10.6 9.12", "7.4 2.8 5.10"),
    MINOR_THIRTEENTH("m13", 4, "0.0 3.2 10.6 9.12", "7.4 2.8 5.10"),
    MAJOR_THIRTEENTH("maj13", 4, "0.0 4.2 11.6 9.12", "7.4 2.8 5.10");

    /** @param semitones over the root @param letters away from it; 7 and more are over the octave */
    record Tone(int semitones, int letters) {}

    private final String symbol;
    private final double rarity;
    private final List<Tone> needed;
    private final List<Tone> optional;

    ChordKind(String symbol, double rarity, String needed, String optional) {
        this.symbol = symbol;
        this.rarity = rarity;
        this.needed = tones(needed);
        this.optional = tones(optional);
    }

    private static List<Tone> tones(String text) {
        return text.isEmpty()
                ? List.of()
                : java.util.Arrays.stream(text.split(" "))
                        .map(t -> t.split("\\."))
                        .map(t -> new Tone(Integer.parseInt(t[0]), Integer.parseInt(t[1])))
                        .toList();
    }

    /** What stands behind the root in a name. */
    String symbol() {
        return symbol;
    }

    /** How much a plainer kind is to be preferred. */
    double rarity() {
        return rarity;
    }

    /** Without which it is another chord. */
    List<Tone> needed() {
        return needed;
    }

    /** That are often left out. */
    List<Tone> optional() {
        return optional;
    }
}
