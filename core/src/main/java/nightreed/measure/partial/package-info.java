/**
 * The partials of a struck note as damped sinusoids. {@link nightreed.measure.partial.PartialSearch} finds where they are in a spectrum, {@link
 * nightreed.measure.partial.SpectralRefinement} fits them with {@link nightreed.measure.partial.VariableProjectionFit}, and {@link
 * nightreed.measure.partial.PartialBuilder} puts terms that belong together into one {@link nightreed.measure.partial.Partial}. Start with {@link
 * nightreed.measure.partial.DampedSinusoids}, which runs them in turn.
 */
package nightreed.measure.partial;
