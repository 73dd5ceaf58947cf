/**
 * Recipes as the measurement gives them, before anything is tried by ear or by search.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.match.start.Starts} makes a {@link nightreed.match.start.Start} for any method: a recipe, and for its
 * values where they come from. Each method has one class here.
 */
package nightreed.match.start;
