/**
 * Resonators: decaying modes, or tuned combs.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.voice.resonator.ModeSound}, one struck note of a mode bank; {@link
 * nightreed.voice.resonator.CombSound} puts tuned loops in place of the modes.
 *
 * <h2>What it follows</h2>
 * M. Mathews, J. O. Smith, "Methods for synthesizing very high Q parametrically well behaved two pole filters", SMAC
 * 2003: a mode as a rotating complex number, whose frequency and decay may move while it rings.
 */
package nightreed.voice.resonator;
