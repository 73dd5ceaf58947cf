/**
 * String starting values.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.match.start.string.StringStart} makes the starts. {@link nightreed.match.start.string.LoopFit} fits pitch, stiffness and damping of the loop to measured
 * partials; {@link nightreed.match.start.string.StrikeFit} fits what strikes it to their levels.
 */
package nightreed.match.start.string;
