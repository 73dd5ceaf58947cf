package nightreed.recipe;

/**
 * How a recipe follows the key.
 *
 * @param decayPower   T60 goes as frequency to the power of minus this, 0 to 3: 0 keeps the decay on all keys
 * @param exciterShare how far contact and noise follow the key, 0 (not at all) to 1 (fully)
 */
public record KeyTracking(double decayPower, double exciterShare) {
    public KeyTracking {
        Exciter.check("decay tracking", decayPower, 0, 3, "");
        Exciter.check("strike tracking", exciterShare, 0, 1, "");
    }
}
