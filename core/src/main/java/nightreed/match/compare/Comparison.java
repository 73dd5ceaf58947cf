package nightreed.match.compare;

import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import nightreed.match.hearing.Aspect;

/**
 * How far an imitation is from a recording.
 *
 * @param aspects  difference per aspect [JND]
 * @param partials partial by partial, by rising frequency
 * @param gainDb   gain that makes the imitation as loud as the recording over their common span [dB]
 */
public record Comparison(Map<Aspect, Double> aspects, List<PartialDifference> partials, double gainDb) {
    public Comparison {
        aspects = new EnumMap<>(aspects);
        partials = List.copyOf(partials);
    }

    public double jnd(Aspect aspect) {
        return aspects.getOrDefault(aspect, 0.0); // older takes know fewer aspects
    }

    /** Root mean square over all aspects [JND]. */
    public double totalJnd() {
        return Math.sqrt(
                aspects.values().stream().mapToDouble(v -> v * v).average().orElse(0));
    }

    public Aspect worst() {
        Aspect worst = Aspect.PITCH;
        for (Aspect a : Aspect.values()) {
            if (jnd(a) > jnd(worst)) {
                worst = a;
            }
        }
        return worst;
    }

    /** All aspects, what is heard most first. */
    public List<Aspect> worstFirst() {
        return java.util.Arrays.stream(Aspect.values())
                .sorted(java.util.Comparator.comparingDouble(a -> -jnd(a)))
                .toList();
    }

    public double worstJnd() {
        return jnd(worst());
    }

    /** Whether no aspect would be noticed. */
    public boolean withinHearing() {
        return worstJnd() <= 1;
    }
}
