package nightreed.recipe.part;

import io.soabase.recordbuilder.core.RecordBuilder;
import nightreed.recipe.part.Parameter.Law;

/** One oscillator. */
@RecordBuilder
public record Oscillator(
        @ParameterSpec(
                name = "wave",
                neutral = 0,
                meaning = "Its wave; measured is one cycle taken from the recording.")
        Wave wave,

        @ParameterSpec(name = "feet", neutral = 2, meaning = "Octave, by the length of an organ pipe: 8 is at pitch.")
        Feet feet,

        @ParameterSpec(
                name = "ratio",
                unit = "×",
                least = 0.05,
                most = 40,
                law = Law.LOGARITHMIC,
                decimals = 4,
                neutral = 1,
                meaning = "Frequency over that of the key, on top of the feet.")
        double ratio,

        @ParameterSpec(
                name = "detune",
                unit = "cents",
                least = -100,
                most = 100,
                decimals = 1,
                neutral = 0,
                meaning = "Offset that makes it beat with the others.")
        double detuneCents,

        @ParameterSpec(
                name = "level",
                unit = "dB",
                least = -80,
                most = 6,
                decimals = 1,
                neutral = 0,
                meaning = "Its level; -80 is silent.")
        double levelDb,

        @ParameterSpec(
                name = "width",
                least = 0.02,
                most = 0.98,
                neutral = 0.5,
                meaning = "Share of the cycle that a pulse is up.")
        double width,

        @ParameterSpec(
                id = "phase",
                name = "phase",
                unit = "rad",
                most = 6.2832,
                leastEver = -100,
                mostEver = 100,
                neutral = 0,
                meaning = "Where in its cycle it starts.")
        double phaseRad,

        @ParameterSpec(
                name = "free-running",
                neutral = 0,
                meaning = "On: it starts anywhere in its cycle, another place for each note.")
        boolean free,

        @ParameterSpec(
                name = "imperfection",
                neutral = 0,
                meaning = "Uneven harmonics, the same for all notes: 0 is the ideal wave.")
        double imperfection,

        @ParameterSpec(
                id = "drift",
                name = "drift",
                unit = "cents",
                most = 50,
                decimals = 1,
                neutral = 0,
                meaning = "Slow wandering of its pitch.")
        double driftCents,

        @ParameterSpec(name = "pan", least = -1, neutral = 0, meaning = "-1 left, 1 right.")
        double pan)
        implements OscillatorBuilder.With, Repeatable, PartlyIdle {
    public static final double OFF_DB = -79.5;
    public static final Oscillator USUAL = of(Wave.SAW, 1);

    /** Ideal waves, and one cycle from a recording. */
    public enum Wave {
        SINE,
        TRIANGLE,
        SAW,
        PULSE,
        MEASURED
    }

    /** Octaves by the length of an open organ pipe. */
    public enum Feet {
        FEET_32(0.25),
        FEET_16(0.5),
        FEET_8(1),
        FEET_4(2),
        FEET_2(4);

        private final double factor;

        Feet(double factor) {
            this.factor = factor;
        }

        public double factor() {
            return factor;
        }
    }

    public Oscillator {
        ParameterAccess.check(
                Oscillator.class,
                wave,
                feet,
                ratio,
                detuneCents,
                levelDb,
                width,
                phaseRad,
                free,
                imperfection,
                driftCents,
                pan);
    }

    public static Oscillator of(Wave wave, double ratio) {
        return new Oscillator(wave, Feet.FEET_8, ratio, 0, 0, 0.5, 0, false, 0, 0, 0);
    }

    /** A second one beside it, a few cents off. */
    @Override
    public Oscillator next() {
        return withDetuneCents(detuneCents > 60 ? detuneCents - 7 : detuneCents + 7);
    }

    public boolean silent() {
        return levelDb <= OFF_DB;
    }

    /** Frequency over that of the key, everything but drift included. */
    public double frequencyRatio() {
        return feet.factor() * ratio * Math.pow(2, detuneCents / 1200);
    }

    @Override
    public boolean inEffect(String id) {
        return id.equals("level") || !silent() && (wave == Wave.PULSE || !id.equals("width"));
    }
}
