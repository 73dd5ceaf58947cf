/**
 * What a measured spectrum looks like to somebody who will imitate it: formants, the wave and filter that may stand behind it,
 * where a string was plucked, how decay follows frequency.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.measure.traits.Traits} is what comes out; {@link nightreed.measure.traits.Spectrum} is what goes in: the
 * lines of a note and the level under which nothing is known. Every explanation is a curve over the lines in dB, fitted by
 * {@link nightreed.measure.traits.LevelFit} and held against the others by G. Schwarz's criterion (1978), so that a richer one
 * wins only where it explains more.
 */
package nightreed.measure.traits;
