package nightreed.voice.note;

import nightreed.recipe.Recipe;

/**
 * One note of one method. Whoever renders also starts and ends it: one thread. Only the constructor allocates.
 *
 * @param <R> recipe of the method
 */
public interface VoiceModel<R extends Recipe> {
    /** Begins from rest. */
    void start(R recipe, Note note);

    /** Takes over a changed recipe while sounding. */
    void follow(R recipe, Note note);

    /** The key was let go. */
    void release(R recipe, Note note);

    /** Sets what the next {@code n} samples, at most {@link Note#STEP}, glide towards. */
    void step(R recipe, Note note, int n);

    /**
     * Adds the next samples to {@code left[from..to)}, and to {@code right} if the sound has two sides. A step may be
     * rendered in several goes.
     */
    void render(double[] left, double[] right, int from, int to);

    /** Whether it has two sides; if not, only the left one is rendered. */
    boolean stereo();

    /** Whether it can have a part that does not swing, which is then taken away. */
    default boolean drifts() {
        return true;
    }

    /** Whether what its envelopes do at the start and at the end is followed in steps of a fraction of a ms. */
    default boolean followsFinely() {
        return true;
    }

    /** Whether it can begin in the middle of a note, since what it does is a matter of time and not of what was struck. */
    default boolean goesOn() {
        return false;
    }

    /** Rough mean square now, for choosing which note makes room. */
    double energy();

    /** Whether nothing is left to hear, now and later. */
    boolean over();
}
