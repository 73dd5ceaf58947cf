package nightreed.machine;

import java.util.Arrays;
import java.util.Collections;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import nightreed.recipe.Recipe;
import nightreed.recipe.part.Filter;
import nightreed.recipe.part.Lfo;
import nightreed.recipe.part.Oscillator;

/**
 * What a synthesiser can do. Whatever is null is not limited.
 *
 * @param name         what its owner calls it
 * @param resonators   modes or combs, 0 to 64
 * @param bands        of a formant bank, 0 to 32
 * @param followers    whether bands can follow the levels of a recording
 * @param loops        tuned delay loops, 0 to 2
 * @param oscillators  sines of frequency modulation included, 0 to 16
 * @param modulation   whether an oscillator can modulate the frequency or phase of another
 * @param feedback     whether a modulator can modulate itself
 * @param ring         whether two oscillators can be multiplied
 * @param waves        of oscillators; not empty
 * @param unison       whether an oscillator can be several
 * @param filters      kinds of filter; empty for none
 * @param slopes       of filters; not empty
 * @param envelopes    that differ from each other, 1 to 32
 * @param lfos         0 to 2
 * @param lfoShapes    their shapes; not empty
 * @param noise        whether there is a noise source
 * @param keyTracking  whether filters and decays can follow the key
 */
public record Machine(
        String name,
        Integer resonators,
        Integer bands,
        Boolean followers,
        Integer loops,
        Integer oscillators,
        Boolean modulation,
        Boolean feedback,
        Boolean ring,
        Set<Oscillator.Wave> waves,
        Boolean unison,
        Set<Filter.Kind> filters,
        Set<Filter.Slope> slopes,
        Integer envelopes,
        Integer lfos,
        Set<Lfo.Shape> lfoShapes,
        Boolean noise,
        Boolean keyTracking) {
    /** No limits. */
    public static final Machine ANY = new Machine(
            "any", null, null, null, null, null, null, null, null, null, null, null, null, null, null, null, null,
            null);

    public Machine {
        if (name == null || name.isBlank() || name.length() > 60) {
            throw new IllegalArgumentException("a machine needs a name of 1 to 60 letters");
        }
        range("resonators", resonators, 0, 64);
        range("bands", bands, 0, 32);
        range("loops", loops, 0, 2);
        range("oscillators", oscillators, 0, 16);
        range("envelopes", envelopes, 1, 32);
        range("lfos", lfos, 0, 2);
        some("waves", waves);
        some("slopes", slopes);
        some("lfoShapes", lfoShapes);
        some("filters", filters == null || filters.isEmpty() ? null : filters);
        waves = inOrder(waves);
        filters = inOrder(filters);
        slopes = inOrder(slopes);
        lfoShapes = inOrder(lfoShapes);
    }

    /** In the order of the kinds, so that files come out the same. */
    private static <E extends Enum<E>> Set<E> inOrder(Set<E> kinds) {
        return kinds == null || kinds.isEmpty() ? kinds : Collections.unmodifiableSet(EnumSet.copyOf(kinds));
    }

    private static void range(String what, Integer n, int least, int most) {
        if (n != null && (n < least || n > most)) {
            throw new IllegalArgumentException("'" + what + "' must be " + least + " to " + most + ", got " + n);
        }
    }

    private static void some(String what, Set<?> all) {
        if (all != null && (all.isEmpty() || all.stream().anyMatch(Objects::isNull))) {
            throw new IllegalArgumentException("'" + what + "' must name at least one; leave it out for all");
        }
    }

    /** Whether a method can be played on it at all. */
    public boolean can(String method) {
        return switch (method) {
            case "resonators" -> !isZero(resonators);
            case "fm" -> !Boolean.FALSE.equals(modulation) && (oscillators == null || oscillators >= 2);
            case "ring" -> !Boolean.FALSE.equals(ring) && (oscillators == null || oscillators >= 2);
            case "formant" -> !isZero(bands) && !isZero(oscillators);
            case "string" -> !isZero(loops);
            default -> !isZero(oscillators);
        };
    }

    private static boolean isZero(Integer n) {
        return n != null && n == 0;
    }

    /** The nearest recipe that it can play; of a method that it {@link #can}. */
    public Recipe limited(Recipe recipe) {
        Recipe r = recipe;
        for (Feature f : Feature.values()) {
            r = Limits.of(this, f, r);
        }
        return r;
    }

    /** Where it falls short of a recipe; empty if it can play it as it is. */
    public List<Feature> missing(Recipe recipe) {
        return Arrays.stream(Feature.values())
                .filter(f -> !Limits.of(this, f, recipe).equals(recipe))
                .toList();
    }

    /** A machine that is limited in one thing only, as this one is. */
    public Machine only(Feature f) {
        return new Machine(
                name,
                f == Feature.RESONATORS ? resonators : null,
                f == Feature.BANDS ? bands : null,
                f == Feature.FOLLOWERS ? followers : null,
                f == Feature.LOOPS ? loops : null,
                f == Feature.OSCILLATORS ? oscillators : null,
                f == Feature.MODULATION ? modulation : null,
                f == Feature.FEEDBACK ? feedback : null,
                f == Feature.RING ? ring : null,
                f == Feature.WAVES ? waves : null,
                f == Feature.UNISON ? unison : null,
                f == Feature.FILTERS ? filters : null,
                f == Feature.SLOPES ? slopes : null,
                f == Feature.ENVELOPES ? envelopes : null,
                f == Feature.LFOS ? lfos : null,
                f == Feature.LFO_SHAPES ? lfoShapes : null,
                f == Feature.NOISE ? noise : null,
                f == Feature.KEY_TRACKING ? keyTracking : null);
    }

    /** What it has of something, in plain words; "any" where it is not limited. */
    public String has(Feature f) {
        return switch (f) {
            case RESONATORS -> count(resonators);
            case BANDS -> count(bands);
            case FOLLOWERS -> yes(followers);
            case LOOPS -> count(loops);
            case OSCILLATORS -> count(oscillators);
            case MODULATION -> yes(modulation);
            case FEEDBACK -> yes(feedback);
            case RING -> yes(ring);
            case WAVES -> kinds(waves);
            case UNISON -> yes(unison);
            case FILTERS -> kinds(filters);
            case SLOPES -> kinds(slopes);
            case ENVELOPES -> count(envelopes);
            case LFOS -> count(lfos);
            case LFO_SHAPES -> kinds(lfoShapes);
            case NOISE -> yes(noise);
            case KEY_TRACKING -> yes(keyTracking);
        };
    }

    private static String count(Integer n) {
        return n == null ? "any" : n == 0 ? "none" : String.valueOf(n);
    }

    private static String yes(Boolean b) {
        return b == null ? "any" : b ? "yes" : "none";
    }

    private static <E extends Enum<E>> String kinds(Set<E> all) {
        if (all == null) {
            return "any";
        }
        return all.isEmpty()
                ? "none"
                : EnumSet.copyOf(all).stream().map(e -> word(e.name())).collect(Collectors.joining(", "));
    }

    private static String word(String name) {
        return name.startsWith("DB_")
                ? name.substring(3) + " dB/oct"
                : name.toLowerCase(Locale.ROOT).replace('_', ' ');
    }
}
