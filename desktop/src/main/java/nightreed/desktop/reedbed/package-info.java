/**
 * The picture: partials of the recording as reeds, the imitation as their reflection, audible differences as ripples.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.desktop.reedbed.BedModel} holds what is drawn, without a scene; {@link
 * nightreed.desktop.reedbed.Reedbed} draws it and answers the mouse; {@link nightreed.desktop.reedbed.Strip} shows one
 * thing exactly on the same axis.
 */
package nightreed.desktop.reedbed;
