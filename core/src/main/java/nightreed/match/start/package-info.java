/**
 * Recipes as the measurement gives them, before anything is tried by ear or by search.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.match.method.Starts} makes a {@link nightreed.match.start.Start} for any method: a recipe, and for its
 * values where they come from. Each method has one class here. What can be read off the partials at once, without a render, has
 * a fit of its own: {@link nightreed.match.start.LoopFit} and {@link nightreed.match.start.StrikeFit} for strings, {@link
 * nightreed.match.start.FilteredWaveFit} for a wave through a filter, {@link nightreed.match.start.FmBeamSearch} for modulated pairs,
 * {@link nightreed.match.start.RingWaveFit} for a held wave beside its product.
 */
package nightreed.match.start;
