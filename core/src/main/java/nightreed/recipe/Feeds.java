package nightreed.recipe;

import nightreed.sound.Clip;

/** Pieces of recordings that drive a body, and how near to endless the body is that they drive. */
public final class Feeds {
    /** Fade at both ends [s], so that a piece cut out of a longer sound does not click. */
    private static final double FADE_SECONDS = 0.004;

    /** Peak that a feed is brought to: loud enough to drive, short of full scale. */
    private static final double PEAK = 0.9;

    private Feeds() {}

    /**
     * A feed from a recording: its channels as one, from its first sound on, up to {@value ExcitationSample#MOST_SECONDS} s.
     *
     * @param onsetSeconds where the sound begins
     * @throws IllegalArgumentException if there is nothing to hear
     */
    public static ExcitationSample of(Clip clip, double onsetSeconds) {
        int fs = clip.sampleRateHz();
        int from = (int) Math.max(0, (onsetSeconds - FADE_SECONDS) * fs);
        int to = (int) Math.min(clip.length(), from + (ExcitationSample.MOST_SECONDS - 0.01) * fs);
        float[] x = clip.span(from, Math.max(from, to)).mixedFloats();
        float peak = 0;
        for (float v : x) {
            peak = Math.max(peak, Math.abs(v));
        }
        if (!(peak > 1e-6)) {
            throw new IllegalArgumentException("there is nothing to hear in it");
        }
        int fade = (int) Math.min(x.length / 2.0, FADE_SECONDS * fs);
        for (int i = 0; i < x.length; i++) {
            double edge = Math.min(1, Math.min(i + 1, x.length - i) / (double) Math.max(1, fade));
            x[i] = (float) Math.max(-1, Math.min(1, x[i] * PEAK / peak * edge));
        }
        return new ExcitationSample(fs, x);
    }

    /** Share of its sound that the comb keeps each time round that keeps most, 0 to 1; 1 would be endless. */
    public static double kept(ResonatorRecipe r) {
        double most = 0;
        for (int i = 0; i < r.modes().size(); i++) {
            Mode m = r.modes().get(i);
            double rounds = r.f0Hz() * m.ratio() * (r.isInverted(i) ? 2 : 1);
            most = Math.max(most, Math.pow(10, -3 / (rounds * m.t60Seconds())));
        }
        return most;
    }
}
