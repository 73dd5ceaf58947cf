package nightreed.match.start;

import java.util.List;
import nightreed.match.sound.AnalysedSound;
import nightreed.match.start.Start.Origin;
import nightreed.match.start.fm.FmStart;
import nightreed.match.start.formant.FormantStart;
import nightreed.match.start.resonator.ResonatorStart;
import nightreed.match.start.ring.RingStart;
import nightreed.match.start.string.StringStart;
import nightreed.match.start.subtractive.SubtractiveStart;
import nightreed.measure.Measurement;
import nightreed.recipe.Recipe;
import nightreed.sound.UnusableSound;
import nightreed.voice.Renderer;
import nightreed.work.Progress;

/** Starting values for every method. */
public final class Starts {
    /** Methods in the order they are offered. */
    public static final List<String> METHODS = List.of("resonators", "fm", "ring", "formant", "string", "subtractive");

    /** Span after the onset whose level is set right [s]. */
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
        if (method.equals("resonators")) {
            return new Start(
                    ResonatorStart.of(recording),
                    List.of(
                            new Origin("tune", true, "measured pitch"),
                            new Origin("level", true, "level of the strongest partial"),
                            new Origin("mode", true, "measured partials, the most audible ones"),
                            new Origin("exciter", true, "measured rise of the waveform"),
                            new Origin("noise", true, "measured noise of the strike")));
        }
        StartContext ground =
                new StartContext(recording, !method.equals("formant"), Progress.NONE); // bands of noise need no pitch
        Recipe recipe = switch (method) {
            case "fm" -> FmStart.of(ground);
            case "ring" -> RingStart.of(ground);
            case "formant" -> FormantStart.of(ground);
            case "string" -> StringStart.of(ground);
            case "subtractive" -> SubtractiveStart.of(ground);
            default ->
                throw new IllegalArgumentException(
                        "there is no method '" + method + "'; there is: " + String.join(", ", METHODS));
        };
        ground.say("level", true, "as loud as the recording over its first " + SPAN + " s");
        return new Start(levelled(recipe, recording), ground.origins());
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
        return switch (method) {
            case "fm" -> List.copyOf(FmStart.several(new StartContext(recording, true, progress), brief));
            case "ring" -> List.copyOf(RingStart.several(new StartContext(recording, true, progress), 10));
            case "formant" -> List.copyOf(FormantStart.several(new StartContext(recording, false, progress)));
            case "string" -> List.copyOf(StringStart.several(new StartContext(recording, true, progress)));
            case "subtractive" -> List.copyOf(SubtractiveStart.several(new StartContext(recording, true, progress)));
            case "resonators" -> List.copyOf(ResonatorStart.several(recording));
            default -> List.of(of(method, recording).recipe());
        };
    }

    /** Whether some starts of a method take seconds to compute. */
    public static boolean areDear(String method) {
        return method.equals("fm");
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
