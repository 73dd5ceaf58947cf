package nightreed.voice.note;

import nightreed.dsp.Noise;
import nightreed.recipe.part.Exciter;

/**
 * Noise of a strike: white noise through a high-pass and a low-pass of 12 dB per octave, falling by 60 dB in its T60. Its
 * mean square at the start is half the square of its level, as that of a sine is.
 */
public final class StrikeNoise {
    private static final double SQRT_HALF = Math.sqrt(0.5);
    private static final double LEAST = 1e-9;
    private final double fs;
    private final Noise noise = new Noise(1);
    private final Section lowCut = new Section();
    private final Section highCut = new Section();
    private double level;
    private double decay;
    private long left; // samples until it is over

    public StrikeNoise(double sampleRateHz) {
        this.fs = sampleRateHz;
    }

    /**
     * Begins.
     *
     * @param follow     factor on both cuts, above 0
     * @param brightness further factor on the high cut, above 0
     * @param amplitude  that of level 0 dB
     */
    public void start(Exciter exciter, double follow, double brightness, double amplitude, long seed) {
        cuts(exciter.noiseLowHz() * follow, exciter.noiseHighHz() * follow * brightness, seed);
        decay = Math.exp(-Math.log(1000) / (exciter.noiseT60Ms() / 1000 * fs));
        level = exciter.noisy() ? amplitude * Math.pow(10, exciter.noiseDb() / 20) * Math.sqrt(0.5 / passedPower()) : 0;
        // counted, so that it ends at the same sample in blocks of any size
        left = level <= LEAST ? 0 : (long) (Math.log(LEAST / level) / Math.log(decay)) + 64;
    }

    /** Part of the power of white noise that both cuts let through. */
    private double passedPower() {
        double sum = 0;
        int steps = 400;
        for (int i = 0; i < steps; i++) {
            double w = (i + 0.5) / steps * Math.PI;
            sum += lowCut.power(w) * highCut.power(w) / steps;
        }
        return Math.max(1e-6, sum);
    }

    /** Begins and sounds on at a level of 0 dB until {@link #start} is called. */
    public void sustain(double lowHz, double highHz, double amplitude, long seed) {
        cuts(lowHz, highHz, seed);
        decay = 1;
        level = amplitude * Math.sqrt(0.5 / passedPower());
        left = Long.MAX_VALUE / 2;
    }

    /** Ends at once: a note without such noise must not inherit that of the one before. */
    public void silence() {
        level = 0;
        left = 0;
    }

    private void cuts(double lowHz, double highHz, long seed) {
        noise.reseed(seed);
        lowCut.reset();
        highCut.reset();
        lowCut.highPass(Math.min(lowHz, 0.45 * fs), SQRT_HALF, fs);
        highCut.lowPass(Math.min(highHz, 0.49 * fs), SQRT_HALF, fs);
    }

    public double level() {
        return level;
    }

    /** Adds the next samples, times a factor, to {@code out[from..to)}. */
    public void add(double[] out, int from, int to, double gain) {
        int end = (int) Math.min(to, from + left);
        double l = level;
        for (int i = from; i < end; i++) {
            out[i] += gain * lowCut.next(highCut.next(noise.white() * l));
            l *= decay;
        }
        level = l;
        left -= end - from;
        if (left == 0) {
            level = 0;
        }
    }

    public boolean over() {
        return left == 0;
    }
}
