package nightreed.machine;

import java.util.List;
import nightreed.recipe.part.Filter;
import nightreed.recipe.part.Lfo;
import nightreed.recipe.part.Oscillator;

/**
 * One thing that a machine may have fewer of, other kinds of, or not at all; in the order in which they limit a recipe. A limit
 * is a number, yes or no, or the set of the kinds that are there.
 */
public enum Feature {
    RESONATORS("resonators", 0, 64),
    BANDS("bands", 0, 32),
    FOLLOWERS("bands that follow a recording"),
    LOOPS("string loops", 0, 2),
    OSCILLATORS("oscillators", 0, 16),
    MODULATION("frequency modulation"),
    FEEDBACK("feedback of a modulator"),
    RING("ring modulation"),
    WAVES("waves", Oscillator.Wave.class),
    UNISON("unison"),
    FILTERS("kinds of filter", Filter.Kind.class),
    SLOPES("slopes of filters", Filter.Slope.class),
    ENVELOPES("envelopes", 1, 32),
    LFOS("LFOs", 0, 2),
    LFO_SHAPES("shapes of LFOs", Lfo.Shape.class),
    NOISE("noise"),
    KEY_TRACKING("key tracking");

    private final String title;
    private final int least;
    private final int most;
    private final Class<? extends Enum<?>> kinds;

    Feature(String title, int least, int most) {
        this.title = title;
        this.least = least;
        this.most = most;
        this.kinds = null;
    }

    Feature(String title) {
        this(title, 0, 0);
    }

    Feature(String title, Class<? extends Enum<?>> kinds) {
        this.title = title;
        this.least = 0;
        this.most = 0;
        this.kinds = kinds;
    }

    /** What people call it. */
    public String title() {
        return title;
    }

    /** Whether a machine has so many of it. */
    public boolean isCounted() {
        return most > 0;
    }

    /** The fewest and the most that a machine can be limited to, where it is counted. */
    public int least() {
        return least;
    }

    public int most() {
        return most;
    }

    /** Kinds of it, where there are such; none otherwise. */
    public List<Enum<?>> kinds() {
        return kinds == null ? List.of() : List.of(kinds.getEnumConstants());
    }
}
