/**
 * What is in a recording besides the note itself: where it begins and ends ({@link nightreed.measure.take.Onset}, {@link
 * nightreed.measure.take.Offset}), other notes, echoes, clicks and drive, the loop of a sample, and what is wrong with its channels or its level. Start with
 * {@code Onset}.
 */
package nightreed.measure.take;
