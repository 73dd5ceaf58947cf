/**
 * Frequency modulation.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.voice.fm.FmSound} is one note; {@link nightreed.voice.fm.Sidebands} the arithmetic of a pair.
 *
 * <h2>What it follows</h2>
 * J. Chowning, "The synthesis of complex audio spectra by means of frequency modulation", JAES 21(7), 1973.
 */
package nightreed.voice.fm;
