package nightreed.bench;

import java.util.Arrays;
import java.util.Locale;
import java.util.concurrent.Callable;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.fit.FitOptions;
import nightreed.match.fit.Fits;
import nightreed.match.sound.AnalysedSound;
import nightreed.measure.Measurer;
import nightreed.recipe.ResonatorRecipe;
import nightreed.room.RecordingRoom;
import nightreed.sound.Clip;
import nightreed.voice.Instrument;
import nightreed.work.Progress;

/**
 * How many times faster than real time the main steps are, warm, on a note from the recording room. Medians of 15.
 * <pre>mvn -q -pl bench -am package -DskipTests; java -cp 'bench/target/*:desktop/target/lib/*' nightreed.bench.RealTimeRatios</pre>
 */
public final class RealTimeRatios {
    private static final int RUNS = 15;

    private RealTimeRatios() {}

    public static void main(String[] args) throws Exception {
        Clip clip = RecordingRoom.record(RecordingRoom.instruments().get(0), 52, 0.8, 5);
        double seconds = clip.seconds();
        AnalysedSound side = ImitationRenderer.side(clip, Progress.NONE);
        ResonatorRecipe recipe = (ResonatorRecipe)
                Fits.of("resonators", side, FitOptions.USUAL, Progress.NONE).recipe();
        say("measure", seconds, median(() -> Measurer.measure(clip)));
        say("render and compare", seconds, median(() -> ImitationRenderer.predict(side, recipe)));
        say("fit", seconds, median(() -> Fits.of("resonators", side, FitOptions.USUAL, Progress.NONE)));
        float[] out = new float[48_000];
        double voices = median(() -> {
            Instrument i = new Instrument(recipe, 48_000);
            for (int k = 0; k < 24; k++) {
                i.noteOn(40 + k, 0.8);
            }
            Arrays.fill(out, 0);
            i.render(out, 0, out.length);
            return out;
        });
        say("24 voices of " + recipe.modes().size() + " modes", 1, voices);
    }

    private static void say(String what, double seconds, double took) {
        System.out.printf(Locale.ROOT, "%-24s %8.1f x real time  (%.1f ms)%n", what, seconds / took, 1000 * took);
    }

    private static double median(Callable<?> work) throws Exception {
        double[] took = new double[RUNS];
        for (int i = 0; i < RUNS; i++) {
            long start = System.nanoTime();
            work.call();
            took[i] = (System.nanoTime() - start) / 1e9;
        }
        Arrays.sort(took);
        return took[RUNS / 2];
    }
}
