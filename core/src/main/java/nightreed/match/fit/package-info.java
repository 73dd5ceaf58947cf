/**
 * From starting values to the nearest recipe.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.match.fit.Fits} is the way in: it runs one fit, or several side by side, so that a stop or a limit in seconds is obeyed
 * at any moment. {@link nightreed.match.fit.FitStrategy} decides which starts are followed and for how long each is listened to. {@link
 * nightreed.match.fit.RenderedLeastSquares} moves all values at once; its residuals are those of {@link
 * nightreed.match.fit.PerceptualResiduals}, from frames of a render. {@link nightreed.match.fit.MultiStartSearch}, {@link
 * nightreed.match.fit.GeneticSearch} and {@link nightreed.match.fit.CoordinateRestarts} look further than a local search can.
 */
package nightreed.match.fit;
