package nightreed.recipe.part;

import nightreed.recipe.part.Parameter.Law;

/**
 * A filter that may follow key, strength and an envelope of its own.
 *
 * @param envelope what {@code envelopeOctaves} follows; null for none
 */
public record Filter(
        @ParameterSpec(name = "kind", neutral = 0, meaning = "Which part of the spectrum passes.")
        Kind kind,

        @ParameterSpec(name = "slope", neutral = 1, meaning = "How steeply the rest falls.")
        Slope slope,

        @ParameterSpec(
                name = "cutoff",
                unit = "Hz",
                least = 10,
                most = 20_000,
                law = Law.LOGARITHMIC,
                decimals = 0,
                meaning = "Corner or centre, on the recipe's own key.")
        double cutoffHz,

        @ParameterSpec(
                name = "Q",
                least = 0.3,
                most = 60,
                law = Law.LOGARITHMIC,
                neutral = 0.71,
                meaning = "Resonance: 0.71 is flat, more stands out and rings.")
        double q,

        @ParameterSpec(
                name = "key tracking",
                least = -1,
                most = 2,
                neutral = {0, 0.5, 1},
                meaning = "Octaves the cutoff moves with each octave of the key.")
        double keyTracking,

        @ParameterSpec(
                name = "envelope",
                unit = "oct",
                least = -8,
                most = 8,
                neutral = 0,
                meaning = "How far its envelope moves the cutoff.")
        double envelopeOctaves,

        @ParameterSpec(
                name = "velocity",
                unit = "oct",
                most = 6,
                neutral = {0, 1},
                meaning = "How far strength moves the cutoff.")
        double velocityOctaves,

        @ParameterSpec(
                name = "drive",
                unit = "dB",
                most = 36,
                decimals = 1,
                neutral = 0,
                meaning = "Bends the wave before the filter: denser and more even.")
        double driveDb,

        @Part(id = "envelope", name = "envelope") Envelope envelope)
        implements PartlyIdle {
    public static final Filter USUAL = lowPass(2000, 0.71);

    /** Which part passes. */
    public enum Kind {
        LOW,
        BAND,
        HIGH,
        NOTCH
    }

    /** dB per octave; a band or a notch has half of it on each side. */
    public enum Slope {
        DB_6,
        DB_12,
        /** A pole behind 12 dB, for low and high; a band or a notch is that of 12 dB. */
        DB_18,
        DB_24
    }

    public Filter {
        ParameterAccess.check(
                Filter.class,
                kind,
                slope,
                cutoffHz,
                q,
                keyTracking,
                envelopeOctaves,
                velocityOctaves,
                driveDb,
                envelope);
    }

    /** Fixed low-pass of 12 dB per octave. */
    public static Filter lowPass(double cutoffHz, double q) {
        return new Filter(Kind.LOW, Slope.DB_12, cutoffHz, q, 0, 0, 0, 0, null);
    }

    @Override
    public boolean inEffect(String id) {
        return envelopeOctaves != 0 || !id.startsWith("envelope.");
    }
}
