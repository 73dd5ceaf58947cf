/**
 * Subtractive starting values.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.match.start.subtractive.SubtractiveStart} makes the starts. {@link nightreed.match.start.subtractive.FilteredWaveFit} fits wave, slope, resonance and the course of the cutoff
 * to the levels of the harmonics.
 */
package nightreed.match.start.subtractive;
