package nightreed.match.advice;

import nightreed.recipe.part.Parameter;

/**
 * One change that brings an imitation closer, checked by a render.
 *
 * @param parameter    what to change
 * @param from         value now
 * @param to           value then
 * @param predictedJnd total distance after the change [JND]
 * @param gainJnd      how much the total falls [JND]
 * @param why          reason in plain words, with numbers
 */
public record Move(Parameter parameter, double from, double to, double predictedJnd, double gainJnd, String why) {}
