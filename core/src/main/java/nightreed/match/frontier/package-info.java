/**
 * From the nearest recipe to the simplest: patches of which none is beaten by one that is both simpler and nearer.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.match.frontier.FrontierSearch} makes a recipe simpler step by step, by {@link nightreed.match.frontier.Simplifications};
 * {@link nightreed.match.frontier.Frontier} is what comes out.
 */
package nightreed.match.frontier;
