package nightreed.recipe;

import nightreed.recipe.part.Parameter.Law;
import nightreed.recipe.part.ParameterAccess;
import nightreed.recipe.part.ParameterSpec;

/** How a string should die, T60(f) = T60 / (1 + (f/half)^power), and which filter in the loop has to bring it about. */
public record LoopLoss(
        @ParameterSpec(
                name = "loop filter",
                neutral = 1,
                meaning = "Two-point average, one pole, or four shelves: the more, the closer to the decays asked.")
        Kind kind,

        @ParameterSpec(
                id = "t60",
                name = "T60",
                unit = "s",
                least = 0.02,
                most = 100,
                law = Law.LOGARITHMIC,
                decimals = 3,
                meaning = "Decay of the lowest partials.")
        double t60Seconds,

        @ParameterSpec(
                name = "half at",
                unit = "Hz",
                least = 50,
                most = 100_000,
                law = Law.LOGARITHMIC,
                decimals = 0,
                meaning = "Frequency whose partials die in half that time.")
        double halfHz,

        @ParameterSpec(name = "power", least = 0.3, most = 3, meaning = "How fast the decay shortens beyond it.")
        double power) {
    public static final LoopLoss USUAL = new LoopLoss(Kind.ONE_POLE, 3, 4000, 2);

    /** Filter in the loop. */
    public enum Kind {
        AVERAGE,
        ONE_POLE,
        SHELVES
    }

    public LoopLoss {
        ParameterAccess.check(LoopLoss.class, kind, t60Seconds, halfHz, power);
    }

    /** Decay that is asked for at a frequency [Hz] [s]. */
    public double t60At(double hz) {
        return t60Seconds / (1 + Math.pow(hz / halfHz, power));
    }
}
