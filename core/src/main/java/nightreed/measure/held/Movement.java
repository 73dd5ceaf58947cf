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
    /** Forms of a swing. */
    public enum Shape {
        SINE,
        TRIANGLE,
        SQUARE,
        STEPPED_RANDOM
    }
}
