/**
 * Waves without aliasing.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.voice.wave.WaveSet} holds one wave with ever fewer harmonics; {@link
 * nightreed.voice.wave.WaveOscillator} reads it at a pitch. {@link nightreed.voice.wave.Sine} is the sine of the modulators.
 *
 * <h2>What it follows</h2>
 * Wave tables as in M. Mathews, "The Technology of Computer Music", 1969, one for each number of harmonics, a sixth of an
 * octave apart, read by Lagrange's polynomial of third order. A pulse of any width is the difference of two saws.
 */
package nightreed.voice.wave;
