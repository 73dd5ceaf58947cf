package nightreed.recipe;

import java.util.List;
import nightreed.recipe.part.Common;
import nightreed.recipe.part.Effects;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.Exciter;
import nightreed.recipe.part.Filter;
import nightreed.recipe.part.KeyTracking;
import nightreed.recipe.part.Lfo;
import nightreed.recipe.part.Macro;
import nightreed.recipe.part.Oscillator;
import nightreed.recipe.part.Oscillator.Wave;
import nightreed.recipe.part.Route;
import nightreed.recipe.part.Route.Source;
import nightreed.recipe.part.Route.Target;
import nightreed.recipe.part.SingleCycle;
import nightreed.recipe.part.VelocityMap;

/** One recipe of each method that other tests play. */
public final class Recipes {
    public static final Envelope STRUCK = Envelope.struck(0.002, 2, 0.3);
    public static final Envelope HELD = Envelope.held(0.02, 0.1);

    private Recipes() {}

    public static FmRecipe fm() {
        return new FmRecipe(
                60,
                0,
                -12,
                List.of(FmPair.of(0, 1, 1.4, 6, STRUCK, STRUCK), FmPair.of(-9, 2, 3, 2, HELD, STRUCK)),
                new Exciter(0.5, -30, 20, 500, 6000),
                0.3,
                VelocityMap.USUAL,
                Common.NONE);
    }

    public static RingRecipe ring() {
        return new RingRecipe(
                60,
                0,
                -12,
                Oscillator.of(Wave.TRIANGLE, 1),
                Oscillator.of(Wave.SINE, 1.335),
                null,
                Filter.lowPass(4000, 0.8),
                null,
                0,
                -6,
                0.3,
                4,
                300,
                STRUCK,
                null,
                VelocityMap.USUAL,
                Common.NONE);
    }

    public static FormantRecipe formant() {
        return new FormantRecipe(
                48,
                0,
                -12,
                FormantRecipe.Bank.FORMANTS,
                Oscillator.of(Wave.PULSE, 1),
                null,
                -20,
                List.of(
                        FormantBand.of(600, 90, 0, 0),
                        FormantBand.of(1100, 110, -5, 0.1),
                        FormantBand.of(2600, 200, -12, 0.4)),
                -2,
                0,
                5,
                40,
                0.01,
                HELD,
                null,
                VelocityMap.USUAL,
                Common.NONE);
    }

    public static StringRecipe string() {
        return new StringRecipe(
                45,
                3,
                -9,
                StringRecipe.Drive.PULSE,
                new Exciter(0.8, -20, 12, 200, 7000),
                null,
                new LoopLoss(LoopLoss.Kind.SHELVES, 4, 2500, 1.2),
                1e-4,
                0.13,
                false,
                new SecondString(0.7, 0.03, -4),
                0,
                null,
                null,
                0.15,
                new KeyTracking(0.4, 0.5),
                VelocityMap.USUAL,
                Common.NONE);
    }

    /** A string under a bow of one of the two schools. */
    public static StringRecipe bowed(StringRecipe.Drive drive) {
        return new StringRecipe(
                57,
                0,
                -9,
                drive,
                new Exciter(0.5, 0, 20, 100, 6000),
                new LoopLoss(LoopLoss.Kind.ONE_POLE, 1.5, 3000, 2),
                0.12);
    }

    public static SubtractiveRecipe brass() {
        return new SubtractiveRecipe(
                57,
                0,
                -12,
                List.of(Oscillator.of(Wave.SAW, 1), Oscillator.of(Wave.PULSE, 1)),
                null,
                new Unison(2, 8, true, 0.5),
                new Breath(-36, 400, 6000, null),
                new Filter(
                        Filter.Kind.LOW,
                        Filter.Slope.DB_24,
                        500,
                        0.9,
                        1,
                        2.5,
                        1.5,
                        3,
                        new Envelope(0, 0.06, -0.3, 0, 0.8, 0.6, 0.6, 0.2)),
                Envelope.held(0.04, 0.12),
                null,
                VelocityMap.USUAL,
                moving());
    }

    /** With everything that can move or be put behind a sound. */
    public static Common moving() {
        return new Common(
                96,
                0.1,
                Filter.lowPass(9000, 0.7),
                Filter.lowPass(12_000, 0.7),
                Lfo.late(5.5, 0.3, 0.4),
                new Lfo(
                        Lfo.Shape.ZIGZAG,
                        2,
                        Lfo.Per.QUARTER,
                        90,
                        0,
                        0,
                        0.5,
                        0.1,
                        true,
                        true,
                        List.of(-1.0, 0.5, 1.0, 0.0)),
                STRUCK,
                List.of(
                        new Route(Source.LFO_1, Target.PITCH, 18),
                        new Route(Source.LFO_2, Target.LEVEL, 2),
                        new Route(Source.WHEEL, Target.LFO_1_DEPTH, 1),
                        new Route(Source.LFO_2, Target.LFO_1_RATE, 0.2),
                        new Route(Source.ENVELOPE, Target.CUTOFF, 1)),
                new Effects(
                        Effects.Drive.USUAL,
                        Effects.Chorus.USUAL,
                        Effects.Tremolo.USUAL,
                        Effects.Delay.USUAL,
                        Effects.Reverb.USUAL,
                        Effects.Tone.USUAL),
                null,
                List.of(new Macro(
                        "soft to loud",
                        0.5,
                        List.of(new Macro.Aim("level", -30, -12, 0.2), new Macro.Aim("pan", -0.5, 0.5, 0)))),
                null);
    }

    public static RingRecipe measuredWave() {
        RingRecipe r = ring();
        return new RingRecipe(
                r.key(),
                r.tuningCents(),
                r.levelDb(),
                Oscillator.of(Wave.MEASURED, 1),
                r.b(),
                new SingleCycle(List.of(0.0, -6.0, -20.0), List.of(0.1, 2.0, -1.0)),
                null,
                null,
                r.ringDb(),
                r.dryDb(),
                r.driftRateHz(),
                0,
                0,
                HELD,
                null,
                r.velocity(),
                Common.NONE);
    }

    public static List<Recipe> all() {
        float[] feed = new float[4800];
        for (int i = 0; i < feed.length; i++) {
            feed[i] = (float) (0.5 * Math.sin(0.05 * i) * Math.exp(-i / 900.0));
        }
        return List.of(
                RecipeTest.bar(),
                RecipeTest.bar().withBody(ResonatorRecipe.Body.COMBS).withFeed(new ExcitationSample(48_000, feed)),
                fm(),
                ring(),
                measuredWave(),
                formant(),
                string(),
                bowed(StringRecipe.Drive.FRICTION),
                bowed(StringRecipe.Drive.ZIGZAG),
                brass());
    }
}
