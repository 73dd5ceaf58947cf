/**
 * What is on the bench, and the work on it, without a scene: presenters that tests drive with plain executors.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.desktop.workspace.Workspace}: its state is one immutable {@link nightreed.desktop.workspace.WorkspaceState} at a time. How
 * recordings come to it is {@link nightreed.desktop.workspace.RecordingImport}, fits {@link nightreed.desktop.workspace.Fitting}, what a hand does
 * {@link nightreed.desktop.workspace.RecipeEditor}, and what is written {@code ProjectWriter}.
 */
package nightreed.desktop.workspace;
