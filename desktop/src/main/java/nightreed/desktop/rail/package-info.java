/**
 * The listening rail at the bottom of the window: what is heard, how loud, and the keys.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.desktop.rail.ListeningRail}; {@link nightreed.desktop.rail.Keys} is the keyboard that the screen, the
 * computer's letters and the Play stage share.
 */
package nightreed.desktop.rail;
