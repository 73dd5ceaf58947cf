package nightreed.match.method;

import java.util.List;
import nightreed.match.sound.AnalysedSound;
import nightreed.match.start.Method;
import nightreed.match.start.Start;
import nightreed.match.start.StartContext;
import nightreed.match.start.formant.FormantStart;
import nightreed.measure.Measurement;
import nightreed.recipe.Recipe;
import nightreed.sound.UnusableSound;
import nightreed.voice.PlayingLevel;
import nightreed.voice.Renderer;
import nightreed.work.Progress;

/** Starting values for every method. */
public final class Starts {
    /** Names of the methods in the order they are offered. */
    public static final List<String> METHODS =
            Methods.ALL.stream().map(Method::id).toList();

    /** Span after the onset whose level is set right [s]; chosen: a strike and what rings after it. */
    private static final double SPAN = 0.6;

    private Starts() {}

    /**
     * Computes the values of a method from a measured recording.
     *
     * @param method one of {@link #METHODS}
     * @throws UnusableSound            if the recording gives nothing to build on
     * @throws IllegalArgumentException if there is no such method
     */
    public static Start of(String method, AnalysedSound recording) throws UnusableSound {
        Method m = Methods.of(method);
        StartContext context = new StartContext(recording, m.needsPitch(), Progress.NONE);
        Recipe recipe = levelled(m.start(context), recording);
        context.say("level", true, "as loud as the recording over its first " + SPAN + " s");
        return new Start(PlayingLevel.set(recipe), context.origins());
    }

    /** Something to begin with that is there in a tenth of a second, for whoever cannot wait. */
    public static Recipe instant(String method, AnalysedSound recording) throws UnusableSound {
        Method m = Methods.of(method);
        return levelled(m.instant(new StartContext(recording, m.needsPitch(), Progress.NONE)), recording);
    }

    /**
     * Several recipes of a method to begin a search with, the likeliest first; how loud they are is left to
     * {@link #levelled}.
     *
     * @param brief    whether those that take seconds to compute are left out
     * @param progress asked between steps whether to go on
     * @throws UnusableSound if the recording gives nothing to build on
     */
    public static List<Recipe> several(String method, AnalysedSound recording, boolean brief, Progress progress)
            throws UnusableSound {
        Method m = Methods.of(method);
        return List.copyOf(m.starts(new StartContext(recording, m.needsPitch(), progress), brief));
    }

    /** Bands that take their courses from the recording, as loud as it. @throws UnusableSound if it is several notes */
    public static Recipe following(AnalysedSound recording) throws UnusableSound {
        return levelled(FormantStart.following(new StartContext(recording, false, Progress.NONE)), recording);
    }

    /** With the level that makes it as loud as the recording, on its own key. */
    public static Recipe levelled(Recipe recipe, AnalysedSound recording) {
        Measurement m = recording.measurement();
        double fs = m.sampleRateHz();
        double[] x = recording.clip().mixed();
        int onset = (int) Math.max(0, m.onsetSeconds() * fs);
        int n = (int) Math.min(SPAN * fs, x.length - onset);
        if (n < 64) {
            return recipe;
        }
        Recipe at = recipe;
        for (int pass = 0; pass < 2; pass++) { // a drive or a limit in the recipe may bend the first answer
            double[] y = Renderer.asFitted(at, 0, n / fs, m.sampleRateHz()).mixed();
            double want = 0;
            double have = 0;
            for (int i = 0; i < Math.min(n, y.length); i++) {
                want += x[onset + i] * x[onset + i];
                have += y[i] * y[i];
            }
            double db = 10 * Math.log10((want + 1e-12) / (have + 1e-12));
            at = at.with("level", at.levelDb() + db);
        }
        return at;
    }
}
