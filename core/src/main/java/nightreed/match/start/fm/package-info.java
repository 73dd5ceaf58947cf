/**
 * FM starting values.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.match.start.fm.FmBeamSearch} adds pairs one by one. It takes candidates from {@link
 * nightreed.match.start.fm.FmProposals} and refines all values together with {@link nightreed.match.start.fm.FmSpectralFit}. The forward model
 * {@link nightreed.match.start.fm.FmForwardModel} computes the spectrum of a pair by formula, with phases of folded sidebands.
 *
 * <h2>What it follows</h2>
 * J. Chowning, "The Synthesis of Complex Audio Spectra by Means of Frequency Modulation", JAES 21(7), 1973. A. Horner, J. Beauchamp, L. Haken,
 * "Machine Tongues XVI: Genetic Algorithms and Their Application to FM Matching Synthesis", Computer Music Journal 17(4), 1993: spectra frame
 * by frame.
 *
 * <h2>Where it departs</h2>
 * Held notes have whole ratios only; struck notes have free ones. Which search operators stayed, and why: docs/experiments.
 */
package nightreed.match.start.fm;
