/**
 * The frame of the window: top line, path of stages, margin, listening rail, keys.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.desktop.shell.Shell}.
 */
package nightreed.desktop.shell;
