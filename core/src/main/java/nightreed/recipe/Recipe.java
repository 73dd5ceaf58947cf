package nightreed.recipe;

import java.util.List;

/** How to make a sound. One record per method; a method that is added touches no other. */
public sealed interface Recipe permits ResonatorRecipe {
    /** Name of the method in files and on the command line. */
    String method();

    /** Key whose sound the values describe (MIDI number). */
    int key();

    /** Every value with its description, in the order the sound travels. */
    List<Setting> settings();

    /**
     * The same recipe with one value changed.
     *
     * @throws IllegalArgumentException if there is no such value; one outside its range is held at the range's end
     */
    Recipe with(String parameterId, double value);

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
        throw new IllegalArgumentException("there is no value '" + parameterId + "' in a recipe of " + method());
    }
}
