package nightreed.recipe;

import nightreed.recipe.part.Parameter.Law;
import nightreed.recipe.part.ParameterSpec;
import nightreed.recipe.part.Repeatable;

/**
 * One decaying partial of a resonator bank.
 *
 * @param ratio      frequency over that of the key, above 0 and at most 200
 * @param levelDb    level at the strike [dB], relative to the recipe's level; -120 to 24
 * @param t60Seconds time to fall by 60 dB [s], 0.002 to 100
 * @param phaseRad   phase at the strike [rad] of a cosine
 */
public record Mode(
        @ParameterSpec(
                name = "ratio",
                unit = "×",
                least = 0.1,
                most = 100,
                law = Law.LOGARITHMIC,
                decimals = 4,
                meaning = "Frequency of this mode over that of the key.")
        double ratio,

        @ParameterSpec(
                name = "level",
                unit = "dB",
                least = -80,
                most = 6,
                decimals = 1,
                neutral = 0,
                meaning = "How loud this mode is struck.")
        double levelDb,

        @ParameterSpec(
                id = "t60",
                name = "T60",
                unit = "s",
                least = 0.005,
                most = 30,
                law = Law.LOGARITHMIC,
                decimals = 3,
                meaning = "Time this mode takes to fall by 60 dB.")
        double t60Seconds,

        double phaseRad)
        implements Repeatable {
    private static final double MOST_RATIO = 200;

    /** Three cents: two beats a second at 1 kHz. Chosen. */
    private static final double TWIN = Math.pow(2, 3.0 / 1200);

    public Mode {
        if (!(ratio > 0 && ratio <= 200)) {
            throw new IllegalArgumentException("mode ratio must lie above 0 and at most at 200, got " + ratio);
        }
        if (!(levelDb >= -120 && levelDb <= 24)) {
            throw new IllegalArgumentException(
                    "level of the mode at ratio " + ratio + " must lie in -120 to 24 dB, got " + levelDb);
        }
        if (!(t60Seconds >= 0.002 && t60Seconds <= 100)) {
            throw new IllegalArgumentException(
                    "T60 of the mode at ratio " + ratio + " must lie in 0.002 to 100 s, got " + t60Seconds);
        }
        if (!Double.isFinite(phaseRad)) {
            throw new IllegalArgumentException("phase of the mode at ratio " + ratio + " must be finite");
        }
    }

    /** A little weaker and shorter, where the next of a harmonic series would be. */
    @Override
    public Mode next() {
        return new Mode(
                Math.min(MOST_RATIO, ratio + 1),
                Math.max(-80, levelDb - 3),
                Math.max(0.005, t60Seconds * 0.85),
                phaseRad);
    }

    /** Beside it, so that the two beat. */
    @Override
    public Mode twin() {
        return new Mode(Math.min(MOST_RATIO, ratio * TWIN), levelDb, t60Seconds, phaseRad);
    }

    public Mode withRatio(double r) {
        return new Mode(r, levelDb, t60Seconds, phaseRad);
    }

    public Mode withLevelDb(double db) {
        return new Mode(ratio, db, t60Seconds, phaseRad);
    }
}
