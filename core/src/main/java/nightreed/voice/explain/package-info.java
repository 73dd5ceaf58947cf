/**
 * The arithmetic of each method as tables, for people and for files.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.voice.explain.Arithmetic} makes all tables of a recipe on a key.
 */
package nightreed.voice.explain;
