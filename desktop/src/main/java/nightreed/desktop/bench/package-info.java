/**
 * What is on the bench, and the work on it, without a scene: presenters that tests drive with plain executors.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.desktop.bench.Bench}: its state is one immutable {@link nightreed.desktop.bench.BenchState} at a time. How
 * recordings come to it is {@link nightreed.desktop.bench.Intake}, fits {@link nightreed.desktop.bench.Fitting}, what a hand does
 * {@link nightreed.desktop.bench.Shaping}, and what is written {@code Scribe}.
 */
package nightreed.desktop.bench;
