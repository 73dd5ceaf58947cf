/**
 * The project file: one SQLite file with recordings, measurements, recipes, their history and takes.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.project.ProjectFile}. Every edit is a committed row before the call returns; undo moves a pointer over
 * these rows. {@code Database} holds the file for one window at a time, writes it again when it vanishes, and turns failures
 * into messages; {@code Schema} brings old files up to date. The tables are described in docs/formats.md.
 */
package nightreed.project;
