/**
 * The command line over the computation. Scripts rely on it: see docs/guide/command-line.md.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.cli.NightReedCommand} gathers the commands, one class each; every command is a walk over public calls
 * of the core and holds no computation of its own.
 */
package nightreed.cli;
