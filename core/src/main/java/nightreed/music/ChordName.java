package nightreed.music;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import nightreed.music.ChordKind.Tone;

/**
 * Keys that sound together, with the name of their chord.
 *
 * @param name      such as {@code Bbm7} or {@code D/F#}
 * @param root      of the chord
 * @param kind      what stands behind the root
 * @param keys      MIDI numbers, rising
 * @param notes     the keys as they are written, in their order
 * @param inversion 0 with the root in the bass, 1 with the third, and so on; -1 with a bass that is not of the chord
 */
public record ChordName(
        String name, Spelling root, String kind, List<Integer> keys, List<String> notes, int inversion) {
    public static final int MOST_NOTES = 10;

    /** What other readings cost, against the rarity of a kind: chosen so that the root is looked for in the bass first. */
    private static final double INVERTED = 3;

    private static final double LEFT_OUT = 1.5;
    private static final double STRANGE_BASS = 6;

    public ChordName {
        keys = List.copyOf(keys);
        notes = List.copyOf(notes);
    }

    private record Reading(ChordKind kind, int root, double cost, List<Tone> tones, boolean strangeBass) {}

    /**
     * Names keys that sound together.
     *
     * @param keys two to {@value #MOST_NOTES} MIDI numbers, in any order
     * @param in   the key that it is written in; null for none
     * @throws IllegalArgumentException if there are too few or too many, or no chord has these notes
     */
    public static ChordName of(List<Integer> keys, Tonality in) {
        return of(keys, in, null);
    }

    /** @param written how the lowest key of each pitch class was written, null entries and null for not at all */
    private static ChordName of(List<Integer> keys, Tonality in, Spelling[] written) {
        List<Integer> rising = keys.stream().distinct().sorted().toList();
        if (rising.size() < 2 || rising.size() > MOST_NOTES) {
            throw new IllegalArgumentException(
                    "a chord has 2 to " + MOST_NOTES + " different keys, got " + rising.size());
        }
        Set<Integer> classes = new TreeSet<>();
        rising.forEach(k -> classes.add(Math.floorMod(k, 12)));
        int bass = Math.floorMod(rising.get(0), 12);
        Reading best = best(classes, bass, false);
        if (classes.size() > 3) { // over a bass of its own
            Set<Integer> upper = new TreeSet<>(classes);
            upper.remove(bass);
            Reading other = best(upper, bass, true);
            best = best == null || other != null && other.cost < best.cost ? other : best;
        }
        if (best == null) {
            throw new IllegalArgumentException("no chord up to a thirteenth has the notes "
                    + String.join(" ", rising.stream().map(Pitch::name).toList()));
        }
        Spelling root = root(best, in, written);
        return named(best, root, rising, in);
    }

    /**
     * From text: notes ({@code D4 F4 A4 C5}), keys ({@code 62 65 69 72}) or a chord by its name ({@code Dm7}, {@code D/F#}), which stands
     * in close position from the third octave on.
     *
     * @throws IllegalArgumentException saying what is not understood
     */
    public static ChordName parse(String text, Tonality in) {
        String[] words = text.trim().split("[\\s,]+");
        if (words.length == 1) {
            return byName(words[0]); // Eb7 is a chord, since one note is none
        }
        List<Integer> keys = new ArrayList<>();
        Spelling[] written = new Spelling[12];
        for (String w : words) {
            int key = Pitch.key(w);
            keys.add(key);
            if (w.matches("[A-Ga-g][#b]{0,2}-?\\d")) {
                written[Math.floorMod(key, 12)] = Spelling.of(w.replaceAll("-?\\d$", ""));
            }
        }
        return of(keys, in, written);
    }

    private static ChordName byName(String name) {
        java.util.regex.Matcher m = java.util.regex.Pattern.compile("([A-G][#b]?)(.*?)(?:/([A-G][#b]?))?")
                .matcher(name);
        if (!m.matches()) {
            throw new IllegalArgumentException("'" + name + "' is no chord: write Dm7, D/F#, or its notes D4 F4 A4 C5");
        }
        Spelling root = Spelling.of(m.group(1));
        String symbol = m.group(2).equals("min") || m.group(2).equals("-") ? "m" : m.group(2);
        for (ChordKind k : ChordKind.values()) {
            boolean slashed = k.symbol().contains("/"); // 6/9 has a stroke of its own
            String whole = m.group(3) == null ? symbol : symbol + "/" + m.group(3);
            if (k.symbol().equals(symbol)
                    || slashed && k.symbol().equals(name.substring(m.group(1).length()))) {
                List<Tone> tones = new ArrayList<>(k.needed());
                tones.addAll(k.optional());
                List<Integer> keys = new ArrayList<>();
                int at = 48 + root.pitchClass();
                tones.forEach(t -> keys.add(at + t.semitones() + (t.letters() > 7 ? 12 : 0)));
                if (m.group(3) != null && !slashed) {
                    keys.add(36 + Spelling.of(m.group(3)).pitchClass());
                }
                Reading r = new Reading(k, root.pitchClass(), 0, tones, false);
                ChordName plain =
                        named(r, root, keys.stream().distinct().sorted().toList(), null);
                return m.group(3) == null || slashed
                        ? plain
                        : new ChordName(root + whole, root, k.symbol(), plain.keys(), plain.notes(), plain.inversion());
            }
        }
        throw new IllegalArgumentException("'" + symbol + "' is no kind of chord that is known here: there is "
                + String.join(
                        ", ",
                        Arrays.stream(ChordKind.values())
                                .map(ChordKind::symbol)
                                .filter(s -> !s.isEmpty())
                                .toList()));
    }

    /** Tones needed to play it: as many voices. */
    public int voices() {
        return keys.size();
    }

    private static Reading best(Set<Integer> classes, int bass, boolean strange) {
        Reading best = null;
        for (int root : classes) {
            for (ChordKind k : ChordKind.values()) {
                List<Tone> tones = tones(k, classes, root);
                if (tones != null) {
                    double cost = k.rarity()
                            + LEFT_OUT * (k.optional().size() + k.needed().size() - tones.size())
                            + (strange ? STRANGE_BASS : root == bass ? 0 : INVERTED);
                    if (best == null || cost < best.cost - 1e-9) {
                        best = new Reading(k, root, cost, tones, strange);
                    }
                }
            }
        }
        return best;
    }

    /** Tones of a kind over a root that these classes are, no more and no less; null if they are not. */
    private static List<Tone> tones(ChordKind kind, Set<Integer> classes, int root) {
        List<Tone> there = new ArrayList<>();
        for (Tone t : kind.needed()) {
            if (!classes.contains(Math.floorMod(root + t.semitones(), 12))) {
                return null;
            }
            there.add(t);
        }
        for (Tone t : kind.optional()) {
            if (classes.contains(Math.floorMod(root + t.semitones(), 12))) {
                there.add(t);
            }
        }
        return there.stream().map(t -> t.semitones() % 12).distinct().count() == classes.size() ? there : null;
    }

    /** As the key has it, as it was written, or with the fewest accidentals in the whole chord. */
    private static Spelling root(Reading r, Tonality in, Spelling[] written) {
        Spelling own = in == null ? null : in.of(r.root);
        if (own != null) {
            return own;
        }
        if (written != null && written[r.root] != null) {
            return written[r.root];
        }
        Spelling best = Spelling.usual(r.root);
        for (int letter = 0; letter < 7; letter++) {
            for (int a = -1; a <= 1; a++) {
                Spelling s = new Spelling(letter, a);
                if (s.pitchClass() == r.root && accidentals(r, s) < accidentals(r, best)) {
                    best = s;
                }
            }
        }
        return best;
    }

    private static int accidentals(Reading r, Spelling root) {
        return r.tones.stream()
                .mapToInt(t -> Math.abs(root.up(t.letters(), t.semitones() + (t.letters() > 7 ? 12 : 0))
                        .accidentals()))
                .sum();
    }

    private static ChordName named(Reading r, Spelling root, List<Integer> rising, Tonality in) {
        List<String> notes = new ArrayList<>();
        int inversion = -1;
        for (int key : rising) {
            Spelling s = null;
            for (int i = 0; i < r.tones.size(); i++) {
                Tone t = r.tones.get(i);
                if (Math.floorMod(r.root + t.semitones(), 12) == Math.floorMod(key, 12)) {
                    s = root.up(t.letters(), t.semitones() + (t.letters() > 7 ? 12 : 0));
                    inversion = notes.isEmpty() ? order(r.tones, t) : inversion;
                }
            }
            if (s == null) { // a bass of its own
                Spelling own = in == null ? null : in.of(Math.floorMod(key, 12));
                s = own == null ? Spelling.usual(key) : own;
            }
            notes.add(s.at(key));
        }
        String bass = notes.get(0).replaceAll("-?\\d+$", "");
        String slash = inversion == 0 ? "" : "/" + bass;
        return new ChordName(root + r.kind.symbol() + slash, root, r.kind.symbol(), rising, notes, inversion);
    }

    /** Place of a tone in the pile of thirds. */
    private static int order(List<Tone> tones, Tone of) {
        return (int) tones.stream().filter(t -> t.letters() < of.letters()).count();
    }
}
