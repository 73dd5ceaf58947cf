package nightreed.match.frontier;

import nightreed.match.compare.PerceptualComparator;
import nightreed.match.hearing.JndThresholds;
import nightreed.match.sound.AnalysedSound;
import nightreed.measure.held.HeldNote;
import nightreed.measure.held.Movement;
import nightreed.recipe.Recipe;
import nightreed.recipe.part.Common;
import nightreed.recipe.part.Lfo;
import nightreed.recipe.part.Route;
import nightreed.recipe.part.Route.Source;
import nightreed.recipe.part.Route.Target;

/** Vibrato and tremolo of recipes against those of a recording, which the quick ear of a search does not hear. */
final class Swing {
    private final HeldNote held;
    private final JndThresholds hearing;

    Swing(AnalysedSound recording) {
        held = recording.measurement().held();
        hearing = recording.listener().hearing();
    }

    /** [JND]; 0 where the recording has none. */
    double differenceJnd(Recipe recipe) {
        if (held == null) {
            return 0;
        }
        Common c = recipe.common();
        double pitch = difference(held.vibrato(), c, Target.PITCH, hearing.pitchCents());
        return Math.max(pitch, difference(held.tremolo(), c, Target.LEVEL, hearing.loudnessDb()));
    }

    private static double difference(Movement of, Common c, Target target, double step) {
        if (of == null) {
            return 0;
        }
        double depth = 0;
        double rate = 0;
        for (Route r : c.routes()) {
            Lfo lfo = r.source() == Source.LFO_1 ? c.first() : r.source() == Source.LFO_2 ? c.second() : null;
            if (lfo != null && r.target() == target && Math.abs(r.depth()) > depth) {
                depth = Math.abs(r.depth());
                rate = lfo.hz(c.tempoBpm());
            }
        }
        return PerceptualComparator.swing(of, depth, rate, step);
    }
}
