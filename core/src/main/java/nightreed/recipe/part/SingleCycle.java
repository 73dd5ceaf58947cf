package nightreed.recipe.part;

import java.util.ArrayList;
import java.util.List;

/**
 * One cycle of a wave as its harmonics.
 *
 * @param harmonics levels and phases of harmonics 1, 2, 3.., 1 to 256
 */
public record SingleCycle(
        @Part(id = "harmonic", name = "harmonic", group = Parameter.Group.SOURCE, least = 1, most = SingleCycle.MOST)
        List<Harmonic> harmonics) {
    public static final int MOST = 256;

    /**
     * One harmonic.
     *
     * @param phaseRad of a cosine [rad]
     */
    public record Harmonic(
            @ParameterSpec(
                    name = "level",
                    unit = "dB",
                    least = -80,
                    most = 6,
                    leastEver = -200,
                    mostEver = 24,
                    decimals = 1,
                    neutral = {-80, -200, -120},
                    meaning = "How much of it the wave has; -80 is none.")
            double levelDb,

            double phaseRad)
            implements Repeatable {
        public Harmonic {
            ParameterAccess.check(Harmonic.class, levelDb, phaseRad);
            Range.check("phase of a harmonic", phaseRad, -1e6, 1e6, "rad");
        }

        /** A little weaker. */
        @Override
        public Harmonic next() {
            return new Harmonic(Math.max(-80, levelDb - 3), phaseRad);
        }
    }

    public SingleCycle {
        if (harmonics == null || harmonics.isEmpty() || harmonics.size() > MOST) {
            throw new IllegalArgumentException("a measured wave has 1 to " + MOST + " harmonics");
        }
        harmonics = List.copyOf(harmonics);
    }

    /**
     * @param levelsDb  level of harmonics 1, 2, 3.. [dB], 1 to 256 of -200 to 24
     * @param phasesRad phase of each, of a cosine [rad]
     */
    public SingleCycle(List<Double> levelsDb, List<Double> phasesRad) {
        this(together(levelsDb, phasesRad));
    }

    private static List<Harmonic> together(List<Double> levelsDb, List<Double> phasesRad) {
        if (levelsDb == null || phasesRad == null || levelsDb.isEmpty() || levelsDb.size() > MOST) {
            throw new IllegalArgumentException("a measured wave has 1 to " + MOST + " harmonics");
        }
        if (levelsDb.size() != phasesRad.size()) {
            throw new IllegalArgumentException("a measured wave needs a phase for each level, got " + phasesRad.size()
                    + " phases for " + levelsDb.size() + " levels");
        }
        List<Harmonic> out = new ArrayList<>();
        for (int i = 0; i < levelsDb.size(); i++) {
            out.add(new Harmonic(levelsDb.get(i), phasesRad.get(i)));
        }
        return out;
    }

    /** Level of each harmonic [dB]. */
    public List<Double> levelsDb() {
        return harmonics.stream().map(Harmonic::levelDb).toList();
    }

    /** Phase of each, of a cosine [rad]. */
    public List<Double> phasesRad() {
        return harmonics.stream().map(Harmonic::phaseRad).toList();
    }
}
