package nightreed.match.hearing;

import java.util.Collections;
import java.util.EnumMap;
import java.util.Map;

/**
 * Where an ear has overruled the thresholds for one sound: by how much each aspect counts more, or less, than it would.
 *
 * @param weights factor on the differences of an aspect, {@value #LEAST} to {@value #MOST}; 1 where there is none
 */
public record AspectWeights(Map<Aspect, Double> weights) {
    public static final AspectWeights NONE = new AspectWeights(Map.of());

    public static final double LEAST = 0.05;
    public static final double MOST = 10;

    /** What is marked as not heard is shown just under a JND, what is marked as heard just over one. */
    private static final double UNDER = 0.9;

    private static final double OVER = 1.3;

    public AspectWeights {
        Map<Aspect, Double> kept = new EnumMap<>(Aspect.class);
        weights.forEach((aspect, w) -> {
            if (!(w > 0)) {
                throw new IllegalArgumentException("the weight of " + aspect.title() + " must be above 0, got " + w);
            }
            if (Math.abs(w - 1) > 1e-9) {
                kept.put(aspect, Math.max(LEAST, Math.min(MOST, w)));
            }
        });
        weights = Collections.unmodifiableMap(kept);
    }

    public double weight(Aspect aspect) {
        return weights.getOrDefault(aspect, 1.0);
    }

    /** The ear hears no such difference. @param jnd as it was shown [JND] */
    public AspectWeights notHeard(Aspect aspect, double jnd) {
        return with(aspect, weight(aspect) * (jnd > UNDER ? UNDER / jnd : 1));
    }

    /** The ear hears one. @param jnd as it was shown [JND] */
    public AspectWeights heard(Aspect aspect, double jnd) {
        return with(aspect, weight(aspect) * (jnd < OVER ? OVER / Math.max(0.13, jnd) : 1));
    }

    /** As the thresholds have it again. */
    public AspectWeights without(Aspect aspect) {
        return with(aspect, 1);
    }

    private AspectWeights with(Aspect aspect, double weight) {
        Map<Aspect, Double> all = new EnumMap<>(Aspect.class);
        all.putAll(weights);
        all.put(aspect, weight);
        return new AspectWeights(all);
    }
}
