/**
 * Subtractive starting values. Start with {@link nightreed.match.start.subtractive.SubtractiveStart}: the likeliest wave, or a cycle of the
 * recording, through a filter that moves as the brightness does.
 */
package nightreed.match.start.subtractive;
