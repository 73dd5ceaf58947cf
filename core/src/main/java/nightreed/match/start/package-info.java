/**
 * Starting values: recipes as the measurement gives them, before a search.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.match.start.Method} describes one method: its starts, what a search moves, what it costs and its words. Each family has
 * a package of its own with its method and its start. {@link nightreed.match.start.StartContext} is what all of them take from a measurement;
 * it notes where each value came from. {@link nightreed.match.start.NonuniformStft} holds spectra close together at first.
 */
package nightreed.match.start;
