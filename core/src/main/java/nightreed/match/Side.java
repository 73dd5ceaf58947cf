package nightreed.match;

import nightreed.measure.Hand;
import nightreed.measure.Measurement;
import nightreed.sound.Clip;

/**
 * One side of a comparison: the sound, its measurement, the paths that a listener follows through it, and who listens.
 */
public final class Side {
    private final Clip clip;
    private final Measurement measurement;
    private final Measurement measured;
    private final Paths paths;
    private final Listener listener;

    /** Heard with the usual thresholds. */
    public Side(Clip clip, Measurement measurement) {
        this.clip = clip;
        this.measurement = measurement;
        this.measured = measurement;
        this.paths = Paths.of(clip, (int) Math.round(measurement.onsetSeconds() * clip.sampleRateHz()));
        this.listener = Listener.USUAL;
    }

    private Side(Clip clip, Measurement measurement, Measurement measured, Paths paths, Listener listener) {
        this.clip = clip;
        this.measurement = measurement;
        this.measured = measured;
        this.paths = paths;
        this.listener = listener;
    }

    /** The same recording for a listener with other thresholds; every comparison with it is then theirs. */
    public Side heardBy(Listener other) {
        return new Side(clip, measurement, measured, paths, other);
    }

    public Listener listener() {
        return listener;
    }

    /** The same sound with other numbers for its partials: a prediction that needs no rendering. */
    Side with(Measurement predicted) {
        return new Side(clip, predicted, predicted, paths, listener);
    }

    /** The same recording with what a person decided laid over what was measured. */
    public Side byHand(Hand hand) {
        return new Side(clip, hand.over(measured, clip), measured, paths, listener);
    }

    /** What the machine measured, without what a person decided. */
    public Measurement measured() {
        return measured;
    }

    public Clip clip() {
        return clip;
    }

    public Measurement measurement() {
        return measurement;
    }

    Paths paths() {
        return paths;
    }
}
