package nightreed.measure.held;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;

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
 * @param ranked       all forms that were held against the path, the likeliest first
 * @param steps        of a stepped swing the value of each step from {@code delaySeconds} on, in the unit of the path and as
 *     far from its reference as the path; empty for the other forms
 */
@RecordBuilder
public record Movement(
        double rateHz,
        double depth,
        double phaseRad,
        double delaySeconds,
        double rampSeconds,
        double rateSeHz,
        double depthSe,
        Shape shape,
        double shapeOdds,
        List<Ranked> ranked,
        List<Double> steps)
        implements MovementBuilder.With {
    /** How likely a form is, 0 to 1. */
    public record Ranked(Shape shape, double odds) {}

    public Movement {
        ranked = ranked == null ? List.of(new Ranked(shape, shapeOdds)) : List.copyOf(ranked); // as steps
        steps = steps == null ? List.of() : List.copyOf(steps); // older projects have none
    }

    /** Where the swing is, a time [s] after the onset, for a sine or for steps [cents or dB]. */
    public double at(double seconds) {
        if (shape == Shape.STEPPED) {
            int k = (int) Math.floor((seconds - delaySeconds) * rateHz);
            double mean = steps.stream().mapToDouble(s -> s).average().orElse(0);
            return k < 0 || k >= steps.size() ? 0 : steps.get(k) - mean;
        }
        double u = rampSeconds > 0 ? (seconds - delaySeconds) / rampSeconds : 1;
        double growth = Math.max(0, Math.min(1, u));
        return growth * depth * Math.sin(2 * Math.PI * rateHz * (seconds - delaySeconds) + phaseRad);
    }

    /** The same swing with its times counted from a moment so much earlier [s]. */
    Movement counted(double earlier) {
        return withDelaySeconds(delaySeconds + earlier);
    }

    /** Phase that it would have at the onset, if it had been there from then on [rad]. */
    public double phaseAtOnsetRad() {
        return phaseRad - 2 * Math.PI * rateHz * delaySeconds;
    }

    /** Whether another swing may come from the same LFO: as fast, within what the rates are known to. */
    public boolean movesWith(Movement other) {
        double doubt = Math.hypot(rateSeHz, other.rateSeHz);
        return (shape == Shape.STEPPED) == (other.shape == Shape.STEPPED)
                && Math.abs(rateHz - other.rateHz) < 0.05 + 3 * doubt;
    }

    /** By how much this swing is ahead of another of the same rate, once both are there [rad], -π to π. */
    public double leads(Movement other) {
        double at = Math.max(delaySeconds + rampSeconds, other.delaySeconds + other.rampSeconds);
        double own = 2 * Math.PI * rateHz * (at - delaySeconds) + phaseRad;
        double others = 2 * Math.PI * other.rateHz * (at - other.delaySeconds) + other.phaseRad;
        return Math.IEEEremainder(own - others, 2 * Math.PI);
    }

    /** Forms of a swing. */
    public enum Shape {
        SINE("sine"),
        TRIANGLE("triangle"),
        SQUARE("square"),
        /** Jumps at even intervals to values without an order; its rate counts the steps. */
        STEPPED("stepped random");

        private final String title;

        Shape(String title) {
            this.title = title;
        }

        public String title() {
            return title;
        }
    }
}
