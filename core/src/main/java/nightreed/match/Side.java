package nightreed.match;

import nightreed.measure.Measurement;
import nightreed.sound.Clip;

/**
 * One side of a comparison: the sound, its measurement, and the paths that a listener follows through it.
 */
public final class Side {
    private final Clip clip;
    private final Measurement measurement;
    private final Paths paths;

    public Side(Clip clip, Measurement measurement) {
        this.clip = clip;
        this.measurement = measurement;
        this.paths = Paths.of(clip, (int) Math.round(measurement.onsetSeconds() * clip.sampleRateHz()));
    }

    private Side(Clip clip, Measurement measurement, Paths paths) {
        this.clip = clip;
        this.measurement = measurement;
        this.paths = paths;
    }

    /** The same sound with other numbers for its partials: a prediction that needs no rendering. */
    Side with(Measurement predicted) {
        return new Side(clip, predicted, paths);
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
