package nightreed.voice.explain;

import java.util.ArrayList;
import java.util.List;
import nightreed.recipe.SubtractiveRecipe;
import nightreed.recipe.Unison;
import nightreed.recipe.part.Filter;
import nightreed.recipe.part.Oscillator;
import nightreed.voice.ring.SumsAndDifferences;

/** Harmonics of each source, how unison beats, and where the cutoff goes. */
final class SubtractiveTables {
    private static final int HARMONICS = 16;
    private static final int STEPS = 16;

    private SubtractiveTables() {}

    static List<Table> of(SubtractiveRecipe r, int key, double hz) {
        List<Table> out = new ArrayList<>();
        out.add(harmonics(r, hz));
        if (r.unison() != null || r.oscillators().size() > 1) {
            out.add(beats(r, hz));
        }
        if (r.filter() != null) {
            out.add(cutoff(r, key, hz));
        }
        return out;
    }

    private static Table harmonics(SubtractiveRecipe r, double hz) {
        Rows t = new Rows(
                "harmonics of the sources", "oscillator .0", "harmonic .0", "frequency [Hz] .2", "level [dB] .1");
        for (int o = 0; o < r.oscillators().size(); o++) {
            Oscillator is = r.oscillators().get(o);
            for (int n = 1; n <= HARMONICS; n++) {
                double f = n * hz * is.frequencyRatio();
                double a = SumsAndDifferences.harmonic(is, r.cycle(), n);
                if (f < 0.49 * Arithmetic.SAMPLE_RATE_HZ && a > 1e-5) {
                    t.add(o + 1.0, (double) n, f, 20 * Math.log10(a) + is.levelDb());
                }
            }
        }
        return t.done();
    }

    private static Table beats(SubtractiveRecipe r, double hz) {
        Rows t = new Rows("beats", "harmonic .0", "slowest [Hz] .2", "fastest [Hz] .2");
        List<Double> pitches = new ArrayList<>();
        for (Oscillator o : r.oscillators()) {
            Unison u = r.unison();
            for (int k = 0; k < (u == null ? 1 : u.copies()); k++) {
                pitches.add(hz * o.frequencyRatio() * Math.pow(2, (u == null ? 0 : u.cents(k)) / 1200));
            }
        }
        for (int n = 1; n <= 8; n++) {
            double slow = Double.POSITIVE_INFINITY;
            double fast = 0;
            for (double a : pitches) {
                for (double b : pitches) {
                    double beat = n * (b - a);
                    if (beat > 1e-6 && beat < 0.06 * n * a) { // farther apart it is an interval, and no beat
                        slow = Math.min(slow, beat);
                        fast = Math.max(fast, beat);
                    }
                }
            }
            t.add((double) n, fast == 0 ? null : (Double) slow, fast == 0 ? null : (Double) fast);
        }
        return t.done();
    }

    private static Table cutoff(SubtractiveRecipe r, int key, double hz) {
        Filter f = r.filter();
        Rows t = new Rows("cutoff over time", "time [s] .3", "cutoff [Hz] .0", "over the pitch [ratio] .2");
        double span = f.envelope() == null
                ? 0.5
                : Math.max(0.05, Math.min(6, f.envelope().settledSeconds()));
        for (int i = 0; i <= STEPS; i++) {
            double s = span * i / STEPS;
            double octaves = f.keyTracking() * (key - r.key()) / 12.0
                    + (f.envelope() == null
                            ? 0
                            : f.envelopeOctaves() * f.envelope().at(s, 1));
            double cutoff = f.cutoffHz() * Math.pow(2, octaves);
            t.add(s, cutoff, cutoff / hz);
        }
        if (f.envelope() != null
                && f.envelope().releaseSeconds() < r.amplitude().releaseSeconds()) {
            t.say("The filter closes before the level has gone: its release is the shorter one.");
        }
        return t.done();
    }
}
