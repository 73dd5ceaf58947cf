package nightreed.recipe;

import nightreed.recipe.part.Parameter.Law;
import nightreed.recipe.part.ParameterAccess;
import nightreed.recipe.part.ParameterSpec;

/** A second string, slightly off and tied to the first at the bridge (G. Weinreich, JASA 62(6), 1977). */
public record SecondString(
        @ParameterSpec(
                name = "detune",
                unit = "cents",
                least = -50,
                most = 50,
                decimals = 2,
                meaning = "How far it lies off the first: they beat.")
        double detuneCents,

        @ParameterSpec(
                name = "coupling",
                unit = "dB",
                most = 6,
                law = Law.ROOT,
                decimals = 3,
                meaning =
                        "What the bridge takes more from what both do together, each time round: a fast start of the decay.")
        double couplingDb,

        @ParameterSpec(
                name = "level",
                unit = "dB",
                least = -60,
                most = 6,
                decimals = 1,
                meaning = "How hard it is plucked against the first.")
        double levelDb) {
    public static final SecondString USUAL = new SecondString(0.8, 0.05, -3);

    public SecondString {
        ParameterAccess.check(SecondString.class, detuneCents, couplingDb, levelDb);
    }
}
