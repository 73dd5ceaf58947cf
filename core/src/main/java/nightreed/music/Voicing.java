package nightreed.music;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;

/** Ways to lay the notes of a chord, and what comes well after it. */
public final class Voicing {
    private static final int OCTAVE = 12;

    /** Keys that a hand or a mix bears: from E1 to C7. */
    private static final int LOWEST = 28;

    private static final int HIGHEST = 96;

    private Voicing() {}

    /** All tones within one octave of the bass, or as near over it as they can lie. */
    public static List<Integer> close(ChordName chord) {
        int bass = chord.keys().get(0);
        return chord.keys().stream()
                .map(k -> bass + Math.floorMod(k - bass, OCTAVE))
                .distinct()
                .sorted()
                .toList();
    }

    /** Every other tone of close position an octave higher. */
    public static List<Integer> open(ChordName chord) {
        List<Integer> close = close(chord);
        return inRange(IntStream.range(0, close.size())
                .map(i -> close.get(i) + (i % 2 == 1 ? OCTAVE : 0))
                .sorted()
                .boxed()
                .toList());
    }

    /**
     * The second or third highest tone of close position an octave lower.
     *
     * @param which 2 or 3
     * @throws IllegalArgumentException if the chord has not so many tones
     */
    public static List<Integer> drop(ChordName chord, int which) {
        List<Integer> close = close(chord);
        if (which < 2 || which > 3 || close.size() < which) {
            throw new IllegalArgumentException("drop " + which + " needs " + which + " tones or more, and is 2 or 3");
        }
        List<Integer> out = new ArrayList<>(close);
        int at = close.size() - which;
        out.set(at, close.get(at) - OCTAVE);
        return inRange(out.stream().sorted().toList());
    }

    private static List<Integer> inRange(List<Integer> keys) {
        int up = keys.get(0) < LOWEST ? OCTAVE : keys.get(keys.size() - 1) > HIGHEST ? -OCTAVE : 0;
        return keys.stream().map(k -> k + up).toList();
    }

    /**
     * A chord that may come next.
     *
     * @param common   tones that stay
     * @param movement semitones that the others move together
     */
    public record Next(ChordName chord, int common, int movement) {}

    /** Sevenths of a key in the places nearest to a chord, those that share most with it and move least first. */
    public static List<Next> next(ChordName chord, Tonality in) {
        List<Next> out = new ArrayList<>();
        for (int degree = 0; degree < 7; degree++) {
            int[] classes = new int[4];
            for (int i = 0; i < 4; i++) {
                classes[i] = in.degree((degree + 2 * i) % 7).pitchClass();
            }
            List<Integer> led = led(chord.keys(), classes);
            ChordName next = ChordName.of(led, in);
            if (!next.name().replaceAll("/.*", "").equals(chord.name().replaceAll("/.*", ""))) {
                int common = (int) led.stream().filter(chord.keys()::contains).count();
                out.add(new Next(next, common, movement(chord.keys(), led)));
            }
        }
        out.sort(Comparator.comparingInt((Next n) -> -n.common).thenComparingInt(Next::movement));
        return out;
    }

    /** Each class in the octave that lies nearest to the notes before. */
    private static List<Integer> led(List<Integer> before, int[] classes) {
        List<Integer> out = new ArrayList<>();
        for (int c : classes) {
            int best = -1;
            for (int k = Math.max(0, before.get(0) - OCTAVE);
                    k <= Math.min(127, before.get(before.size() - 1) + OCTAVE);
                    k++) {
                if (Math.floorMod(k, OCTAVE) == c && (best < 0 || nearest(before, k) < nearest(before, best))) {
                    best = k;
                }
            }
            out.add(best);
        }
        return out.stream().sorted().toList();
    }

    private static int nearest(List<Integer> keys, int key) {
        return keys.stream().mapToInt(k -> Math.abs(k - key)).min().orElse(0);
    }

    private static int movement(List<Integer> before, List<Integer> after) {
        return after.stream().mapToInt(k -> nearest(before, k)).sum();
    }
}
