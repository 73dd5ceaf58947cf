/**
 * The window.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.desktop.Main} is what the launcher starts. {@link nightreed.desktop.workspace.Workspace} holds what is on the
 * bench and does the work away from the window; {@link nightreed.desktop.shell.Shell} lays out the window; the six stages
 * are in {@code stage}. {@link nightreed.desktop.reedbed.Reedbed} is the picture, {@link nightreed.desktop.ruler.Ruler}
 * the control.
 */
package nightreed.desktop;
