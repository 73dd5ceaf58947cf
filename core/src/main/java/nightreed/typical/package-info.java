/**
 * Typical targets: what an instrument of a family usually does, in place of a recording. Start with
 * {@link nightreed.typical.TypicalTarget}, which makes a sound and its measurement of a {@link nightreed.typical.Description};
 * {@link nightreed.typical.Words} reads a description from a line of text, {@link nightreed.typical.Families} holds the numbers and where
 * they are from.
 */
package nightreed.typical;
