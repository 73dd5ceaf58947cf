package nightreed.typical;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import nightreed.music.Pitch;

/**
 * A description in words: a family, a key, and what it is like. The longest words that are known are taken first, so that a "soft start" is
 * no soft sound; what is not understood is told.
 */
public final class Words {
    /** How far a word moves its slider, by itself and with "slightly" and "very" before it. */
    static final double SLIGHTLY = 0.3;

    static final double PLAINLY = 0.6;
    static final double VERY = 1;

    private static final Set<String> MORE = Set.of("very", "really", "extremely", "quite");
    private static final Set<String> LESS = Set.of("slightly", "little", "bit", "somewhat", "rather");
    private static final Set<String> FILLERS =
            Set.of("a", "an", "the", "and", "with", "of", "on", "at", "in", "but", "sound", "start", "note");

    private enum Slider {
        BRIGHT,
        LENGTH,
        HARD,
        MOVING,
        NOISY,
        ROOMY
    }

    private record Meaning(Slider slider, double way) {}

    private static final Map<String, Meaning> MEANINGS = meanings();

    private Words() {}

    /**
     * What was read.
     *
     * @param unknown words that were not understood, in their order
     */
    public record Read(Description description, List<String> unknown) {
        public Read {
            unknown = List.copyOf(unknown);
        }
    }

    /**
     * Reads a line such as {@code bright brass, slow start, C3}. What the line does not speak of stays as it was; with a family in it, the
     * sliders begin at their usual places.
     *
     * @param was what the line changes
     */
    public static Read read(String line, Description was) {
        List<String> words = split(line);
        List<String> unknown = new ArrayList<>();
        Family family = null;
        int familyWords = 0;
        Integer key = null;
        double velocity = was.velocity();
        double degree = PLAINLY;
        boolean not = false;
        Map<Slider, Double> said = new EnumMap<>(Slider.class);
        for (int i = 0; i < words.size(); ) {
            String word = words.get(i);
            if (MORE.contains(word) || LESS.contains(word) || word.equals("not")) {
                degree = MORE.contains(word) ? VERY : LESS.contains(word) ? SLIGHTLY : degree;
                not |= word.equals("not");
                i++;
                continue;
            }
            int known = 1;
            Named named = family(words, i);
            Spoken spoken = meaning(words, i);
            if (named != null && (spoken == null || named.length >= spoken.length)) {
                family = named.length > familyWords ? named.family : family; // of two, the one that says more
                familyWords = Math.max(familyWords, named.length);
                known = named.length;
            } else if (spoken != null) {
                double way = Math.max(-1, Math.min(1, (not ? -1 : 1) * degree * spoken.meaning.way));
                said.put(spoken.meaning.slider, way);
                known = spoken.length;
            } else if (word.equals("velocity") && i + 1 < words.size() && number(words.get(i + 1)) != null) {
                velocity = Math.max(0.01, Math.min(1, number(words.get(i + 1))));
                known = 2;
            } else if (key(word) != null) {
                key = key(word);
            } else if (!FILLERS.contains(word)) {
                unknown.add(word);
            }
            degree = PLAINLY;
            not = false;
            i += known;
        }
        Description base = family == null ? was : Description.of(family).withVelocity(velocity);
        int played = key != null ? key : family != null && family != was.family() ? family.usualKey() : was.key();
        double loud = velocity;
        Description out = base.with(b -> b.key(played)
                .velocity(loud)
                .bright(said.getOrDefault(Slider.BRIGHT, base.bright()))
                .length(said.getOrDefault(Slider.LENGTH, base.length()))
                .hard(said.getOrDefault(Slider.HARD, base.hard()))
                .moving(said.getOrDefault(Slider.MOVING, base.moving()))
                .noisy(said.getOrDefault(Slider.NOISY, base.noisy()))
                .roomy(said.getOrDefault(Slider.ROOMY, base.roomy())));
        return new Read(out, unknown);
    }

