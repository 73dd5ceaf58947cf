/**
 * Starting values of ring modulation. Start with {@link nightreed.match.start.ring.RingStart}: pairs of lines as sum and difference, and waves
 * that hold a harmonic series.
 */
package nightreed.match.start.ring;
