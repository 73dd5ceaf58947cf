package nightreed.recipe;

import nightreed.recipe.part.Range;

/**
 * A recipe within a patch.
 *
 * @param recipe    what sounds
 * @param balanceDb level against the other layers [dB], -60 to 12
 * @param transpose semitones it sounds above the key, -48 to 48
 * @param lowKey    lowest key it answers, 0..127
 * @param highKey   highest key it answers, not below the lowest
 * @param fadeKeys  keys over which it fades in or out at an end that lies inside the keyboard, 0 to 48
 */
public record Layer(Recipe recipe, double balanceDb, int transpose, int lowKey, int highKey, int fadeKeys) {
    public Layer {
        if (recipe == null) {
            throw new IllegalArgumentException("a layer needs a recipe");
        }
        Range.check("balance of a layer", balanceDb, -60, 12, "dB");
        Range.check("transposition of a layer", transpose, -48, 48, "semitones");
        Range.check("lowest key of a layer", lowKey, 0, 127, "");
        Range.check("highest key of a layer", highKey, lowKey, 127, "");
        Range.check("cross-fade of a layer", fadeKeys, 0, 48, "keys");
    }

    /** A recipe on all keys. */
    public static Layer of(Recipe recipe) {
        return new Layer(recipe, 0, 0, 0, 127, 0);
    }

    /** Factor on its amplitude. */
    public double gain() {
        return Math.pow(10, balanceDb / 20);
    }

    /** Factor on the amplitude of one key, 0 to 1; two layers that fade into each other keep their power. */
    public double gainAt(int key) {
        return key < lowKey || key > highKey
                ? 0
                : edge(lowKey == 0 ? fadeKeys : key - lowKey) * edge(highKey == 127 ? fadeKeys : highKey - key);
    }

    private double edge(int inside) {
        return inside >= fadeKeys ? 1 : Math.sin(Math.PI / 2 * (inside + 1) / (fadeKeys + 1));
    }

    Layer withRecipe(Recipe r) {
        return new Layer(r, balanceDb, transpose, lowKey, highKey, fadeKeys);
    }
}
