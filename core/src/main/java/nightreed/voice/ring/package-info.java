/**
 * Ring modulation: two waves multiplied.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.voice.ring.RingSound} is one note; {@link nightreed.voice.ring.SumsAndDifferences} its arithmetic:
 * cos a · cos b = ½ cos(a - b) + ½ cos(a + b), for every pair of harmonics.
 */
package nightreed.voice.ring;
