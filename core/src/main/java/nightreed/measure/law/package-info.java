/**
 * What the partials of a note have in common.
 *
 * <ul>
 *   <li>{@link nightreed.measure.law.StiffString}: they are those of a stiff string. Start here, it is the simplest.
 *   <li>{@link nightreed.measure.law.TwinStrings}: they come in pairs, from two strings out of tune.
 *   <li>{@link nightreed.measure.law.FmLaw}: they are sidebands of one modulation.
 *   <li>{@link nightreed.measure.law.SeriesFit}: they are near the series of a bar, a bell or another body.
 *   <li>{@link nightreed.measure.law.StrikeNotes}: the pitch that is heard.
 *   <li>{@link nightreed.measure.law.Chord}: they belong to several notes at once.
 * </ul>
 */
package nightreed.measure.law;
