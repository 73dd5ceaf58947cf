package nightreed.recipe;

import nightreed.recipe.part.Parameter.Law;
import nightreed.recipe.part.ParameterAccess;
import nightreed.recipe.part.ParameterSpec;

/** Several copies of an oscillator, slightly apart; their sum is as loud as one. */
public record Unison(
        @ParameterSpec(name = "copies", least = 2, most = 8, meaning = "How many sound together.")
        int copies,

        @ParameterSpec(
                id = "spread",
                name = "spread",
                unit = "cents",
                most = 100,
                law = Law.ROOT,
                decimals = 1,
                meaning = "From the lowest to the highest.")
        double spreadCents,

        @ParameterSpec(
                name = "about the pitch",
                neutral = 1,
                meaning = "On: spread to both sides. Off: the first stays, the others lie above.")
        boolean symmetric,

        @ParameterSpec(
                name = "width",
                neutral = {0, 0.6},
                meaning = "How far they stand apart, left and right.")
        double width) {
    public static final int MOST_COPIES = 8;
    public static final Unison USUAL = new Unison(3, 14, true, 0.6);

    public Unison {
        ParameterAccess.check(Unison.class, copies, spreadCents, symmetric, width);
    }

    /** Offset of a copy, 0 to copies - 1 [cents]. */
    public double cents(int copy) {
        double share = (double) copy / (copies - 1);
        return spreadCents * (symmetric ? share - 0.5 : share);
    }
}
