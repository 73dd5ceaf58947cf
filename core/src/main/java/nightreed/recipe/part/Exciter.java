package nightreed.recipe.part;

import nightreed.recipe.part.Parameter.Law;

/**
 * What strikes the body: a contact pulse that drives it, and the noise of the contact itself, with filter and decay of its own.
 */
public record Exciter(
        @ParameterSpec(
                id = "exciter.contact",
                name = "contact",
                unit = "ms",
                least = 0.02,
                most = 20,
                law = Law.LOGARITHMIC,
                neutral = 0.5,
                meaning = "How long the mallet touches: longer is a slower, rounder start.")
        double contactMs,

        @ParameterSpec(
                id = "noise.level",
                name = "noise level",
                unit = "dB",
                least = -100,
                most = 24,
                decimals = 1,
                neutral = -100,
                meaning = "Noise of the contact, at its start.")
        double noiseDb,

        @ParameterSpec(
                id = "noise.t60",
                name = "noise T60",
                unit = "ms",
                least = 1,
                most = 2000,
                law = Law.LOGARITHMIC,
                decimals = 1,
                meaning = "Time the noise takes to fall by 60 dB.")
        double noiseT60Ms,

        @ParameterSpec(
                id = "noise.low",
                name = "noise low cut",
                unit = "Hz",
                least = 20,
                most = 10_000,
                law = Law.LOGARITHMIC,
                decimals = 0,
                meaning = "Takes the thud out of the noise.")
        double noiseLowHz,

        @ParameterSpec(
                id = "noise.high",
                name = "noise high cut",
                unit = "Hz",
                least = 50,
                most = 20_000,
                law = Law.LOGARITHMIC,
                decimals = 0,
                meaning = "Takes the hiss out of the noise.")
        double noiseHighHz)
        implements PartlyIdle {
    /** At or below this the noise is off [dB]. */
    public static final double OFF_DB = -99.5;

    /** Sharp and without noise. */
    public static final Exciter USUAL = new Exciter(0.5, -100, 20, 200, 8000);

    public Exciter {
        ParameterAccess.check(Exciter.class, contactMs, noiseDb, noiseT60Ms, noiseLowHz, noiseHighHz);
    }

    public Exciter withContactMs(double ms) {
        return new Exciter(ms, noiseDb, noiseT60Ms, noiseLowHz, noiseHighHz);
    }

    /**
     * Part of the power of white noise at a frequency that its two cuts let through, of 12 dB per octave each (S. Butterworth,
     * 1930), 0 to 1.
     *
     * @param hz above 0
     */
    public double passed(double hz) {
        double low = hz * hz / (noiseLowHz * noiseLowHz);
        double high = hz * hz / (noiseHighHz * noiseHighHz);
        return low * low / (1 + low * low) / (1 + high * high);
    }

    public boolean noisy() {
        return noiseDb > OFF_DB;
    }

    @Override
    public boolean inEffect(String id) {
        return noisy() || !id.startsWith("noise.") || id.equals("noise.level");
    }
}
