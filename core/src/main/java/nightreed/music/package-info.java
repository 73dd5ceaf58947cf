/**
 * Pitch and hearing scales as pure values.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.music.Pitch} turns keys, names, Hz and cents into each other; {@link nightreed.music.Bark} is the
 * frequency scale on which brightness and noise are judged.
 */
package nightreed.music;
