package nightreed.match.compare;

import nightreed.match.sound.AnalysedSound;
import nightreed.match.sound.LoudnessTracks;
import nightreed.measure.Measurement;
import nightreed.measure.Measurer;
import nightreed.recipe.Patch;
import nightreed.recipe.Recipe;
import nightreed.recipe.ResonatorRecipe;
import nightreed.sound.Clip;
import nightreed.sound.UnusableSound;
import nightreed.voice.Renderer;
import nightreed.work.Progress;

/** Renders recipes as a recording is laid out in time, and measures what comes out. */
public final class ImitationRenderer {
    /** More is not made up for: what is so soft is nearly silent [dB]. */
    private static final double MOST_LOUDER_DB = 24;

    private ImitationRenderer() {}

    /** Measures a clip as one side of a comparison. */
    public static AnalysedSound side(Clip clip, Progress progress) throws UnusableSound {
        return new AnalysedSound(clip, Measurer.measure(clip, progress));
    }

    /** The same of what a recipe sounds like. */
    public static AnalysedSound rendered(Clip clip) throws UnusableSound {
        return new AnalysedSound(clip, Measurer.rendered(clip, Progress.NONE));
    }

    /**
     * Whether the partials of an imitation are known without listening to it: plain modes and nothing behind them, beside a
     * recording that dies by itself as they do.
     */
    public static boolean isPlain(AnalysedSound recording, Recipe recipe) {
        return recording.measurement().held() == null
                && recipe instanceof ResonatorRecipe r
                && r.body() == ResonatorRecipe.Body.MODES
                && r.feed() == null
                && r.common().pan() == 0
                && r.common().routes().isEmpty()
                && r.common().before() == null
                && r.common().after() == null
                && !r.common().effects().any();
    }

    /**
     * The imitation as one side of a comparison: computed where the partials are known, otherwise rendered and measured.
     *
     * @throws UnusableSound if what is rendered cannot be measured
     */
    public static AnalysedSound imitation(AnalysedSound recording, Recipe recipe) throws UnusableSound {
        return imitation(recording, Patch.of(recipe));
    }

    /** As {@link #imitation(Side, Recipe)}, of all layers together; both sides are there to be heard, the middle of them is measured. */
    public static AnalysedSound imitation(AnalysedSound recording, Patch patch) throws UnusableSound {
        return isPlain(recording, patch)
                ? predictedSide(recording, (ResonatorRecipe) patch.first())
                : rendered(render(patch, recording));
    }

    /** As {@link #isPlain(Side, Recipe)}: layers are not. */
    public static boolean isPlain(AnalysedSound recording, Patch patch) {
        return patch.isOne() && isPlain(recording, patch.first());
    }

    /** All layers on the patch's key, laid out in time as the recording is; of two channels. */
    public static Clip render(Patch patch, AnalysedSound like) {
        Measurement m = like.measurement();
        return Renderer.asFitted(patch, m.onsetSeconds(), like.keySeconds(), m.durationSeconds(), m.sampleRateHz());
    }

    /** The recipe on its own key, laid out in time as the recording is; the key is let go where the recording's was. */
    public static Clip render(Recipe recipe, AnalysedSound like) {
        Measurement m = like.measurement();
        return Renderer.asFitted(recipe, m.onsetSeconds(), like.keySeconds(), m.durationSeconds(), m.sampleRateHz());
    }

    /** The recipe with the level that makes it as loud as the recording over their common span. */
    public static Recipe asLoud(Recipe recipe, AnalysedSound recording) {
        return recipe.with("level", recipe.levelDb() + missingDb(render(recipe, recording), recording));
    }

    /** How much louder the recording is than a render over their common span, limited [dB]. */
    public static double missingDb(Clip rendered, AnalysedSound recording) {
        int onset = (int) Math.round(recording.measurement().onsetSeconds() * rendered.sampleRateHz());
        double db = recording.paths().gainDb(LoudnessTracks.of(rendered, onset));
        return Math.max(-MOST_LOUDER_DB, Math.min(MOST_LOUDER_DB, db));
    }

    /** Renders a recipe and compares it, with the numbers it was made from: fast enough to follow a moved ruler. */
    public static Comparison predict(AnalysedSound recording, ResonatorRecipe recipe) {
        return PerceptualComparator.compare(recording, predictedSide(recording, recipe));
    }

    /** What {@link #predict} compares the recording with. */
    public static AnalysedSound predictedSide(AnalysedSound recording, ResonatorRecipe recipe) {
        return Prediction.of(recipe, recording.measurement(), 30);
    }
}
