package nightreed.recipe;

import java.util.List;
import nightreed.music.Pitch;
import nightreed.recipe.part.Common;
import nightreed.recipe.part.Macro;
import nightreed.recipe.part.Parameter;
import nightreed.recipe.part.ParameterAccess;
import nightreed.recipe.part.Structure;
import nightreed.recipe.part.VelocityMap;

/** How to make a sound. One record per method; a method that is added touches no other. */
public sealed interface Recipe
        permits ResonatorRecipe, FmRecipe, RingRecipe, FormantRecipe, StringRecipe, SubtractiveRecipe {
    /** Name of the method in files and on the command line. */
    String method();

    /** Key whose sound the values describe (MIDI number). */
    int key();

    /** Offset of that key from A4 = 440 Hz [cents]. */
    double tuningCents();

    /** Level of everything [dBFS]. */
    double levelDb();

    /** Over the dynamics. */
    VelocityMap velocity();

    /** What every method can have. */
    Common common();

    /** Frequency of ratio 1 on the recipe's own key [Hz]. */
    default double f0Hz() {
        return Pitch.hz(key() + tuningCents() / 100);
    }

    /** Every value with its description, in the order the sound travels. */
    default List<Setting> settings() {
        return ParameterAccess.of((Record) this).stream()
                .map(r -> new Setting(r.parameter(), r.value()))
                .toList();
    }

    /**
     * The same recipe with one value changed.
     *
     * @throws IllegalArgumentException if there is no such value; one outside its range is held at the range's end
     */
    Recipe with(String parameterId, double value);

    /** The recipe that sounds: with every macro's values where the macro puts them. */
    Recipe played();

    /** One value of a recipe. */
    record Setting(Parameter parameter, double value) {}

    /** The value of one parameter. */
    default double value(String parameterId) {
        return setting(parameterId).value();
    }

    /** One value with its description. */
    default Setting setting(String parameterId) {
        for (Setting s : settings()) {
            if (s.parameter().id().equals(parameterId)) {
                return s;
            }
        }
        throw unknown(this, parameterId);
    }

    /** Parts that this recipe may have and has not, such as a reverb. */
    default List<ParameterAccess.Absent> absent() {
        return ParameterAccess.absent((Record) this);
    }

    /** With one of {@link #absent} in its usual form. */
    default Recipe withPart(String id) {
        return (Recipe) ParameterAccess.added((Record) this, id);
    }

    /** Without a part; unchanged if it is not there or must be. */
    default Recipe withoutPart(String id) {
        return (Recipe) ParameterAccess.removed((Record) this, id);
    }

    /** Lists that can be made longer and shorter, such as modes. */
    default List<Structure.Listed> lists() {
        return Structure.lists((Record) this);
    }

    /** With other common parts. */
    default Recipe withCommon(Common common) {
        return (Recipe) ParameterAccess.exchanged((Record) this, common(), common);
    }

    /** What {@link #with} does for any kind of recipe. */
    static <R extends Record & Recipe> R changed(R recipe, String id, double value) {
        R moved = ParameterAccess.with(recipe, id, value);
        if (moved == null) {
            throw unknown(recipe, id);
        }
        return moved;
    }

    /** What {@link #played} does for any kind of recipe. */
    static <R extends Record & Recipe> R withMacros(R recipe) {
        R r = recipe;
        for (Macro m : recipe.common().macros()) {
            r = m.on(r);
        }
        return r;
    }

    private static IllegalArgumentException unknown(Recipe recipe, String id) {
        return new IllegalArgumentException("there is no value '" + id + "' in a recipe of " + recipe.method());
    }
}
