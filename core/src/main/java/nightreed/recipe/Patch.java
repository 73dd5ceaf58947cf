package nightreed.recipe;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import nightreed.recipe.part.Effects;
import nightreed.recipe.part.Parameter.Group;
import nightreed.recipe.part.ParameterAccess;
import nightreed.recipe.part.ParameterSpec;
import nightreed.recipe.part.Part;
import nightreed.recipe.part.Range;

/**
 * One to four recipes played together.
 *
 * @param key       key whose sound it is judged by (MIDI number)
 * @param layers    1 to {@value #MOST_LAYERS}
 */
public record Patch(
        int key,

        @Part(id = "layer", name = "layer", group = Group.PLAYING, least = 1, most = Patch.MOST_LAYERS)
        List<Layer> layers,

        @ParameterSpec(
                id = "crossfade",
                name = "cross-fade",
                group = Group.PLAYING,
                meaning = "From the layers that go out to those that come in; the modulation wheel adds to it.")
        double crossFade) {
    public static final int MOST_LAYERS = 4;

    public Patch {
        layers = List.copyOf(layers);
        Range.check("number of layers", layers.size(), 1, MOST_LAYERS, "");
        Range.check("key", key, 0, 127, "");
        Range.check("cross-fade", crossFade, 0, 1, "");
    }

    /** On the key of the first layer, with nothing faded. */
    public Patch(List<Layer> layers) {
        this(keyOf(layers), layers, 0);
    }

    private static int keyOf(List<Layer> layers) {
        Range.check("number of layers", layers.size(), 1, MOST_LAYERS, "");
        Layer first = layers.get(0);
        return Math.max(0, Math.min(127, first.recipe().key() - first.transpose()));
    }

    public static Patch of(Recipe recipe) {
        return new Patch(List.of(Layer.of(recipe)));
    }

    /**
     * One recipe on two manuals of a single keyboard: what lies under a key sounds higher, so that both hands reach the
     * same range.
     *
     * @param at    lowest key of the upper half
     * @param shift semitones by which the lower half is raised, usually 12
     */
    public static Patch split(Recipe recipe, int at, int shift) {
        return new Patch(
                recipe.key(),
                List.of(new Layer(recipe, 0, 0, at, 127, 0), new Layer(recipe, 0, shift, 0, at - 1, 0)),
                0);
    }

    /** Whether it is one recipe and nothing else. */
    public boolean isOne() {
        return layers.size() == 1 && layers.get(0).plain() && key == first().key();
    }

    /** Recipe of the first layer. */
    public Recipe first() {
        return layers.get(0).recipe();
    }

    /** With another recipe as its first layer. */
    public Patch withFirst(Recipe recipe) {
        return withRecipe(0, recipe);
    }

    /** With another recipe in a layer, from 0. */
    public Patch withRecipe(int layer, Recipe recipe) {
        return withLayer(layer, layers.get(layer).withRecipe(recipe));
    }

    /** With another layer in place of one, from 0. */
    public Patch withLayer(int at, Layer layer) {
        List<Layer> all = new ArrayList<>(layers);
        all.set(at, layer);
        return withLayers(all);
    }

    /** With one more behind the others. @throws IllegalArgumentException if there is no room for it */
    public Patch with(Layer another) {
        List<Layer> all = new ArrayList<>(layers);
        all.add(another);
        return withLayers(all);
    }

    /** Without a layer, from 0. @throws IllegalArgumentException if it is the only one */
    public Patch without(int layer) {
        List<Layer> all = new ArrayList<>(layers);
        all.remove(layer);
        return withLayers(all);
    }

    public Patch withLayers(List<Layer> all) {
        return new Patch(key, all, crossFade);
    }

    /** With one of its own values or its layers' changed, such as {@code layer.2.balance}. */
    public Patch with(String id, double value) {
        Patch moved = ParameterAccess.with(this, id, value);
        if (moved == null) {
            throw new IllegalArgumentException("there is no value '" + id + "' in a patch");
        }
        return moved;
    }

    /** The same sound with a layer, from 0, before all others: what is shaped stands first where it is judged. */
    public Patch shaping(int layer) {
        List<Layer> all = new ArrayList<>(layers);
        all.add(0, all.remove(layer));
        return withLayers(all);
    }

    /** Whether any layer has effects behind its sound. */
    public boolean hasEffects() {
        return layers.stream().anyMatch(l -> l.recipe().common().effects().any());
    }

    /** What was fitted, without the effects behind it. */
    public Patch withoutEffects() {
        return withLayers(layers.stream()
                .map(l -> l.withRecipe(l.recipe().withCommon(l.recipe().common().withEffects(Effects.NONE))))
                .toList());
    }

    /** With all macros where they stand. */
    public Patch played() {
        return withLayers(
                layers.stream().map(l -> l.withRecipe(l.recipe().played())).toList());
    }

    /** Whether a layer, from 0, is heard: it is not muted, and no other alone. */
    public boolean isHeard(int layer) {
        Layer l = layers.get(layer);
        boolean alone = false;
        for (int i = 0; i < layers.size(); i++) {
            alone |= layers.get(i).solo();
        }
        return !l.muted() && (l.solo() || !alone);
    }

    /** Whether notes of the one can go on as notes of the other: same methods, waves, feeds and numbers of parts. */
    public static boolean areAlike(Recipe a, Recipe b) {
        if (a.getClass() != b.getClass()) {
            return false;
        }
        List<?> before = a.lists();
        List<?> after = b.lists();
        for (int i = 0; i < before.size(); i++) {
            if (isOfSound(a, i) && !before.get(i).equals(after.get(i))) {
                return false;
            }
        }
        if (a instanceof ResonatorRecipe x && b instanceof ResonatorRecipe y) {
            return x.body() == y.body() && Objects.equals(x.feed(), y.feed());
        }
        if (a instanceof RingRecipe x && b instanceof RingRecipe y) {
            return Objects.equals(x.cycle(), y.cycle());
        }
        if (a instanceof FormantRecipe x && b instanceof FormantRecipe y) {
            return Objects.equals(x.cycle(), y.cycle()) && x.bank() == y.bank();
        }
        if (a instanceof SubtractiveRecipe x && b instanceof SubtractiveRecipe y) {
            return Objects.equals(x.cycle(), y.cycle());
        }
        return true;
    }

    /** Routes and macros are read anew at every step of a note. */
    private static boolean isOfSound(Recipe r, int list) {
        String id = r.lists().get(list).id();
        return !id.equals("route") && !id.equals("macro");
    }
}
