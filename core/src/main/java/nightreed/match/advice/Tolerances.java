package nightreed.match.advice;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import nightreed.match.compare.Comparison;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.compare.PartialDifference;
import nightreed.match.compare.PerceptualComparator;
import nightreed.match.compare.Prediction;
import nightreed.match.sound.AnalysedSound;
import nightreed.measure.Measurement;
import nightreed.recipe.Patch;
import nightreed.recipe.Recipe;
import nightreed.recipe.ResonatorRecipe;
import nightreed.recipe.part.Parameter;
import nightreed.work.Progress;

/**
 * How far each value of a recipe may move before anyone would hear it, and how strongly it moves the match.
 */
public final class Tolerances {
    /** Step whose effect is shown, as a share of the ruler. */
    private static final double STEP = 0.05;

    private Tolerances() {}

    /**
     * One value's room.
     *
     * @param low    lowest value that changes nothing by more than one JND
     * @param high   highest such value
     * @param effect how far the total rises when the value moves by a twentieth of its ruler [JND]
     */
    public record Span(double low, double high, double effect) {}

    /** Spans by parameter id, in the order of the recipe. Values that one note cannot tell (playing) have none. */
    public static Map<String, Span> of(AnalysedSound recording, Recipe recipe, Progress progress) {
        return of(recording, Patch.of(recipe), progress);
    }

    /** Of the values of a patch's first layer, beside the others. */
    public static Map<String, Span> of(AnalysedSound recording, Patch patch, Progress progress) {
        return ImitationRenderer.isPlain(recording, patch)
                ? ofModes(recording, (ResonatorRecipe) patch.first(), progress)
                : Sensitivity.of(recording, patch, Set.of(), progress).spans();
    }

    private static Map<String, Span> ofModes(AnalysedSound recording, ResonatorRecipe recipe, Progress progress) {
        AnalysedSound here = Prediction.of(recipe, recording.measurement(), 30).heardBy(recording.listener());
        AnalysedSound hereShort =
                Prediction.of(recipe, recording.measurement(), 0.25).heardBy(recording.listener());
        Map<String, Span> out = new LinkedHashMap<>();
        for (Recipe.Setting s : recipe.settings()) {
            Parameter p = s.parameter().around(s.value());
            boolean ofSound = p.group() == Parameter.Group.EXCITER || p.group() == Parameter.Group.BODY;
            if (!ofSound || p.law() == Parameter.Law.CHOICE) {
                continue;
            }
            progress.report(0, p.name());
            boolean strike = p.group() == Parameter.Group.EXCITER;
            if (p.id().equals("level")) {
                // both sides are compared at equal loudness; by itself a level is heard from 1 dB on
                double room = recording.listener().hearing().loudnessDb();
                out.put(p.id(), new Span(p.clamp(s.value() - room), p.clamp(s.value() + room), 0));
                continue;
            }
            Change change = value -> strike
                    ? rendered(hereShort, recording.measurement(), recipe.with(p.id(), value))
                    : predicted(here, recording.measurement(), recipe.with(p.id(), value));
            double at = p.position(s.value());
            double low = edge(p, s.value(), -1, change);
            double high = edge(p, s.value(), 1, change);
            double effect = Math.max(
                    change.from(p.at(at + STEP)).totalJnd(),
                    change.from(p.at(at - STEP)).totalJnd());
            out.put(p.id(), new Span(low, high, effect));
        }
        return out;
    }

    /** Difference between the recipe as it is and with another value. */
    private interface Change {
        Comparison from(double value);
    }

    private static Comparison predicted(AnalysedSound here, Measurement like, ResonatorRecipe moved) {
        Measurement m = here.measurement();
        return PerceptualComparator.compare(
                here, here.with(Prediction.measurement(moved, like, m.attackSeconds(), m.strikeBands())));
    }

    private static Comparison rendered(AnalysedSound here, Measurement like, ResonatorRecipe moved) {
        return PerceptualComparator.compare(here, Prediction.of(moved, like, 0.25));
    }

    /** Bisection for the place on the ruler where something changes by one JND. */
    private static double edge(Parameter p, double value, int direction, Change change) {
        double at = p.position(value);
        double near = 0;
        double far = direction > 0 ? 1 - at : at;
        if (heard(change.from(p.at(at + direction * far))) <= 1) {
            return p.at(at + direction * far);
        }
        for (int i = 0; i < 9; i++) {
            double middle = near + (far - near) * (i < 3 ? 0.25 : 0.5); // the edge is usually close
            if (heard(change.from(p.at(at + direction * middle))) <= 1) {
                near = middle;
            } else {
                far = middle;
            }
        }
        return p.at(at + direction * near);
    }

    /** The largest difference of any aspect or single partial [JND]. */
    private static double heard(Comparison c) {
        List<PartialDifference> partials = c.partials();
        return Math.max(
                c.worstJnd(),
                partials.stream().mapToDouble(PartialDifference::heardJnd).max().orElse(0));
    }
}
