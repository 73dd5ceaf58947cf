package nightreed.recipe;

/**
 * How a recipe follows the strength of a strike.
 *
 * @param reference     velocity at which the recipe's values hold, 0.05 to 1
 * @param levelDb       level between the softest and the hardest strike [dB], 0 to 60
 * @param hardness      how much shorter the contact grows from softest to hardest [octaves], 0 to 4
 */
public record VelocityMap(double reference, double levelDb, double hardness) {
    public VelocityMap {
        Exciter.check("reference velocity", reference, 0.05, 1, "");
        Exciter.check("velocity to level", levelDb, 0, 60, "dB");
        Exciter.check("velocity to hardness", hardness, 0, 4, "octaves");
    }

    /** Level against that at the reference velocity [dB]. */
    public double levelDbAt(double velocity) {
        return levelDb * (velocity - reference);
    }

    /** Contact length over that at the reference velocity. */
    public double contactFactorAt(double velocity) {
        return Math.pow(2, -hardness * (velocity - reference));
    }
}
