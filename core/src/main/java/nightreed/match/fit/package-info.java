/**
 * From starting values to the nearest recipe, for any method, and what to do next.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.match.fit.Fits} walks the road from starting values to what is measured in the end; on it {@link
 * nightreed.match.fit.FitStrategy} decides which starts are followed and how long is listened, and {@link
 * nightreed.match.fit.RenderedLeastSquares} moves all values at once and listens with the {@link nightreed.match.fit.PerceptualResiduals}. {@link nightreed.match.fit.SearchSpace} says which
 * values of a method are searched. {@link nightreed.match.fit.Layers} puts a second recipe under the first. {@link
 * nightreed.match.fit.Sensitivity} tells how far values may move and which single change helps most; {@link
 * nightreed.match.fit.Adviser} ranks methods and {@link nightreed.match.fit.ResidualExplanation} says what is left.
 */
package nightreed.match.fit;
