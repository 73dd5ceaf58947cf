package nightreed.recipe;

import java.util.ArrayList;
import java.util.List;
import nightreed.recipe.part.Common;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.Exciter;
import nightreed.recipe.part.Filter;
import nightreed.recipe.part.KeyTracking;
import nightreed.recipe.part.Oscillator;
import nightreed.recipe.part.Oscillator.Wave;
import nightreed.recipe.part.VelocityMap;

/** What a method begins with where no recording says anything: a plain sound on C4 that is worth going on from. */
public final class FirstRecipe {
    /** Names of the methods, in the order of the window. */
    public static final List<String> METHODS = List.of("resonators", "fm", "ring", "formant", "string", "subtractive");

    private static final int KEY = 60;
    private static final Exciter MALLET = new Exciter(0.8, -24, 15, 300, 6000);

    private FirstRecipe() {}

    /** @throws IllegalArgumentException for a name that is none of {@link #METHODS} */
    public static Recipe of(String method) {
        return switch (method) {
            case "resonators" -> bar();
            case "fm" -> fm();
            case "ring" -> ring();
            case "formant" -> formant();
            case "string" -> string();
            case "subtractive" -> subtractive();
            default -> throw new IllegalArgumentException("there is no method '" + method + "'");
        };
    }

    /** A bar that is free at both ends (N. H. Fletcher, T. D. Rossing, 1998), its upper modes weaker and shorter. */
    private static Recipe bar() {
        List<Mode> modes = new ArrayList<>();
        double[] ratios = {1, 2.756, 5.404, 8.933, 13.344};
        for (int i = 0; i < ratios.length; i++) {
            modes.add(new Mode(ratios[i], -7.0 * i, 1.6 / Math.sqrt(ratios[i]), -Math.PI / 2));
        }
        return new ResonatorRecipe(KEY, 0, -12, MALLET, modes, KeyTracking.USUAL, VelocityMap.USUAL, 100);
    }

    /** One pair at 1 to 1.41, whose index dies faster than its level: a small bell (J. Chowning, 1973). */
    private static Recipe fm() {
        FmPair bell = FmPair.of(0, 1, 1.41, 4, Envelope.struck(0.001, 3, 1), Envelope.struck(0.001, 1.2, 1));
        return new FmRecipe(KEY, 0, -12, List.of(bell), null, 0.3, VelocityMap.USUAL, Common.NONE);
    }

    /** Two sines nearly a tritone apart, drifting slowly. */
    private static Recipe ring() {
        return new RingRecipe(
                KEY,
                0,
                -12,
                Oscillator.of(Wave.TRIANGLE, 1),
                Oscillator.of(Wave.SINE, 1.4142),
                null,
                null,
                null,
                0,
                -9,
                0.25,
                4,
                0,
                Envelope.struck(0.002, 3, 0.6),
                null,
                VelocityMap.USUAL,
                Common.NONE);
    }

    /** A pulse through three formants of an open vowel (G. Peterson, H. Barney, 1952). */
    private static Recipe formant() {
        return new FormantRecipe(
                KEY,
                0,
                -12,
                FormantRecipe.Bank.FORMANTS,
                Oscillator.of(Wave.SAW, 1),
                null,
                -36,
                List.of(
                        FormantBand.of(730, 90, 0, 0),
                        FormantBand.of(1090, 110, -4, 0.1),
                        FormantBand.of(2440, 170, -14, 0.3)),
                0,
                0,
                5,
                40,
                0.01,
                Envelope.held(0.04, 0.15),
                null,
                VelocityMap.USUAL,
                Common.NONE);
    }

    /** Plucked at an eighth of its length, dying in three seconds. */
    private static Recipe string() {
        return new StringRecipe(
                KEY,
                0,
                -12,
                StringRecipe.Drive.PULSE,
                new Exciter(0.6, -30, 10, 200, 7000),
                new LoopLoss(LoopLoss.Kind.ONE_POLE, 3, 3500, 1.2),
                0.125);
    }

    /** Two saws a few cents apart through a low-pass that opens and falls back. */
    private static Recipe subtractive() {
        Oscillator saw = Oscillator.of(Wave.SAW, 1);
        Filter opening = new Filter(
                Filter.Kind.LOW,
                Filter.Slope.DB_24,
                500,
                0.9,
                0.8,
                2.5,
                1,
                0,
                new Envelope(0, 0.05, 0, 0, 0.7, 0.6, 0.5, 0.2));
        return new SubtractiveRecipe(
                KEY,
                0,
                -12,
                List.of(saw, saw.next()),
                null,
                null,
                null,
                opening,
                Envelope.held(0.02, 0.15),
                null,
                VelocityMap.USUAL,
                Common.NONE);
    }
}
