package nightreed.voice;

import java.util.ArrayList;
import java.util.List;
import nightreed.recipe.MacroValues;
import nightreed.recipe.Patch;
import nightreed.recipe.Recipe;
import nightreed.recipe.part.Macro;
import nightreed.recipe.part.Parameter;
import nightreed.sound.Loudness;

/** Makes a macro equally loud along its whole way, by a course of the recipe's level that the macro moves with the rest. */
public final class EvenMacro {
    /** Places along the way at which loudness is measured and the level is set. */
    public static final int POINTS = 11;

    private static final int FS = 48_000;
    private static final double HELD_SECONDS = 1.5;
    private static final double SECONDS = 2;

    /** The second time takes up what a drive or a limiter makes of a level. */
    private static final int ROUNDS = 2;

    private EvenMacro() {}

    /**
     * @param macro its number, from 1; it stays as loud as it is where it stands now, as far as the level reaches
     * @return the same recipe if it is silent somewhere on the way
     */
    public static Recipe of(Recipe recipe, int macro) {
        Recipe r = recipe;
        double wanted = lufs(recipe);
        for (int round = 0; round < ROUNDS; round++) {
            double[] loud = along(r, macro);
            List<Double> levels = new ArrayList<>();
            Parameter level = r.setting("level").parameter();
            for (int k = 0; k < POINTS; k++) {
                if (!Double.isFinite(loud[k]) || !Double.isFinite(wanted)) {
                    return recipe;
                }
                Recipe there = at(r, macro, k);
                levels.add(level.clamp(there.played().levelDb() + wanted - loud[k]));
            }
            r = MacroValues.along(r, macro, "level", levels);
        }
        return r;
    }

    /** Gated loudness (ITU-R BS.1770-4) of a note held for 1.5 s, at {@value #POINTS} equal steps of a macro [LUFS]. */
    public static double[] along(Recipe recipe, int macro) {
        double[] out = new double[POINTS];
        for (int k = 0; k < POINTS; k++) {
            out[k] = lufs(at(recipe, macro, k));
        }
        return out;
    }

    private static Recipe at(Recipe recipe, int macro, int point) {
        Macro m = recipe.common().macros().get(macro - 1);
        List<Macro> all = new ArrayList<>(recipe.common().macros());
        all.set(macro - 1, new Macro(m.name(), point / (POINTS - 1.0), m.targets()));
        return recipe.withCommon(recipe.common().withMacros(all));
    }

    private static double lufs(Recipe recipe) {
        return Loudness.integrated(
                Renderer.played(Patch.of(recipe), recipe.key(), PlayingLevel.VELOCITY, HELD_SECONDS, SECONDS, FS));
    }
}
