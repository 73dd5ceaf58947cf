package nightreed.match;

import java.util.Collection;
import java.util.List;
import nightreed.match.fit.Adviser;
import nightreed.match.fit.Adviser.Ranked;
import nightreed.match.fit.FitOptions;
import nightreed.match.fit.Fits;
import nightreed.match.fit.Fitted;
import nightreed.match.start.Starts;
import nightreed.measure.Measurement;
import nightreed.measure.Measurer;
import nightreed.recipe.Layer;
import nightreed.recipe.Patch;
import nightreed.recipe.Recipe;
import nightreed.recipe.ResonatorRecipe;
import nightreed.sound.Clip;
import nightreed.sound.UnusableSound;
import nightreed.voice.Renderer;
import nightreed.work.Progress;

/** The road from a recording to an imitation, and the single steps on it. */
public final class Matcher {
    /** More is not made up for: what is so soft is nearly silent [dB]. */
    private static final double MOST_LOUDER_DB = 24;

    /** Of the time that is left after measuring, what the next moves get; chosen. */
    private static final double SHARE_FOR_MOVES = 0.2;

    /** Time that fits get at least, whatever measuring took [s]. */
    private static final double LEAST_SECONDS = 0.5;

    private Matcher() {}

    /** Measures a clip as one side of a comparison. */
    public static AnalysedSound side(Clip clip, Progress progress) throws UnusableSound {
        return new AnalysedSound(clip, Measurer.measure(clip, progress));
    }

    /** The same of what a recipe sounds like. */
    public static AnalysedSound rendered(Clip clip) throws UnusableSound {
        return new AnalysedSound(clip, Measurer.rendered(clip, Progress.NONE));
    }

    /** The recipe as the measurement gives it, before anything is fitted. */
    public static ResonatorRecipe startingValues(AnalysedSound recording) throws UnusableSound {
        return (ResonatorRecipe) Starts.of("resonators", recording).recipe();
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
        return isPlain(recording, recipe)
                ? predictedSide(recording, (ResonatorRecipe) recipe)
                : rendered(render(recipe, recording));
    }

    /** As {@link #imitation(Side, Recipe)}, of all layers together; two of them are always rendered and measured. */
    public static AnalysedSound imitation(AnalysedSound recording, Patch patch) throws UnusableSound {
        return patch.layers().size() == 1 ? imitation(recording, patch.first()) : rendered(render(patch, recording));
    }

    /** As {@link #isPlain(Side, Recipe)}: layers are not. */
    public static boolean isPlain(AnalysedSound recording, Patch patch) {
        return patch.layers().size() == 1 && isPlain(recording, patch.first());
    }

    /** All layers, on the key that each is made for, as {@link #render(Recipe, Side)} plays one. */
    public static Clip render(Patch patch, AnalysedSound like) {
        double[] sum = null;
        for (Layer l : patch.layers()) {
            double[] x = render(l.recipe(), like).mixed();
            if (sum == null) {
                sum = new double[x.length];
            }
            for (int i = 0; i < sum.length; i++) {
                sum[i] += l.gain() * x[i];
            }
        }
        return Clip.mono(sum, like.measurement().sampleRateHz());
    }

    /** The recipe on its own key, laid out in time as the recording is; the key is let go where the recording's was. */
    public static Clip render(Recipe recipe, AnalysedSound like) {
        Measurement m = like.measurement();
        return Renderer.asFitted(recipe, m.onsetSeconds(), like.keySeconds(), m.durationSeconds(), m.sampleRateHz());
    }

    /** The recipe with the level that makes it as loud as the recording over their common span. */
    public static Recipe asLoud(Recipe recipe, AnalysedSound recording) {
        Clip rendered = render(recipe, recording);
        int onset = (int) Math.round(recording.measurement().onsetSeconds() * rendered.sampleRateHz());
        double db = recording.paths().gainDb(LoudnessTracks.of(rendered, onset));
        return recipe.with("level", recipe.levelDb() + Math.max(-MOST_LOUDER_DB, Math.min(MOST_LOUDER_DB, db)));
    }

    /** Renders a recipe and compares it, with the numbers it was made from: fast enough to follow a moved ruler. */
    public static Comparison predict(AnalysedSound recording, ResonatorRecipe recipe) {
        return PerceptualComparator.compare(recording, predictedSide(recording, recipe));
    }

    /** What {@link #predict} compares the recording with. */
    public static AnalysedSound predictedSide(AnalysedSound recording, ResonatorRecipe recipe) {
        return Prediction.of(recipe, recording.measurement(), 30);
    }

    /** What would bring a fit closer, as far as the plan's machine can do it. */
    private static List<Move> moves(AnalysedSound recording, Fitted best, FitOptions plan, Progress progress) {
        return NextMoves.of(recording, best.recipe(), best.comparison(), progress).stream()
                .filter(m -> plan.machine()
                        .missing(best.recipe().with(m.parameter().id(), m.to()))
                        .isEmpty())
                .toList();
    }

    /**
     * The whole road: measure, fit, render, measure the imitation afresh, compare, advise.
     *
     * @param methods that are tried
     * @throws UnusableSound if nothing can be measured, or none of the methods has anything to begin with
     */
    public static Match match(Clip clip, Collection<String> methods, FitOptions plan, Progress progress)
            throws UnusableSound {
        long start = System.nanoTime();
        AnalysedSound recording = side(clip, progress.part(0, 0.1));
        double left = plan.seconds() - (System.nanoTime() - start) / 1e9;
        FitOptions fits = plan.within(Math.max(LEAST_SECONDS, (1 - SHARE_FOR_MOVES) * left));
        List<Ranked> ranking = Adviser.after(Fits.of(methods, recording, fits, progress.part(0.1, 0.9)));
        double rest = plan.seconds() - (System.nanoTime() - start) / 1e9;
        List<Move> moves = Fits.within(
                Math.max(0, rest),
                progress.part(0.9, 1),
                control -> moves(recording, ranking.get(0).fitted(), plan, control),
                List.of());
        return new Match(ranking, moves, (System.nanoTime() - start) / 1e9);
    }
}
