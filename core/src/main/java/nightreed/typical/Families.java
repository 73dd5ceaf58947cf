package nightreed.typical;

import java.util.List;
import java.util.stream.DoubleStream;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import nightreed.measure.law.ModelSeries;
import nightreed.typical.Family.Body;
import nightreed.typical.Family.Burst;
import nightreed.typical.Family.Held;
import nightreed.typical.Family.Resonance;
import nightreed.typical.Family.Struck;

/**
 * All families. Ratios are those of the idealised bodies in {@link ModelSeries}. Levels, decays and noise differ so much between
 * instruments, players and rooms that one number can only be a middle: what no source names is a working value, chosen, and said to be one.
 */
public final class Families {
    private static final String RATIOS =
            "ratios: N. H. Fletcher, T. D. Rossing, The Physics of Musical Instruments, 1998";
    private static final String PERCUSSION = "T. D. Rossing, Science of Percussion Instruments, 2000";
    private static final String WORKING = "levels, decays and noise: working values";
    private static final String MEYER = "formants: J. Meyer, Acoustics and the Performance of Music, 2009";
    private static final double[] SLOPED = {};
    private static final double[] ONE = {0};

    /** Stiffness of a plucked string of middling gauge; the law is H. Fletcher's (1964). */
    private static final double STIFFNESS = 5e-5;

    private static final int STRING_PARTIALS = 24;

