package nightreed.voice.explain;

import java.util.List;
import nightreed.music.Pitch;
import nightreed.recipe.FmRecipe;
import nightreed.recipe.FormantRecipe;
import nightreed.recipe.Recipe;
import nightreed.recipe.ResonatorRecipe;
import nightreed.recipe.RingRecipe;
import nightreed.recipe.StringRecipe;
import nightreed.recipe.SubtractiveRecipe;

/** All tables of a recipe, on a key at the reference velocity. */
public final class Arithmetic {
    /** Rate the tables are computed for [Hz]. */
    public static final double SAMPLE_RATE_HZ = 48_000;

    private Arithmetic() {}

    /** @param key MIDI number */
    public static List<Table> of(Recipe recipe, int key) {
        Recipe r = recipe.played();
        double hz = Pitch.hz(key + r.tuningCents() / 100);
        if (r instanceof ResonatorRecipe x) {
            return ModeTables.of(x, key, hz);
        }
        if (r instanceof FmRecipe x) {
            return FmTables.of(x, hz);
        }
        if (r instanceof RingRecipe x) {
            return RingTables.of(x, hz);
        }
        if (r instanceof FormantRecipe x) {
            return FormantTables.of(x, hz);
        }
        if (r instanceof StringRecipe x) {
            return StringTables.of(x, key, hz);
        }
        return SubtractiveTables.of((SubtractiveRecipe) r, key, hz);
    }
}
