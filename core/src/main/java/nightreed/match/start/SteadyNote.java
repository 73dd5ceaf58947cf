package nightreed.match.start;

import java.util.Arrays;
import nightreed.dsp.SincReader;
import nightreed.match.sound.AnalysedSound;
import nightreed.recipe.part.Common;
import nightreed.recipe.part.Lfo;
import nightreed.recipe.part.Route;
import nightreed.recipe.part.Route.Source;
import nightreed.recipe.part.Route.Target;
import nightreed.voice.Renderer;

/**
 * A note as it would be without its vibrato and its tremolo: read at the times at which its phase would be there with a pitch
 * that stays, and divided by the swing of its level. Lines that smear over many bins where the pitch swings stand still then.
 */
public final class SteadyNote {
    /** A level that swings down by more is too low to be brought all the way back up [dB]. */
    private static final double MOST_DB = 18;

    private final Common movement;

    private SteadyNote(Common movement) {
        this.movement = movement;
    }

    /** Samples of a sound from its onset on, as they would be without such a movement; new array. */
    public static double[] samples(AnalysedSound side, Common movement) {
        double fs = side.measurement().sampleRateHz();
        double[] x = side.clip().mixed();
        int onset = (int) Math.max(0, Math.round(side.measurement().onsetSeconds() * fs));
        double[] note = Arrays.copyOfRange(x, Math.min(onset, x.length), x.length);
        return movement.routes().isEmpty() ? note : new SteadyNote(movement).of(note, fs);
    }

    private double[] of(double[] note, double fs) {
        SincReader reader = new SincReader(note);
        double[] out = new double[note.length];
        double t = 0; // of the recording
        for (int i = 0; i < out.length; i++) {
            out[i] = reader.at(t * fs) * Math.pow(10, -level(t) / 20);
            // half a step ahead, where the pitch stands for the whole of it
            double there = t + 0.5 / fs;
            t += Math.pow(2, -swing(there, Target.PITCH) / 1200) / fs;
        }
        return out;
    }

    /** Swing of the level that a movement makes at a time after the onset, limited to what can be taken off [dB]. */
    public static double levelDb(Common movement, double t) {
        return new SteadyNote(movement).level(t);
    }

    private double level(double t) {
        return Math.max(-MOST_DB, swing(t, Target.LEVEL));
    }

    /** In the unit of the target. */
    private double swing(double t, Target target) {
        double sum = 0;
        for (Route r : movement.routes()) {
            if (r.target() == target && r.source() == Source.LFO_1) {
                sum += r.depth() * at(movement.first(), t, Renderer.CHANCE_OF_NOTE);
            }
            if (r.target() == target && r.source() == Source.LFO_2) {
                sum += r.depth() * at(movement.second(), t, Renderer.STEPS_OF_SECOND);
            }
        }
        return sum;
    }

    private double at(Lfo lfo, double t, long chance) {
        return lfo.grown(t) * lfo.at(lfo.hz(movement.tempoBpm()) * t, chance);
    }
}
