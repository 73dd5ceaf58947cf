/**
 * What to do next with an imitation. {@link nightreed.match.advice.NextMoves} finds the values to change first, {@link
 * nightreed.match.advice.Tolerances} how far each may go unheard; both look around by {@link
 * nightreed.match.advice.Sensitivity} where a method's partials are not known. {@link nightreed.match.advice.Adviser} ranks what was
 * fitted, {@link nightreed.match.advice.ResidualExplanation} says what is left, {@link nightreed.match.advice.LimitCosts} what a machine's
 * limits cost. Start with {@code NextMoves}.
 */
package nightreed.match.advice;
