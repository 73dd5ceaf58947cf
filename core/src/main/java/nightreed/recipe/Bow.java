package nightreed.recipe;

import nightreed.recipe.part.Parameter.Law;
import nightreed.recipe.part.ParameterAccess;
import nightreed.recipe.part.ParameterSpec;

/** A bow, for both schools: noise that swells and falls with each stroke, or friction that sticks and slips. */
public record Bow(
        @ParameterSpec(
                name = "stroke",
                unit = "s",
                least = 0.05,
                most = 10,
                law = Law.LOGARITHMIC,
                neutral = 0.6,
                meaning = "Length of one stroke.")
        double strokeSeconds,

        @ParameterSpec(
                name = "rise",
                least = 0.02,
                most = 0.98,
                neutral = 0.5,
                meaning = "Share of a stroke in which it swells.")
        double rise,

        @ParameterSpec(name = "unevenness", neutral = 0.15, meaning = "How much strokes differ in length and strength.")
        double unevenness,

        @ParameterSpec(
                name = "level",
                unit = "dB",
                least = -80,
                most = 12,
                decimals = 1,
                neutral = -12,
                meaning = "Level of the bow's noise.")
        double noiseDb,

        @ParameterSpec(
                name = "force",
                least = 0.02,
                most = 1,
                neutral = 0.5,
                meaning = "How hard the hair presses: more holds longer and grates.")
        double force,

        @ParameterSpec(
                name = "speed",
                unit = "m/s",
                least = 0.02,
                most = 1,
                law = Law.LOGARITHMIC,
                neutral = 0.25,
                meaning = "Speed of the hair: louder.")
        double speed,

        @ParameterSpec(
                name = "attack",
                unit = "s",
                least = 0.001,
                most = 2,
                law = Law.LOGARITHMIC,
                decimals = 3,
                neutral = 0.06,
                meaning = "Time until the bow is at speed.")
        double attackSeconds,

        @ParameterSpec(
                name = "pluck",
                neutral = 0,
                meaning = "Pluck by the strike's contact under the bow's noise: 0 none, 1 as by itself.")
        double pluck) {
    public static final Bow USUAL = new Bow(0.6, 0.5, 0.15, -12, 0.5, 0.25, 0.06, 0);

    public Bow {
        ParameterAccess.check(Bow.class, strokeSeconds, rise, unevenness, noiseDb, force, speed, attackSeconds, pluck);
    }
}
