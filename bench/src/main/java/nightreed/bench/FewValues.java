package nightreed.bench;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.fit.FitOptions;
import nightreed.match.frontier.Frontier;
import nightreed.match.frontier.Frontier.Point;
import nightreed.match.frontier.Patches;
import nightreed.match.frontier.Patches.Found;
import nightreed.match.sound.AnalysedSound;
import nightreed.recipe.FirstRecipe;
import nightreed.recipe.Mode;
import nightreed.recipe.NamedModes;
import nightreed.recipe.Recipe;
import nightreed.recipe.ResonatorRecipe;
import nightreed.recipe.size.FreeValue;
import nightreed.recipe.size.FreeValues;
import nightreed.recipe.size.PatchSize;
import nightreed.sound.UnusableSound;
import nightreed.voice.Renderer;
import nightreed.work.Progress;

/**
 * Notes made from few values: whether the frontier has a patch of no more values that is as near.
 * <pre>java -cp 'bench/target/*:bench/target/lib/*' nightreed.bench.FewValues COUNT SEED METHOD...</pre>
 * <p>Each note is made by one of the methods, in turn. It is fitted by all that are given.
 */
public final class FewValues {
    private static final int FS = 44_100;
    private static final double KEY_SECONDS = 1.6;
    private static final double SECONDS = 2.4;

    /** How far a value is moved on its ruler. */
    private static final double MOVED = 0.12;

    private FewValues() {}

    public static void main(String[] args) throws Exception {
        int count = Integer.parseInt(args[0]);
        long seed = Long.parseLong(args[1]);
        List<String> methods = List.of(args).subList(2, args.length);
        int near = 0;
        int made = 0;
        for (int i = 0; i < count; i++) {
            Random random = new Random(seed + i);
            String method = methods.get(i % methods.size());
            Recipe truth = truth(method, random);
            int size = PatchSize.of(truth);
            try {
                AnalysedSound side =
                        ImitationRenderer.side(Renderer.asFitted(truth, 0.1, KEY_SECONDS, SECONDS, FS), Progress.NONE);
                List<Frontier> all = new ArrayList<>();
                for (Found f : Patches.of(methods, side, FitOptions.USUAL, Progress.NONE)) {
                    all.add(f.frontier());
                }
                Point best = Frontier.over(all).atMost(size);
                made++;
                near += best.size() <= size && best.totalJnd() <= 1 ? 1 : 0;
                System.out.printf(
                        Locale.ROOT,
                        "%3d %-11s of %2d values: %2d values by %-11s %.2f JND; %d of %d within 1%n",
                        i,
                        method,
                        size,
                        best.size(),
                        best.method(),
                        best.totalJnd(),
                        near,
                        made);
            } catch (UnusableSound e) {
                System.out.println(i + " " + method + ": " + e.getMessage());
            }
        }
    }

    private static Recipe truth(String method, Random random) {
        Recipe r = FirstRecipe.of(method);
        if (r instanceof ResonatorRecipe body) {
            return struck(body, random);
        }
        for (FreeValue v : FreeValues.of(r)) {
            boolean pitch =
                    v.parameter().unit().equals("×") || v.parameter().unit().equals("cents");
            if (v.isNumber() && !pitch) {
                double at = v.parameter().position(v.value(r)) + MOVED * (2 * random.nextDouble() - 1);
                r = v.withIfPossible(r, v.parameter().at(at));
            }
        }
        return r;
    }

    private static Recipe struck(ResonatorRecipe body, Random random) {
        List<String> names = NamedModes.names();
        double[] ratios = NamedModes.ratios(names.get(random.nextInt(names.size())), 4 + random.nextInt(5));
        double t60 = 0.4 * Math.pow(6, random.nextDouble());
        double power = 0.3 + 1.2 * random.nextDouble();
        List<Mode> modes = new ArrayList<>();
        for (double ratio : ratios) {
            double db = modes.isEmpty() ? 0 : Math.rint(-2 - 22 * random.nextDouble());
            modes.add(new Mode(ratio, db, Math.max(0.02, t60 * Math.pow(ratio, -power)), 0));
        }
        return body.withModes(modes);
    }
}
