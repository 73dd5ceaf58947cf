package nightreed.voice;

import java.util.Locale;
import nightreed.dsp.CeilingLimiter;
import nightreed.recipe.Patch;
import nightreed.recipe.Recipe;
import nightreed.sound.Clip;
import nightreed.sound.Loudness;
import nightreed.sound.TruePeak;

/**
 * How loud recipes are played, in the window, in takes and in files. A recipe by itself is as loud as the recording that it
 * imitates; the gain that is found here, and kept in the recipe, brings it to one level for all. It is the same for all
 * strengths and keys, so that these keep their relation.
 */
public final class PlayingLevel {
    /** Loudest 400 ms of the recipe's own key at {@link #VELOCITY} [LUFS]: leaves a mix or a chord room. */
    public static final double NOMINAL_LUFS = -18;

    /** Strength for which that holds, that of most keyboards at a usual touch. */
    public static final double VELOCITY = 0.7;

    /** Highest true peak of the key struck as hard as can be, so that four such notes of unlike phase stay under full scale [dBTP]. */
    public static final double HARDEST_DBTP = -7;

    /** Highest true peak in a file [dBTP]. */
    public static final double CEILING_DB = -1;

    /** Largest gain up, as a patch that is hardly there is not meant to be heard [dB]. */
    private static final double MOST_DB = 60;

    private static final int FS = 48_000;
    private static final double HELD_SECONDS = 1.5;
    private static final double HARD_SECONDS = 0.6;

    private PlayingLevel() {}

    /** A recipe with its gain, found by playing it; one that is silent is left as it is. */
    public static <R extends Recipe> Recipe set(R recipe) {
        return recipe.withCommon(recipe.common().withPlayingGainDb(found(Patch.of(recipe))));
    }

    /** Gain of a patch [dB]: that of its first recipe; found by playing where none was kept. */
    public static double gainDb(Patch patch) {
        Double kept = patch.first().common().playingGainDb();
        return kept == null ? found(patch) : kept;
    }

    /** A patch whose gain is kept. */
    public static Patch kept(Patch patch) {
        return with(patch, gainDb(patch));
    }

    /** With another gain [dB]. */
    public static Patch with(Patch patch, double db) {
        return patch.withFirst(patch.first().withCommon(patch.first().common().withPlayingGainDb(db)));
    }

    private static double found(Patch patch) {
        Patch raw = with(patch, 0);
        int key = patch.first().key();
        Clip usual = Renderer.played(raw, key, VELOCITY, HELD_SECONDS, HELD_SECONDS + 0.1, FS);
        Clip hard = Renderer.played(raw, key, 1, HARD_SECONDS, HARD_SECONDS, FS);
        double byLoudness = NOMINAL_LUFS - Loudness.loudest(usual);
        double byPeak = HARDEST_DBTP - Math.max(TruePeak.db(hard), TruePeak.db(usual));
        double gain = Math.min(byLoudness, byPeak);
        return Double.isFinite(gain) ? Math.min(MOST_DB, gain) : 0;
    }

    /**
     * A sound for a file.
     *
     * @param clip no louder than {@link #CEILING_DB}
     * @param held how far the limiter had to hold it back [dB], 0 or less
     */
    public record Safe(Clip clip, double held) {
        /** What happened to it, in words; empty if nothing did. */
        public String words() {
            return held == 0
                    ? ""
                    : String.format(
                            Locale.ROOT,
                            "The sound reached over %.0f dBTP and was held back by up to %.1f dB; choose another level to keep it whole.",
                            CEILING_DB,
                            -held);
        }
    }

    /** Held under the ceiling where it would be cut off; left as it is where it would not. */
    public static Safe safe(Clip clip) {
        if (TruePeak.db(clip) <= CEILING_DB) {
            return new Safe(clip, 0);
        }
        CeilingLimiter limiter = new CeilingLimiter(CEILING_DB, clip.sampleRateHz());
        int late = limiter.latency();
        int n = clip.length();
        boolean two = clip.channelCount() > 1;
        float[] left = java.util.Arrays.copyOf(clip.channel(0), n + late);
        float[] right = java.util.Arrays.copyOf(clip.channel(two ? 1 : 0), n + late);
        limiter.process(left, right, 0, n + late);
        float[] l = java.util.Arrays.copyOfRange(left, late, n + late);
        float[] r = java.util.Arrays.copyOfRange(right, late, n + late);
        Clip limited = two ? new Clip(new float[][] {l, r}, clip.sampleRateHz()) : Clip.mono(l, clip.sampleRateHz());
        // what the limiter cannot read near half the rate is taken off the whole, a fraction of a dB
        double over = Math.max(0, TruePeak.db(limited) - CEILING_DB);
        return new Safe(
                over == 0 ? limited : limited.scaled(Math.pow(10, -over / 20)),
                20 * Math.log10(limiter.takeReduction()) - over);
    }
}
