package nightreed.recipe.part;

import java.util.List;

/**
 * One cycle of a wave as its harmonics.
 *
 * @param levelsDb  level of harmonics 1, 2, 3.. [dB], 1 to 256 of -200 to 24
 * @param phasesRad phase of each, of a cosine [rad]
 */
public record SingleCycle(List<Double> levelsDb, List<Double> phasesRad) {
    private static final int MOST = 256;

    public SingleCycle {
        if (levelsDb == null || phasesRad == null || levelsDb.isEmpty() || levelsDb.size() > MOST) {
            throw new IllegalArgumentException("a measured wave has 1 to " + MOST + " harmonics");
        }
        levelsDb = List.copyOf(levelsDb);
        phasesRad = List.copyOf(phasesRad);
        if (levelsDb.size() != phasesRad.size()) {
            throw new IllegalArgumentException("a measured wave needs a phase for each level, got " + phasesRad.size()
                    + " phases for " + levelsDb.size() + " levels");
        }
        levelsDb.forEach(v -> Range.check("level of a harmonic", v, -200, 24, "dB"));
        phasesRad.forEach(v -> Range.check("phase of a harmonic", v, -1e6, 1e6, "rad"));
    }
}
