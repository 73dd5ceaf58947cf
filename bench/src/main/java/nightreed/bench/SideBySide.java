package nightreed.bench;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import nightreed.recipe.LoopLoss;
import nightreed.recipe.Mode;
import nightreed.recipe.Recipe;
import nightreed.recipe.ResonatorRecipe;
import nightreed.recipe.StringRecipe;
import nightreed.recipe.part.Exciter;
import nightreed.recipe.part.KeyTracking;
import nightreed.recipe.part.VelocityMap;
import nightreed.voice.note.Note;
import nightreed.voice.note.PerformanceControls;
import nightreed.voice.note.VoiceModel;
import nightreed.voice.resonator.ModeSound;
import nightreed.voice.string.LoopDesign;
import nightreed.voice.string.StringLoop;
import nightreed.voice.string.StringSound;

/**
 * Mode bank and string loop against the same loops in C, in turns within one run; medians of the ratios. Started by
 * {@code bench/side-by-side.sh}, which compiles the C.
 */
public final class SideBySide {
    private static final int ROUNDS = 15;
    private static final double SECONDS = 20;
    private static final double FS = 48_000;
    private static final int WARM_UP = 8;

    private SideBySide() {}

    public static void main(String[] args) throws Exception {
        List<Mode> modes = new ArrayList<>();
        for (int i = 0; i < 64; i++) {
            modes.add(new Mode(1 + 0.37 * i, -20, 60, 0));
        }
        ResonatorRecipe bank = new ResonatorRecipe(
                45, 0, -6, new Exciter(0.1, -100, 10, 100, 5000), modes, new KeyTracking(0, 0), VelocityMap.USUAL, 100);
        StringRecipe string = new StringRecipe(
                45,
                0,
                -6,
                StringRecipe.Drive.PULSE,
                new Exciter(0.1, -100, 10, 100, 5000),
                new LoopLoss(LoopLoss.Kind.ONE_POLE, 90, 20_000, 2),
                0);
        compare("mode bank, 64 modes", args[0], "modes", bank, new ModeSound(FS, null));
        compare("a string's whole voice", args[0], "string", string, new StringSound(FS));
        loop(args[0], string);
    }

    /** The loop by itself, as the C has it: pulled, damped, pushed. */
    private static void loop(String program, StringRecipe recipe) throws IOException {
        LoopDesign design = new LoopDesign(FS);
        design.solve(recipe.f0Hz(), recipe.loss(), 1, 0, false);
        StringLoop loop = new StringLoop(4096);
        loop.take(design);
        double[] wave = new double[Note.STEP];
        double[] out = new double[Note.STEP];
        for (int i = 0; i < 430; i += 10) {
            java.util.Arrays.setAll(wave, k -> Math.sin(0.3 * k));
            loop.push(wave, 10);
        }
        double[] ratio = new double[ROUNDS];
        double[] java = new double[ROUNDS];
        for (int i = -WARM_UP; i < ROUNDS; i++) {
            double took = turns(loop, wave, out);
            if (i >= 0) {
                java[i] = took;
                ratio[i] = runC(program, "string") / took;
            }
        }
        Arrays.sort(ratio);
        Arrays.sort(java);
        say("string loop", java[ROUNDS / 2], java[ROUNDS / 2] * ratio[ROUNDS / 2], ratio);
    }

    private static double turns(StringLoop loop, double[] wave, double[] out) {
        long samples = (long) (SECONDS * FS);
        double extra = 1;
        double extraStep = 0;
        double amplitude = 1;
        double amplitudeStep = 0;
        long start = System.nanoTime();
        for (long s = 0; s < samples; s += Note.STEP) {
            loop.pull(wave, Note.STEP);
            for (int i = 0; i < Note.STEP; i++) {
                wave[i] *= extra;
                extra += extraStep;
                out[i] = wave[i] * amplitude;
                amplitude += amplitudeStep;
            }
            loop.push(wave, Note.STEP);
        }
        double took = System.nanoTime() - start;
        if (Double.isNaN(out[0])) {
            throw new IllegalStateException("not a number");
        }
        return took / samples;
    }

    private static <R extends Recipe> void compare(
            String title, String program, String kernel, R recipe, VoiceModel<R> sound) throws IOException {
        double[] ratio = new double[ROUNDS];
        double[] java = new double[ROUNDS];
        double[] c = new double[ROUNDS];
        for (int i = 0; i < WARM_UP; i++) {
            run(recipe, sound); // compiled by then
        }
        for (int i = 0; i < ROUNDS; i++) {
            java[i] = run(recipe, sound);
            c[i] = runC(program, kernel);
            ratio[i] = c[i] / java[i];
        }
        Arrays.sort(ratio);
        Arrays.sort(java);
        Arrays.sort(c);
        say(title, java[ROUNDS / 2], c[ROUNDS / 2], ratio);
    }

    private static void say(String title, double java, double c, double[] ratio) {
        System.out.printf(
                Locale.ROOT,
                "%-24s Java %.2f ns a sample, C %.2f: %.2f x the speed of C (%.2f to %.2f)%n",
                title,
                java,
                c,
                ratio[ROUNDS / 2],
                ratio[0],
                ratio[ROUNDS - 1]);
    }

    /** Nanoseconds per sample of one ringing note, as a voice renders it. */
    private static <R extends Recipe> double run(R recipe, VoiceModel<R> sound) {
        Note note = new Note(FS, new PerformanceControls());
        note.start(recipe, recipe.key(), 0.7, 1, recipe.key());
        sound.start(recipe, note);
        double[] out = new double[Note.STEP];
        double sum = 0;
        long samples = (long) (SECONDS * FS);
        for (int i = 0; i < 400; i++) { // until the strike is over
            step(recipe, sound, note, out);
        }
        long start = System.nanoTime();
        for (long s = 0; s < samples; s += Note.STEP) {
            step(recipe, sound, note, out);
            sum += out[Note.STEP - 1];
        }
        double took = System.nanoTime() - start;
        if (Double.isNaN(sum)) {
            throw new IllegalStateException("not a number");
        }
        return took / samples;
    }

    private static <R extends Recipe> void step(R recipe, VoiceModel<R> sound, Note note, double[] out) {
        Arrays.fill(out, 0);
        note.advance(recipe, Note.STEP);
        sound.step(recipe, note, Note.STEP);
        sound.render(out, out, 0, Note.STEP);
    }

    private static double runC(String program, String kernel) throws IOException {
        Process p = new ProcessBuilder(program, kernel, String.valueOf(SECONDS))
                .redirectError(ProcessBuilder.Redirect.DISCARD)
                .start();
        return Double.parseDouble(new String(p.getInputStream().readAllBytes(), StandardCharsets.UTF_8).trim());
    }
}
