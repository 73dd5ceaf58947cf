package nightreed.match;

import java.util.List;
import nightreed.measure.Measurement;
import nightreed.measure.Measurer;
import nightreed.measure.Progress;
import nightreed.recipe.Recipe;
import nightreed.recipe.ResonatorRecipe;
import nightreed.sound.Clip;
import nightreed.sound.UnusableSound;
import nightreed.voice.Renderer;

/** The road from a recording to an imitation, and the single steps on it. */
public final class Matcher {
    private Matcher() {}

    /** Measures a clip as one side of a comparison. */
    public static Side side(Clip clip, Progress progress) throws UnusableSound {
        return new Side(clip, Measurer.measure(clip, progress));
    }

    /** The recipe as the measurement gives it, before anything is fitted. */
    public static ResonatorRecipe startingValues(Side recording) throws UnusableSound {
        return ResonatorFit.start(recording);
    }

    /** Finds the recipe of resonators that comes closest to a recording. */
    public static ResonatorRecipe fit(Side recording, Progress progress) throws UnusableSound {
        return new ResonatorFit(recording, progress).run();
    }

    /** Whether the partials of a recipe are known without listening to it: plain modes and nothing behind them. */
    public static boolean isPlain(Recipe recipe) {
        return recipe instanceof ResonatorRecipe r
                && r.body() == ResonatorRecipe.Body.MODES
                && r.feed() == null
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
    public static Side imitation(Side recording, Recipe recipe) throws UnusableSound {
        return isPlain(recipe)
                ? predictedSide(recording, (ResonatorRecipe) recipe)
                : side(render(recipe, recording.measurement()), Progress.NONE);
    }

    /** The recipe on its own key, laid out in time as the recording is. */
    public static Clip render(Recipe recipe, Measurement like) {
        return Renderer.asFitted(recipe, like.onsetSeconds(), like.durationSeconds(), like.sampleRateHz());
    }

    /** Renders a recipe and compares it, with the numbers it was made from: fast enough to follow a moved ruler. */
    public static Comparison predict(Side recording, ResonatorRecipe recipe) {
        return Listener.compare(recording, predictedSide(recording, recipe));
    }

    /** What {@link #predict} compares the recording with. */
    public static Side predictedSide(Side recording, ResonatorRecipe recipe) {
        return Prediction.of(recipe, recording.measurement(), 30);
    }

    /** The whole road: measure, fit, render, measure the imitation afresh, compare, advise. */
    public static Match match(Clip clip, Progress progress) throws UnusableSound {
        long start = System.nanoTime();
        Side recording = side(clip, progress.part(0, 0.25));
        ResonatorRecipe recipe = fit(recording, progress.part(0.25, 0.75));
        Clip imitation = render(recipe, recording.measurement());
        Side heard = side(imitation, progress.part(0.75, 0.9));
        Comparison comparison = Listener.compare(recording, heard);
        List<Move> moves = NextMoves.of(recording, recipe, predict(recording, recipe), progress.part(0.9, 1));
        return new Match(recipe, imitation, comparison, moves, (System.nanoTime() - start) / 1e9);
    }
}
