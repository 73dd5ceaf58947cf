/**
 * From a recorded note to numbers: onset, partials with decays and certainty, pitch, series, strike noise, brightness.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.measure.Measurer} is the whole road on one screen; {@link nightreed.measure.Measurement} is what
 * comes out. The heart is {@link nightreed.measure.partial.DampedSinusoids}: it finds the partials
 * ({@link nightreed.measure.partial.PartialSearch}) and polishes them to the statistical limit
 * ({@link nightreed.measure.partial.SpectralRefinement}). What a note that is held does is in {@code measure.held}, what the levels
 * of the partials tell of source and body in {@code measure.traits}; {@link nightreed.measure.ManualCorrections} is what a person decides.
 *
 * <h2>What it follows</h2>
 * M. Goodwin, M. Vetterli, "Matching pursuit and atomic signal models based on recursive filter banks", IEEE Trans.
 * Signal Processing 47(7), 1999: search with damped atoms. J. Li, P. Stoica, "Efficient mixed-spectrum estimation with
 * applications to target feature extraction", IEEE Trans. Signal Processing 44(2), 1996: cyclic refinement on the
 * spectrum (RELAX). G. Golub, V. Pereyra, 1973: separating the linear from the non-linear unknowns. Y.-X. Yao, S. M.
 * Pandit, 1995: the Cramér-Rao bound that the stated standard errors approach.
 *
 * <h2>Conventions</h2>
 * Times in s from the start of the clip unless "after the onset" is said; levels in dB at the onset, relative to the
 * strongest partial. What could not be measured is null and never a guess.
 */
package nightreed.measure;
