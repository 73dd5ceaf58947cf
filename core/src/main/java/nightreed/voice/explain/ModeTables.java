package nightreed.voice.explain;

import java.util.List;
import nightreed.recipe.Mode;
import nightreed.recipe.ResonatorRecipe;

/** Modes: where they ring, how long, and which Q that is. */
final class ModeTables {
    /** T60 = 2.199 Q / f. */
    private static final double Q_TIMES = Math.log(1000) / Math.PI;

    private ModeTables() {}

    static List<Table> of(ResonatorRecipe r, int key, double hz) {
        boolean combs = r.body() == ResonatorRecipe.Body.COMBS;
        Rows t = new Rows(
                combs ? "combs" : "modes",
                "number .0",
                "ratio .4",
                "frequency [Hz] .2",
                "level [dB] .1",
                "T60 [s] .3",
                "Q .0",
                "bandwidth [Hz] .3");
        double decay = Math.pow(hz / r.f0Hz(), -r.keyTracking().decayPower());
        int above = 0;
        for (int i = 0; i < r.modes().size(); i++) {
            Mode m = r.modes().get(i);
            double f = hz * m.ratio();
            double t60 = Math.max(0.002, m.t60Seconds() * decay);
            above += f >= 0.49 * Arithmetic.SAMPLE_RATE_HZ ? 1 : 0;
            t.add(i + 1.0, m.ratio(), f, m.levelDb(), t60, t60 * f / Q_TIMES, Q_TIMES / t60);
        }
        if (above > 0) {
            t.say("%d of them lie above the band on key %d and are left out.", above, key);
        }
        t.say("T60 = 2.199 Q / f = 2.199 / bandwidth.");
        return List.of(t.done());
    }
}
