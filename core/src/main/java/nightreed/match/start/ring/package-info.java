/**
 * Ring starting values.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.match.start.ring.RingStart} makes the starts: pairs of lines as sum and difference, and, for held notes, {@link nightreed.match.start.ring.RingWaveFit}
 * fits interval, balance and filter to the levels and swings of the harmonics.
 */
package nightreed.match.start.ring;
