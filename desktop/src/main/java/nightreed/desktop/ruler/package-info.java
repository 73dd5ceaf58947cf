/**
 * The control that every value is set on.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.desktop.ruler.Ruler}.
 */
package nightreed.desktop.ruler;
