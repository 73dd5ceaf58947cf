/**
 * Signal processing without a memory of its own: arrays in, arrays out.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.dsp.RealFft} is the transform everything else measures with; {@link nightreed.dsp.Biquad} and
 * {@link nightreed.dsp.BiquadFilter} are the one filter section that loudness, exciters and shaping share;
 * {@link nightreed.dsp.Resampler} changes the rate of a signal.
 *
 * <h2>Conventions</h2>
 * Frequencies in Hz, sample rates in Hz, full scale = 1. Nothing here knows what a recording or a recipe is.
 */
package nightreed.dsp;