    private static final List<Family> ALL = List.of(
            struck(
                    "plain-bar",
                    "plain bar",
                    List.of("bar", "metal bar", "glockenspiel"),
                    84,
                    new Struck(
                            series(ModelSeries.FREE_BAR, 6),
                            SLOPED,
                            -9,
                            0,
                            2.5,
                            1000,
                            0.8,
                            0.8,
                            0.25,
                            0,
                            0,
                            new Burst(-20, 0.03, 1500, 12_000))),
            struck(
                    "bar-1-4",
                    "bar tuned 1:4",
                    List.of("tuned bar", "marimba", "vibraphone", "mallet"),
                    57,
                    new Struck(
                            new double[] {1, 4, 9.8, 16.5},
                            SLOPED,
                            -9,
                            0,
                            1.6,
                            220,
                            0.8,
                            0.9,
                            1.2,
                            0,
                            0,
                            new Burst(-24, 0.03, 300, 4000))),
            struck(
                    "bar-1-3",
                    "bar tuned 1:3",
                    List.of("xylophone", "wooden bar"),
                    72,
                    new Struck(
                            new double[] {1, 3, 6, 11},
                            SLOPED,
                            -7,
                            0,
                            0.8,
                            523,
                            0.9,
                            0.8,
                            0.4,
                            0,
                            0,
                            new Burst(-14, 0.04, 600, 8000))),
            struck(
                    "tube",
                    "struck tube",
                    List.of("chime", "tube", "tubular bell", "chimes"),
                    72,
                    new Struck(
                            series(ModelSeries.TUBE, 8),
                            new double[] {-30, -18, -8, 0, -3, -6, -10, -14},
                            -8,
                            0,
                            6,
                            523,
                            0.5,
                            0.6,
                            0.4,
                            0,
                            0.4,
                            new Burst(-22, 0.05, 1500, 10_000))),
            struck(
                    "bell",
                    "bell",
                    List.of("church bell", "carillon"),
                    60,
                    new Struck(
                            series("tuned bell", 11),
                            new double[] {-10, -8, -2, -16, 0, -10, -12, -6, -10, -14, -18},
                            -8,
                            0,
                            12,
                            262,
                            0.7,
                            0.9,
                            0.5,
                            0,
                            0.6,
                            new Burst(-16, 0.06, 800, 8000))),
            struck(
                    "gong",
                    "gong or plate",
                    List.of("gong", "plate", "tam-tam"),
                    41,
                    new Struck(
                            new double[] {1, 2.08, 3.41, 3.89, 5, 5.95, 6.82, 8.28, 8.72, 10.87, 11.75, 13.7},
                            SLOPED,
                            -5,
                            0,
                            9,
                            90,
                            0.5,
                            0.6,
                            4,
                            120,
                            0.5,
                            new Burst(-20, 0.15, 200, 4000))),
            struck(
                    "membrane",
                    "drum skin",
                    List.of("membrane", "drum", "tom"),
                    45,
                    new Struck(
                            series("ideal membrane", 8),
                            SLOPED,
                            -8,
                            0,
                            0.7,
                            110,
                            0.7,
                            0.7,
                            2,
                            0,
                            0,
                            new Burst(-14, 0.05, 150, 5000))),
            struck(
                    "kettledrum",
                    "kettledrum",
                    List.of("timpani", "timpano"),
                    45,
                    new Struck(
                            series("kettledrum", 5),
                            new double[] {0, -4, -8, -12, -16},
                            -8,
                            0,
                            2.5,
                            110,
                            0.5,
                            0.5,
                            3,
                            0,
                            0,
                            new Burst(-12, 0.08, 80, 2500))),
            struck(
                    "wood-block",
                    "wood block",
                    List.of("wood", "block", "clave"),
                    84,
                    new Struck(
                            new double[] {1, 2.72, 5.25},
                            SLOPED,
                            -9,
                            0,
                            0.12,
                            1000,
                            0.6,
                            0.5,
                            0.3,
                            0,
                            0,
                            new Burst(-6, 0.03, 500, 9000))),
            struck(
                    "plucked-soft",
                    "soft plucked string",
                    List.of("plucked", "plucked string", "guitar", "harp", "lute", "soft plucked"),
                    52,
                    new Struck(
                            string(), SLOPED, -11, 0.27, 4.5, 165, 0.6, 0.6, 2, 0, 0, new Burst(-30, 0.05, 100, 3000))),
            struck(
                    "plucked-hard",
                    "hard plucked string",
                    List.of("hard plucked", "banjo", "steel string", "picked"),
                    52,
                    new Struck(
                            string(),
                            SLOPED,
                            -6,
                            0.11,
                            4.5,
                            165,
                            0.6,
                            0.6,
                            0.6,
                            0,
                            0,
                            new Burst(-22, 0.04, 300, 7000))),
            struck(
                    "harpsichord",
                    "harpsichord, one set",
                    List.of("harpsichord"),
                    57,
                    new Struck(
                            string(), SLOPED, -4, 0.14, 5, 220, 0.7, 0.4, 0.3, 0, 0, new Burst(-20, 0.03, 800, 9000))),
            struck(
                    "harpsichord-two",
                    "harpsichord, two sets",
                    List.of("two sets", "octave set"),
                    57,
                    new Struck(
                            string(),
                            octaveSet(),
                            -4,
                            0,
                            5,
                            220,
                            0.7,
                            0.4,
                            0.3,
                            0,
                            0.5,
                            new Burst(-18, 0.03, 800, 9000))),
            held(
                    "bowed",
                    "bowed string",
                    List.of("bowed", "violin", "cello", "viola", "strings"),
                    60,
                    new Held(
                            -6,
                            3000,
                            -15,
                            0,
                            List.of(
                                    new Resonance(400, 150, 4),
                                    new Resonance(900, 300, 3),
                                    new Resonance(2800, 900, 5)),
                            90,
                            1,
                            350,
                            -38,
                            400,
                            8000,
                            6,
                            18,
                            1.2,
                            ONE),
                    MEYER,
                    "vibrato of 5 to 7 Hz: J. Meyer, 2009"),
            held(
                    "brass",
                    "brass",
                    List.of("trumpet", "trombone", "horn", "tuba"),
                    58,
                    new Held(
                            -2,
                            1200,
                            -15,
                            0,
                            List.of(new Resonance(1200, 700, 3)),
                            45,
                            4,
                            120,
                            -48,
                            500,
                            6000,
                            5,
                            0,
                            0,
                            ONE),
                    "harmonics that come in one after the other: J.-C. Risset, M. Mathews, 1969",
                    MEYER),
            held(
                    "single-reed",
                    "single reed",
                    List.of("clarinet", "saxophone", "reed"),
                    58,
                    new Held(-4, 1500, -14, -28, List.of(), 50, 2, 100, -46, 800, 7000, 5, 0, 0, ONE),
                    "odd harmonics and cut-off near 1500 Hz: A. H. Benade, Fundamentals of Musical Acoustics, 1976"),
            held(
                    "double-reed",
                    "double reed",
                    List.of("oboe", "bassoon"),
                    67,
                    new Held(
                            -5,
                            2800,
                            -18,
                            0,
                            List.of(new Resonance(1100, 400, 10), new Resonance(2700, 600, 6)),
                            40,
                            1.5,
                            100,
                            -46,
                            1500,
                            8000,
                            5.5,
                            8,
                            0.8,
                            ONE),
                    MEYER),
            held(
                    "flute",
                    "flute",
                    List.of("recorder"),
                    74,
                    new Held(-11, 3000, -18, 0, List.of(), 90, 6, 120, -34, 500, 7000, 5.5, 8, 1.5, ONE),
                    "weak upper harmonics: J. Meyer, Acoustics and the Performance of Music, 2009"),
            held(
                    "stopped-pipe",
                    "stopped pipe",
                    List.of("stopped", "pan flute", "bottle", "gedackt"),
                    60,
                    new Held(-10, 2500, -18, -38, List.of(), 60, 4, 150, -36, 300, 5000, 5, 0, 0, ONE),
                    RATIOS),
            held(
                    "reed-organ",
                    "bright reed organ",
                    List.of("organ", "reed organ", "harmonium", "accordion"),
                    60,
                    new Held(-4, 3500, -14, 0, List.of(), 60, 0.5, 90, -52, 500, 6000, 5, 0, 0, ONE)),
            held(
                    "tape-flute",
                    "tape-played flute",
                    List.of("tape flute", "tape"),
                    67,
                    new Held(-12, 1800, -20, 0, List.of(), 70, 5, 150, -32, 200, 6000, 5.2, 10, 2, ONE),
                    "speed of a tape that wavers: working value"),
            held(
                    "saws",
                    "detuned saws",
                    List.of("saw section", "detuned saw section", "saw", "section", "synth brass"),
                    57,
                    new Held(-6, 4000, -18, 0, List.of(), 30, 0.5, 200, -70, 500, 6000, 5, 0, 0, new double[] {-9, 0, 8
                    }),
                    "harmonics of a saw: 1/n"));

