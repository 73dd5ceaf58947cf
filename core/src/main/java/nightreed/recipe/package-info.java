/**
 * What an imitation is: immutable values that say how to make the sound, and what each of them means.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.recipe.Recipe} is the family, one record per method; {@link nightreed.recipe.ResonatorRecipe} is the
 * first of them. {@link nightreed.recipe.part.Parameter} describes a value once, for rulers, files, sheets, moves and undo;
 * {@link nightreed.recipe.RecipeJson} is the file format.
 *
 * <h2>Conventions</h2>
 * Frequencies in Hz or as ratios, times in s (ms only where people read them), levels in dB. A recipe that exists is
 * valid: the records refuse absurd values.
 */
package nightreed.recipe;
