/**
 * Starting values of strings. Start with {@link nightreed.match.start.string.StringStart}: each value from what was measured of the
 * partials, and other ways to pluck or bow it.
 */
package nightreed.match.start.string;
