package nightreed.machine;

/** One thing that a machine may have fewer of, other kinds of, or not at all; in the order in which they limit a recipe. */
public enum Feature {
    RESONATORS("resonators"),
    BANDS("bands"),
    FOLLOWERS("bands that follow a recording"),
    LOOPS("string loops"),
    OSCILLATORS("oscillators"),
    MODULATION("frequency modulation"),
    FEEDBACK("feedback of a modulator"),
    RING("ring modulation"),
    WAVES("waves"),
    UNISON("unison"),
    FILTERS("kinds of filter"),
    SLOPES("slopes of filters"),
    ENVELOPES("envelopes"),
    LFOS("LFOs"),
    LFO_SHAPES("shapes of LFOs"),
    NOISE("noise"),
    KEY_TRACKING("key tracking");

    private final String title;

    Feature(String title) {
        this.title = title;
    }

    /** What people call it. */
    public String title() {
        return title;
    }
}
