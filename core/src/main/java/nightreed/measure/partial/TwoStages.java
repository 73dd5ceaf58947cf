package nightreed.measure.partial;

/**
 * A decay in two stages, as coupled strings have it (G. Weinreich, JASA 62, 1977).
 *
 * @param earlyT60Seconds T60 of the stage that dies sooner [s]
 * @param lateT60Seconds  T60 of the stage that stays [s]
 * @param lateLevelDb     level of the stage that stays, carried back to the onset, under that of the partial [dB]
 */
public record TwoStages(double earlyT60Seconds, double lateT60Seconds, double lateLevelDb) {
    /** Level [dB re the onset] of two stages in phase, a time [s] after the onset. */
    public double levelDbAt(double seconds) {
        double late = Math.pow(10, lateLevelDb / 20);
        double early = Math.max(0, 1 - late);
        return 20
                * Math.log10(early * Math.pow(10, -3 * seconds / earlyT60Seconds)
                        + late * Math.pow(10, -3 * seconds / lateT60Seconds));
    }
}
