package nightreed.recipe.part;

/**
 * How a recipe follows the strength of a strike; its other values hold at {@code reference}.
 *
 * @param reference velocity at which the recipe's values hold, 0.05 to 1
 */
public record VelocityMap(
        double reference,

        @ParameterSpec(
                id = "level",
                name = "velocity to level",
                unit = "dB",
                most = 60,
                decimals = 1,
                meaning = "Level between the softest and the hardest strike.")
        double levelDb,

        @ParameterSpec(
                id = "hardness",
                name = "velocity to strike",
                unit = "oct",
                most = 4,
                meaning = "How much brighter a hard strike is, in octaves.")
        double hardnessOctaves,

        @ParameterSpec(
                id = "floor",
                name = "velocity floor",
                meaning = "Softer strikes than this sound as if struck with it.")
        double floor) {
    public static final VelocityMap USUAL = new VelocityMap(0.7, 24, 1.5);

    public VelocityMap {
        ParameterAccess.check(VelocityMap.class, reference, levelDb, hardnessOctaves, floor);
        Range.check("reference velocity", reference, 0.05, 1, "");
    }

    public VelocityMap(double reference, double levelDb, double hardnessOctaves) {
        this(reference, levelDb, hardnessOctaves, 0);
    }

    private double above(double velocity) {
        return Math.max(velocity, floor) - reference;
    }

    /** Level against that at the reference velocity [dB]. */
    public double levelDbAt(double velocity) {
        return levelDb * above(velocity);
    }

    /** How much brighter than at the reference velocity: factor on an index, a cutoff or an upper frequency. */
    public double brightnessAt(double velocity) {
        return Math.pow(2, hardnessOctaves * above(velocity));
    }

    /** Contact length over that at the reference velocity. */
    public double contactFactorAt(double velocity) {
        return 1 / brightnessAt(velocity);
    }
}