    private Families() {}

    public static List<Family> all() {
        return ALL;
    }

    /** @throws IllegalArgumentException naming what there is, if there is no such family */
    public static Family of(String id) {
        return ALL.stream()
                .filter(f -> f.id().equals(id))
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException("there is no family '" + id + "'; there is: "
                        + String.join(", ", ALL.stream().map(Family::id).toList())));
    }

    private static Family struck(String id, String title, List<String> words, int key, Body body) {
        return new Family(id, title, words, key, body, List.of(RATIOS, PERCUSSION, WORKING));
    }

    private static Family held(String id, String title, List<String> words, int key, Body body, String... sources) {
        List<String> all = Stream.concat(Stream.of(sources), Stream.of(WORKING)).toList();
        return new Family(id, title, words, key, body, all);
    }

    private static double[] series(String name, int count) {
        double[] all = ModelSeries.all().stream()
                .filter(s -> s.name().equals(name))
                .findFirst()
                .orElseThrow()
                .ratios();
        return DoubleStream.of(all).limit(count).toArray();
    }

    private static double[] string() {
        return IntStream.rangeClosed(1, STRING_PARTIALS)
                .mapToDouble(n -> n * Math.sqrt((1 + STIFFNESS * n * n) / (1 + STIFFNESS)))
                .toArray();
    }

    /** Levels of two sets of strings, of which one is an octave higher: even partials are stronger by it. */
    private static double[] octaveSet() {
        return IntStream.rangeClosed(1, STRING_PARTIALS)
                .mapToDouble(n -> -4 * Math.log(n) / Math.log(2) + (n % 2 == 0 ? 5 : 0))
                .toArray();
    }
}