    /** Whether a line speaks of any family. */
    public static boolean namesFamily(String line) {
        List<String> words = split(line);
        for (int i = 0; i < words.size(); i++) {
            if (family(words, i) != null) {
                return true;
            }
        }
        return false;
    }

    private static List<String> split(String line) {
        return Arrays.stream(line.toLowerCase(Locale.ROOT)
                        .replaceAll("[,;]", " ")
                        .trim()
                        .split("\\s+"))
                .filter(w -> !w.isEmpty())
                .toList();
    }

    private record Named(Family family, int length) {}

    private record Spoken(Meaning meaning, int length) {}

    private static Named family(List<String> words, int from) {
        Named best = null;
        for (Family f : Families.all()) {
            List<String> names = new ArrayList<>(f.words());
            names.add(f.title().toLowerCase(Locale.ROOT).replace(",", ""));
            names.add(f.id());
            for (String name : names) {
                int length = length(words, from, name);
                best = length > 0 && (best == null || length > best.length) ? new Named(f, length) : best;
            }
        }
        return best;
    }

    private static Spoken meaning(List<String> words, int from) {
        return MEANINGS.entrySet().stream()
                .map(e -> new Spoken(e.getValue(), length(words, from, e.getKey())))
                .filter(s -> s.length > 0)
                .max(Comparator.comparingInt(Spoken::length))
                .orElse(null);
    }

    /** Number of words of a phrase that stands there, in the singular or the plural; 0 if it does not. */
    private static int length(List<String> words, int from, String phrase) {
        String[] parts = phrase.split(" ");
        for (int i = 0; i < parts.length; i++) {
            if (from + i >= words.size()) {
                return 0;
            }
            String word = words.get(from + i);
            if (!word.equals(parts[i]) && !(i == parts.length - 1 && word.equals(parts[i] + "s"))) {
                return 0;
            }
        }
        return parts.length;
    }

    private static Integer key(String word) {
        if (!word.matches("[a-g][#b]?-?\\d")) {
            return null;
        }
        try {
            return Pitch.key(word);
        } catch (IllegalArgumentException outside) {
            return null;
        }
    }

    private static Double number(String word) {
        try {
            double v = Double.parseDouble(word);
            return Double.isFinite(v) ? v : null;
        } catch (NumberFormatException no) {
            return null;
        }
    }

    private static Map<String, Meaning> meanings() {
        Map<String, Meaning> out = new LinkedHashMap<>();
        put(out, Slider.BRIGHT, 1, "bright", "brilliant", "sharp", "piercing", "glassy", "brassy");
        put(out, Slider.BRIGHT, -1, "dull", "dark", "mellow", "warm", "muffled", "round");
        put(out, Slider.LENGTH, 1, "long", "ringing", "sustained", "slow decay", "endless");
        put(out, Slider.LENGTH, -1, "short", "damped", "brief", "fast decay", "staccato");
        put(out, Slider.HARD, 1, "hard", "hard start", "fast start", "hard attack", "fast attack", "percussive");
        put(out, Slider.HARD, 1, "punchy", "hard mallet", "sudden");
        put(out, Slider.HARD, -1, "soft", "soft start", "slow start", "soft attack", "slow attack", "swelling");
        put(out, Slider.HARD, -1, "gentle", "soft mallet", "swell");
        put(out, Slider.MOVING, 1, "moving", "vibrato", "tremolo", "beating", "trembling", "alive", "wavering");
        put(out, Slider.MOVING, -1, "still", "straight", "steady", "no vibrato");
        put(out, Slider.NOISY, 1, "noisy", "breathy", "airy", "scratchy", "rough", "windy");
        put(out, Slider.NOISY, -1, "clean", "pure", "clear");
        put(out, Slider.ROOMY, 1, "roomy", "wet", "distant", "reverberant", "far");
        put(out, Slider.ROOMY, -1.0 / PLAINLY, "dry", "close", "near");
        return out;
    }

    private static void put(Map<String, Meaning> out, Slider slider, double way, String... words) {
        for (String w : words) {
            out.put(w, new Meaning(slider, way));
        }
    }
}
