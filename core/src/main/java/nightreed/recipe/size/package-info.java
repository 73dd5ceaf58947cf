/**
 * How simple a recipe is: the values that a hand has to set to get it, with laws and ties taken out.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.recipe.size.PatchSize} counts; {@link nightreed.recipe.size.FreeValues} finds the fewest values that give all others:
 * single ones, several that are equal, and those of a law that a whole list follows ({@link nightreed.recipe.size.ListLaw}).
 */
package nightreed.recipe.size;
