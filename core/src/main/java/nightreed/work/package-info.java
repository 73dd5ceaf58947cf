/**
 * Long work that can be watched, ended early with what it has, or stopped.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.work.Progress} is what a caller hands to long work. {@link nightreed.work.Supervisor} runs the work beside its
 * caller, so that a stop or a limit in seconds is obeyed at any moment, whatever the work is doing.
 */
package nightreed.work;
