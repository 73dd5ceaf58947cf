/**
 * The project file: one SQLite file with recordings, measurements, recipes, their history and takes.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.project.ProjectFile}. Every edit is a committed row before the call returns; undo moves a pointer over
 * these rows. The schema stands in docs/formats.md.
 */
package nightreed.project;
