package nightreed.dsp;

/**
 * Seeded noise that sounds the same on every machine: xorshift64* (S. Vigna, 2016), uniform white of unit variance.
 * One thread at a time; only the constructor allocates.
 */
public final class Noise {
    private static final double SQRT12 = Math.sqrt(12);
    private long state;

    public Noise(long seed) {
        reseed(seed);
    }

    public void reseed(long seed) {
        // spreads small seeds over all bits, and keeps the state off zero, where the generator would stay
        long z = seed + 0x9E3779B97F4A7C15L;
        z = (z ^ (z >>> 30)) * 0xBF58476D1CE4E5B9L;
        z = (z ^ (z >>> 27)) * 0x94D049BB133111EBL;
        state = (z ^ (z >>> 31)) | 1;
    }

    /** Uniform in [0, 1). */
    public double uniform() {
        state ^= state >>> 12;
        state ^= state << 25;
        state ^= state >>> 27;
        return ((state * 0x2545F4914F6CDD1DL) >>> 11) * 0x1.0p-53;
    }

    /** Next white sample: mean 0, variance 1, bounded by ±1.74. */
    public double white() {
        return (uniform() - 0.5) * SQRT12;
    }
}
