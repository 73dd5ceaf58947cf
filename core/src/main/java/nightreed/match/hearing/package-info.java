/**
 * What a listener hears: thresholds, masking, weights.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.match.hearing.JndThresholds} holds every threshold and every constant of masking with its source. The full comparison and
 * the residuals of a search both read them there. {@link nightreed.match.hearing.Aspect} lists what is compared; {@link
 * nightreed.match.hearing.AspectWeights} holds where an ear has overruled the thresholds for one sound.
 */
package nightreed.match.hearing;
