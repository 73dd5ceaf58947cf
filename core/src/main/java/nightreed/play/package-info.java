/**
 * Playing by message and by plan.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.play.MidiHand} turns MIDI messages into what hands do to an instrument. {@link
 * nightreed.play.Performance} is messages in time: read from a MIDI file or the phrase that ships, rendered offline by the
 * code that sounds live.
 */
package nightreed.play;
