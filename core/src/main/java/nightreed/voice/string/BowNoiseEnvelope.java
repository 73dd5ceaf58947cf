package nightreed.voice.string;

import nightreed.dsp.Noise;
import nightreed.recipe.Bow;

/** The zigzag of a bow's noise: it swells and falls with each stroke, no two quite alike. */
final class BowNoiseEnvelope {
    private final Noise chance = new Noise(1);
    private double place; // in the stroke, 0 to 1
    private double longer;
    private double stronger;

    void start(long seed) {
        chance.reseed(seed + 77);
        place = 0;
        longer = 1;
        stronger = 1;
    }

    /** Moves on. @param dt [s] @return 0 to about 1 */
    double next(Bow b, double dt) {
        place += dt / (b.strokeSeconds() * longer);
        if (place >= 1) {
            place -= Math.floor(place);
            longer = 1 + 0.5 * b.unevenness() * (2 * chance.uniform() - 1);
            stronger = 1 - 0.5 * b.unevenness() * chance.uniform();
        }
        return stronger * (place < b.rise() ? place / b.rise() : (1 - place) / (1 - b.rise()));
    }
}
