/**
 * Resonator starting values.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.match.start.resonator.ResonatorStart} chooses the partials that the ear needs; {@link nightreed.match.start.resonator.ModeAmplitudes} solves their levels and phases together.
 */
package nightreed.match.start.resonator;
