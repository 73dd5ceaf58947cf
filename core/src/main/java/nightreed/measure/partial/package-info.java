/**
 * The partials of a struck note as damped sinusoids.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.measure.partial.DampedSinusoids} runs the others in turn. {@link nightreed.measure.partial.PartialSearch} finds where
 * partials are in a spectrum. {@link nightreed.measure.partial.SpectralRefinement} fits them, a few at a time, with {@link
 * nightreed.measure.partial.VariableProjectionFit}. {@link nightreed.measure.partial.PartialAssembler} puts terms that belong together
 * into one {@link nightreed.measure.partial.Partial}.
 */
package nightreed.measure.partial;
