package nightreed.recipe.size;

import java.util.List;
import nightreed.recipe.Recipe;
import nightreed.recipe.part.Parameter;

/** A value that is set by itself: one of a recipe, several that are equal, or what a law of a list says of all its elements. */
public interface FreeValue {
    /** Its range, name and unit; its id is that of the value, or of the first of several. */
    Parameter parameter();

    /** The values of the recipe that it moves. */
    List<String> ids();

    double value(Recipe recipe);

    /** The recipe with it, and all that hangs on it, changed; one outside its range is held at the range's end. */
    Recipe with(Recipe recipe, double value);

    /** The same; unchanged where that cannot be, such as a band that would come to lie on its neighbour. */
    default Recipe withIfPossible(Recipe recipe, double value) {
        try {
            return with(recipe, value);
        } catch (IllegalArgumentException cannot) {
            return recipe;
        }
    }

    default String id() {
        return parameter().id();
    }

    /** What people call it; of several that are alike, the first and how many more. */
    default String name() {
        return parameter().name() + (ids().size() > 1 ? " and " + (ids().size() - 1) + " more" : "");
    }

    /** Whether it is a number, which can be moved a little. */
    default boolean isNumber() {
        return parameter().law() != Parameter.Law.CHOICE;
    }
}
