package nightreed.recipe;

import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.Parameter.Law;
import nightreed.recipe.part.ParameterAccess;
import nightreed.recipe.part.ParameterSpec;
import nightreed.recipe.part.Part;

/** Noise of breath or reed, with a band and a course of its own; null envelope: that of the level. */
public record Breath(
        @ParameterSpec(
                name = "level",
                unit = "dB",
                least = -80,
                most = 6,
                decimals = 1,
                meaning = "Its level against an oscillator.")
        double levelDb,

        @ParameterSpec(
                name = "low cut",
                unit = "Hz",
                least = 20,
                most = 10_000,
                law = Law.LOGARITHMIC,
                decimals = 0,
                meaning = "Takes away what lies under it.")
        double lowHz,

        @ParameterSpec(
                name = "high cut",
                unit = "Hz",
                least = 50,
                most = 20_000,
                law = Law.LOGARITHMIC,
                decimals = 0,
                meaning = "Takes away what lies over it.")
        double highHz,

        @Part(id = "amp", name = "level") Envelope envelope) {
    public static final Breath USUAL = new Breath(-40, 300, 8000, null);

    public Breath {
        ParameterAccess.check(Breath.class, levelDb, lowHz, highHz);
    }
}
