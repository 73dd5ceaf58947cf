package nightreed.recipe;

/**
 * What strikes the body: a contact pulse that drives the modes, and the noise of the contact itself.
 *
 * @param contactMs   length of the contact [ms], 0.02 to 20: longer is softer and slower
 * @param noiseDb     level of the strike noise at its start [dB] relative to the recipe's level; -100 is off
 * @param noiseT60Ms  time for the noise to fall by 60 dB [ms], 1 to 2000
 * @param noiseLowHz  noise below this frequency is taken away, 12 dB per octave [Hz], 20 to 10000
 * @param noiseHighHz noise above this frequency is taken away, 12 dB per octave [Hz], 50 to 20000
 */
public record Exciter(double contactMs, double noiseDb, double noiseT60Ms, double noiseLowHz, double noiseHighHz) {
    public Exciter {
        check("contact", contactMs, 0.02, 20, "ms");
        check("noise level", noiseDb, -100, 24, "dB");
        check("noise T60", noiseT60Ms, 1, 2000, "ms");
        check("noise low cut", noiseLowHz, 20, 10_000, "Hz");
        check("noise high cut", noiseHighHz, 50, 20_000, "Hz");
    }

    static void check(String what, double value, double least, double most, String unit) {
        if (!(value >= least && value <= most)) {
            throw new IllegalArgumentException(
                    what + " must lie in " + least + " to " + most + " " + unit + ", got " + value);
        }
    }
}
