package nightreed.machine;

import java.util.Arrays;
import java.util.Collections;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
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
        range("resonators", Feature.RESONATORS, resonators);
        range("bands", Feature.BANDS, bands);
        range("loops", Feature.LOOPS, loops);
        range("oscillators", Feature.OSCILLATORS, oscillators);
        range("envelopes", Feature.ENVELOPES, envelopes);
        range("lfos", Feature.LFOS, lfos);
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

    private static void range(String what, Feature f, Integer n) {
        if (n != null && (n < f.least() || n > f.most())) {
            throw new IllegalArgumentException(
                    "'" + what + "' must be " + f.least() + " to " + f.most() + ", got " + n);
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
        Map<Feature, Object> one = new EnumMap<>(Feature.class);
        one.put(f, limit(f));
        return of(name, one);
    }

    /** With another name. */
    public Machine named(String other) {
        return of(other, limits());
    }

    /**
     * With another limit.
     *
     * @param limit an {@link Integer}, a {@link Boolean} or a set of kinds, as the feature has it; null for no limit
     * @throws IllegalArgumentException if it cannot be so many, or there has to be one kind at least
     * @throws ClassCastException       if it is a limit of another sort
     */
    public Machine with(Feature f, Object limit) {
        Map<Feature, Object> all = limits();
        all.put(f, limit);
        return of(name, all);
    }

    private Map<Feature, Object> limits() {
        Map<Feature, Object> all = new EnumMap<>(Feature.class);
        for (Feature f : Feature.values()) {
            all.put(f, limit(f));
        }
        return all;
    }

    private static Machine of(String name, Map<Feature, Object> limits) {
        return new Machine(
                name,
                (Integer) limits.get(Feature.RESONATORS),
                (Integer) limits.get(Feature.BANDS),
                (Boolean) limits.get(Feature.FOLLOWERS),
                (Integer) limits.get(Feature.LOOPS),
                (Integer) limits.get(Feature.OSCILLATORS),
                (Boolean) limits.get(Feature.MODULATION),
                (Boolean) limits.get(Feature.FEEDBACK),
                (Boolean) limits.get(Feature.RING),
                kinds(limits.get(Feature.WAVES), Oscillator.Wave.class),
                (Boolean) limits.get(Feature.UNISON),
                kinds(limits.get(Feature.FILTERS), Filter.Kind.class),
                kinds(limits.get(Feature.SLOPES), Filter.Slope.class),
                (Integer) limits.get(Feature.ENVELOPES),
                (Integer) limits.get(Feature.LFOS),
                kinds(limits.get(Feature.LFO_SHAPES), Lfo.Shape.class),
                (Boolean) limits.get(Feature.NOISE),
                (Boolean) limits.get(Feature.KEY_TRACKING));
    }

    private static <E extends Enum<E>> Set<E> kinds(Object limit, Class<E> kind) {
        return limit == null ? null : ((Set<?>) limit).stream().map(kind::cast).collect(Collectors.toSet());
    }

    /** Its limit in something: an {@link Integer}, a {@link Boolean} or a set of kinds; null if it is not limited. */
    public Object limit(Feature f) {
        return switch (f) {
            case RESONATORS -> resonators;
            case BANDS -> bands;
            case FOLLOWERS -> followers;
            case LOOPS -> loops;
            case OSCILLATORS -> oscillators;
            case MODULATION -> modulation;
            case FEEDBACK -> feedback;
            case RING -> ring;
            case WAVES -> waves;
            case UNISON -> unison;
            case FILTERS -> filters;
            case SLOPES -> slopes;
            case ENVELOPES -> envelopes;
            case LFOS -> lfos;
            case LFO_SHAPES -> lfoShapes;
            case NOISE -> noise;
            case KEY_TRACKING -> keyTracking;
        };
    }

    /** What it has of something, in plain words; "any" where it is not limited. */
    public String has(Feature f) {
        Object limit = limit(f);
        if (limit == null) {
            return "any";
        }
        if (limit instanceof Boolean there) {
            return there ? "yes" : "none";
        }
        if (limit instanceof Set<?> kinds) {
            String all = f.kinds().stream()
                    .filter(kinds::contains)
                    .map(Machine::word)
                    .collect(Collectors.joining(", "));
            return all.isEmpty() ? "none" : all;
        }
        return limit.equals(0) ? "none" : limit.toString();
    }

    /** What people call a kind of something. */
    public static String word(Enum<?> kind) {
        String name = kind.name();
        return name.startsWith("DB_")
                ? name.substring(3) + " dB/oct"
                : name.toLowerCase(Locale.ROOT).replace('_', ' ');
    }
}
