package nightreed.recipe;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import nightreed.recipe.part.Range;

/**
 * One to four recipes played together.
 *
 * @param layers 1 to {@value #MOST_LAYERS}
 */
public record Patch(List<Layer> layers) {
    public static final int MOST_LAYERS = 4;

    public Patch {
        layers = List.copyOf(layers);
        Range.check("number of layers", layers.size(), 1, MOST_LAYERS, "");
    }

    public static Patch of(Recipe recipe) {
        return new Patch(List.of(Layer.of(recipe)));
    }

    /** A recipe with another under it, or with nothing where that is null. */
    public static Patch of(Recipe recipe, Recipe under) {
        return under == null ? of(recipe) : new Patch(List.of(Layer.of(recipe), Layer.of(under)));
    }

    /** Recipe of the first layer. */
    public Recipe first() {
        return layers.get(0).recipe();
    }

    /** With another recipe as its first layer. */
    public Patch withFirst(Recipe recipe) {
        List<Layer> all = new ArrayList<>(layers);
        all.set(0, all.get(0).withRecipe(recipe));
        return new Patch(all);
    }

    /** With all macros where they stand. */
    public Patch played() {
        return new Patch(
                layers.stream().map(l -> l.withRecipe(l.recipe().played())).toList());
    }

    /** Whether notes of the one can go on as notes of the other: same methods, waves, feeds and numbers of parts. */
    public boolean builtLike(Patch other) {
        if (layers.size() != other.layers.size()) {
            return false;
        }
        for (int i = 0; i < layers.size(); i++) {
            if (!alike(layers.get(i).recipe(), other.layers.get(i).recipe())) {
                return false;
            }
        }
        return true;
    }

    private static boolean alike(Recipe a, Recipe b) {
        if (a instanceof ResonatorRecipe x && b instanceof ResonatorRecipe y) {
            boolean combs = x.body() == ResonatorRecipe.Body.COMBS;
            return x.body() == y.body()
                    && Objects.equals(x.feed(), y.feed())
                    && (!combs || x.modes().size() == y.modes().size());
        }
        if (a instanceof RingRecipe x && b instanceof RingRecipe y) {
            return Objects.equals(x.cycle(), y.cycle());
        }
        if (a instanceof FormantRecipe x && b instanceof FormantRecipe y) {
            return Objects.equals(x.cycle(), y.cycle())
                    && x.bands().size() == y.bands().size()
                    && x.bank() == y.bank();
        }
        if (a instanceof SubtractiveRecipe x && b instanceof SubtractiveRecipe y) {
            return Objects.equals(x.cycle(), y.cycle())
                    && x.oscillators().size() == y.oscillators().size();
        }
        return a.getClass() == b.getClass();
    }
}
