/**
 * What the partials of a note have in common: a stiff string ({@link nightreed.measure.law.StiffString}), two strings ({@link
 * nightreed.measure.law.TwinStrings}), frequency modulation ({@link nightreed.measure.law.FmLaw}), the series of bars, bells and other
 * bodies ({@link nightreed.measure.law.SeriesFit}), the pitch that is heard ({@link nightreed.measure.law.StrikeNotes}) or several at once ({@link
 * nightreed.measure.law.Chord}). Start with {@code StiffString}, the simplest.
 */
package nightreed.measure.law;
