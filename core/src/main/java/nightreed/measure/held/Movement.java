package nightreed.measure.held;

/**
 * Something that swings: pitch (vibrato), level (tremolo) or brightness.
 *
 * @param rateHz       swings a second [Hz]
 * @param depth        half of the distance from peak to peak, once it is fully there [cents or dB]
 * @param phaseRad     phase of the sine at {@code delaySeconds} after the onset [rad]
 * @param delaySeconds time from the onset to where it sets in [s]
 * @param rampSeconds  time from there to its full depth [s]
 * @param rateSeHz     standard error of the rate [Hz]
 * @param depthSe      standard error of the depth [cents or dB]
 * @param shape        form of the swing
 * @param shapeOdds    how sure the shape is, 0 to 1
 */
public record Movement(
        double rateHz,
        double depth,
        double phaseRad,
        double delaySeconds,
        double rampSeconds,
        double rateSeHz,
        double depthSe,
        Shape shape,
        double shapeOdds) {
    /** Where the swing is, a time [s] after the onset, for a sine [cents or dB]. */
    public double at(double seconds) {
        double u = rampSeconds > 0 ? (seconds - delaySeconds) / rampSeconds : 1;
        double growth = Math.max(0, Math.min(1, u));
        return growth * depth * Math.sin(2 * Math.PI * rateHz * (seconds - delaySeconds) + phaseRad);
    }

    /** Forms of a swing. */
    public enum Shape {
        SINE,
        TRIANGLE,
        SQUARE
    }
}
