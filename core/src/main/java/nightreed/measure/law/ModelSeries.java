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
 * @param essential how many of the lowest a real body of this kind always sounds
 */
public record ModelSeries(String name, double[] ratios, List<String> names, int essential) {
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

    /** Bodies whose strike note is their lowest partial; bells and harmonic sounds are heard at one that may be absent. */
    boolean needsFundamental() {
        return ratios[0] == 1 && ratios.length < 40;
    }

    /** Every series that a measurement is held against. */
    public static List<ModelSeries> all() {
        return List.of(
                of(FREE_BAR, 3, 1, 2.756, 5.404, 8.933, 13.344, 18.638, 24.812),
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
                        5),
                of("ideal membrane", 4, 1, 1.593, 2.136, 2.295, 2.653, 2.917, 3.155, 3.5),
                of("kettledrum", 4, 1, 1.5, 1.99, 2.44, 2.89),
                of("closed pipe", 2, 1, 3, 5, 7, 9, 11, 13, 15),
                harmonic());
    }

    private static ModelSeries of(String name, int essential, double... ratios) {
        return new ModelSeries(
                name,
                ratios,
                IntStream.rangeClosed(1, ratios.length)
                        .mapToObj(i -> "mode " + i)
                        .toList(),
                essential);
    }

    private static ModelSeries harmonic() {
        double[] r = IntStream.rangeClosed(1, 48).mapToDouble(i -> i).toArray();
        return new ModelSeries(
                HARMONIC,
                r,
                IntStream.rangeClosed(1, 48).mapToObj(i -> "harmonic " + i).toList(),
                3);
    }
}
