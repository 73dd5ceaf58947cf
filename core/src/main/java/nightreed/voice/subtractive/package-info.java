/**
 * Oscillators and breath through a moving filter.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.voice.subtractive.SubtractiveSound} is one note.
 */
package nightreed.voice.subtractive;
