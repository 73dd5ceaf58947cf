package nightreed.measure.law;

import java.util.List;
import java.util.stream.IntStream;

/**
 * Ratios of the partials of an idealised body, with a name for each partial where the trade has one. Values from N. H.
 * Fletcher, T. D. Rossing, "The Physics of Musical Instruments" (1998), and T. D. Rossing, "Science of Percussion
 * Instruments" (2000).
 *
 * @param name     what people call the body
 * @param ratios   frequency ratios to the fundamental (to the prime for bells), ascending
 * @param names    name of each partial, as many as ratios
 * @param firstEssential number of the lowest partial, from 0, that a real body of this kind always sounds
 * @param essential      how many from there on it always sounds
 * @param lowestHz       lowest pitch at which bodies of this kind are usually made [Hz]
 * @param highestHz      highest such pitch [Hz]
 * @param spreadCents    spread of real bodies about the ratios [cents]: makers tune some modes, and wood and stone vary
 */
public record ModelSeries(
        String name,
        double[] ratios,
        List<String> names,
        int firstEssential,
        int essential,
        double lowestHz,
        double highestHz,
        double spreadCents) {
    /** Name of the series of whole numbers. */
    public static final String HARMONIC = "harmonic";

    /** Name of the series of a bar or a tube that is free at both ends. */
    public static final String FREE_BAR = "uniform free bar";

    public ModelSeries {
        if (ratios.length != names.size()) {
            throw new IllegalArgumentException(
                    name + " has " + ratios.length + " ratios and " + names.size() + " names; it needs one each");
        }
    }

    private static final String THICK_BAR = "thick free bar";

    /** Name of the series of a tube that is heard where none of its partials is. */
    public static final String TUBE = "struck tube";

    /** Number of the lowest mode, from 0, by which a tube is heard as such. */
    static final int HEARD_FROM = 3;

    /** Spread of bodies that are cut, cast or stretched [cents]. */
    private static final double BODY = 30;

    /** Of strings and air, whose partials are held to whole numbers [cents]. */
    private static final double HELD = 16;

    /** Bodies whose strike note is their lowest partial; bells and harmonic sounds are heard at one that may be absent. */
    boolean needsFundamental() {
        return ratios[0] == 1 && ratios.length < 40;
    }

    /** Whether it is heard at another pitch, by its upper modes, where these are much louder. */
    boolean canBeTube() {
        return name.equals(FREE_BAR) || name.equals(THICK_BAR);
    }

    /** Every series that a measurement is held against. */
    public static List<ModelSeries> all() {
        return List.of(
                of(FREE_BAR, 3, 1, 2.756, 5.404, 8.933, 13.344, 18.638, 24.812),
                // the lower and the thicker, the flatter its upper modes
                of(THICK_BAR, 3, 1, 2.72, 5.25, 8.1, 12.4, 16.5),
                // to the strike note, an octave under mode 4; the lower modes are long gone or hardly struck
                new ModelSeries(
                        TUBE,
                        new double[] {0.224, 0.625, 1.23, 2, 2.95, 3.98, 5.0, 6.1},
                        modes(8),
                        HEARD_FROM,
                        3,
                        200,
                        2000,
                        BODY),
                new ModelSeries(
                        "slender struck tube",
                        new double[] {0.2239, 0.617, 1.2099, 2, 2.9876, 4.173, 5.555},
                        modes(7),
                        HEARD_FROM,
                        3,
                        200,
                        2000,
                        BODY),
                of("clamped plate", 2, 1, 2.08, 3.41, 3.89, 5, 5.95, 6.82, 8.28, 8.72),
                of("arched bar tuned 1:4", 2, 1, 4, 9.8),
                of("arched bar tuned 1:3", 2, 1, 3, 6, 11),
                of("clamped tongue", 1, 1, 6.267, 17.55, 34.39),
                new ModelSeries(
                        "tuned bell",
                        new double[] {0.5, 1, 1.2, 1.5, 2, 2.5, 2.67, 3, 4, 5.33, 6.67},
                        List.of(
                                "hum",
                                "prime",
                                "tierce",
                                "quint",
                                "nominal",
                                "tenth",
                                "eleventh",
                                "twelfth",
                                "double octave",
                                "octave eleventh",
                                "upper"),
                        0,
                        5,
                        60,
                        5000,
                        BODY),
                drum("ideal membrane", 1, 1.593, 2.136, 2.295, 2.653, 2.917, 3.155, 3.5),
                drum("kettledrum", 1, 1.5, 1.99, 2.44, 2.89),
                new ModelSeries(
                        "closed pipe", new double[] {1, 3, 5, 7, 9, 11, 13, 15}, modes(8), 0, 2, 20, 5000, HELD),
                harmonic());
    }

    private static ModelSeries of(String name, int essential, double... ratios) {
        return new ModelSeries(name, ratios, modes(ratios.length), 0, essential, 60, 5000, BODY);
    }

    private static ModelSeries drum(String name, double... ratios) {
        return new ModelSeries(name, ratios, modes(ratios.length), 0, 4, 30, 400, BODY);
    }

    private static List<String> modes(int n) {
        return IntStream.rangeClosed(1, n).mapToObj(i -> "mode " + i).toList();
    }

    private static ModelSeries harmonic() {
        double[] r = IntStream.rangeClosed(1, 48).mapToDouble(i -> i).toArray();
        return new ModelSeries(
                HARMONIC,
                r,
                IntStream.rangeClosed(1, 48).mapToObj(i -> "harmonic " + i).toList(),
                0,
                3,
                20,
                5000,
                HELD);
    }
}
