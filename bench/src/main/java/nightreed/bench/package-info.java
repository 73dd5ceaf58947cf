/**
 * Benchmarks that are run by hand and stated as ratios within one run.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.bench.RealTimeRatios}.
 */
package nightreed.bench;
