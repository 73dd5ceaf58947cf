package nightreed.recipe;

import io.soabase.recordbuilder.core.RecordBuilder;
import nightreed.recipe.part.Parameter.Group;
import nightreed.recipe.part.ParameterAccess;
import nightreed.recipe.part.ParameterSpec;
import nightreed.recipe.part.Range;
import nightreed.recipe.part.Repeatable;

/**
 * A recipe within a patch.
 *
 * @param recipe       what sounds
 * @param transpose    semitones it sounds above the key
 * @param highKey      highest key it answers, not below the lowest
 * @param highVelocity hardest strike it answers, not below the softest
 */
@RecordBuilder
public record Layer(
        Recipe recipe,

        @ParameterSpec(
                name = "balance",
                unit = "dB",
                least = -60,
                most = 12,
                decimals = 1,
                group = Group.PLAYING,
                meaning = "Level against the other layers.")
        double balanceDb,

        @ParameterSpec(name = "pan", least = -1, group = Group.PLAYING, meaning = "-1 left, 1 right.")
        double pan,

        @ParameterSpec(
                name = "transposition",
                unit = "semitones",
                least = -48,
                most = 48,
                decimals = 0,
                group = Group.PLAYING,
                meaning = "Above the key that is pressed: 5 is a fourth, 12 an octave.")
        int transpose,

        @ParameterSpec(
                id = "fine",
                name = "fine tuning",
                unit = "cents",
                least = -100,
                most = 100,
                decimals = 1,
                group = Group.PLAYING,
                meaning = "On top of the transposition.")
        double fineCents,

        @ParameterSpec(name = "lowest key", most = 127, decimals = 0, group = Group.PLAYING, meaning = "MIDI number.")
        int lowKey,

        @ParameterSpec(name = "highest key", most = 127, decimals = 0, group = Group.PLAYING, meaning = "MIDI number.")
        int highKey,

        @ParameterSpec(
                name = "fade",
                unit = "keys",
                most = 48,
                decimals = 0,
                group = Group.PLAYING,
                meaning = "Keys over which it fades in or out at an end that lies inside the keyboard.")
        int fadeKeys,

        @ParameterSpec(
                name = "softest",
                group = Group.PLAYING,
                meaning = "Velocity of the softest strike that it answers.")
        double lowVelocity,

        @ParameterSpec(
                name = "hardest",
                group = Group.PLAYING,
                meaning = "Velocity of the hardest strike that it answers.")
        double highVelocity,

        @ParameterSpec(
                id = "crossfade",
                name = "cross-fade",
                group = Group.PLAYING,
                meaning = "What the modulation wheel and the patch's cross-fade do to it.")
        CrossFade crossFade,

        @ParameterSpec(name = "muted", group = Group.PLAYING, meaning = "On: it is not heard.")
        boolean muted,

        @ParameterSpec(name = "solo", group = Group.PLAYING, meaning = "On: only layers with it are heard.")
        boolean solo)
        implements LayerBuilder.With, Repeatable {
    /** What a cross-fade does to a layer. Two that go opposite ways keep their power all along. */
    public enum CrossFade {
        STAYS,
        COMES_IN,
        GOES_OUT
    }

    public Layer {
        if (recipe == null) {
            throw new IllegalArgumentException("a layer needs a recipe");
        }
        crossFade = crossFade == null ? CrossFade.STAYS : crossFade;
        ParameterAccess.check(
                Layer.class,
                recipe,
                balanceDb,
                pan,
                transpose,
                fineCents,
                lowKey,
                highKey,
                fadeKeys,
                lowVelocity,
                highVelocity,
                crossFade,
                muted,
                solo);
        Range.check("highest key of a layer", highKey, lowKey, 127, "");
        Range.check("hardest strike of a layer", highVelocity, lowVelocity, 1, "");
    }

    /** In the middle, for all strengths, always there. */
    public Layer(Recipe recipe, double balanceDb, int transpose, int lowKey, int highKey, int fadeKeys) {
        this(recipe, balanceDb, 0, transpose, 0, lowKey, highKey, fadeKeys, 0, 1, CrossFade.STAYS, false, false);
    }

    /** A recipe on all keys. */
    public static Layer of(Recipe recipe) {
        return new Layer(recipe, 0, 0, 0, 127, 0);
    }

    /** Whether it is as {@link #of} makes it, whatever its recipe. */
    public boolean plain() {
        return equals(of(recipe));
    }

    /** Factor on its amplitude. */
    public double gain() {
        return Math.pow(10, balanceDb / 20);
    }

    /** Whether it answers a strike of that strength, 0 to 1. */
    public boolean answers(double velocity) {
        return velocity >= lowVelocity && velocity <= highVelocity;
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

    /** Factor on its amplitude where a cross-fade stands, 0 to 1. */
    public double gainOnTheWay(double place) {
        double angle = Math.PI / 2 * Math.max(0, Math.min(1, place));
        return switch (crossFade) {
            case STAYS -> 1;
            case COMES_IN -> place <= 0 ? 0 : Math.sin(angle);
            case GOES_OUT -> place >= 1 ? 0 : Math.cos(angle);
        };
    }
}
