/**
 * What all drawings share: {@link nightreed.desktop.drawing.Drawing} is a canvas that fills its region and follows the look,
 * {@link nightreed.desktop.drawing.Palette} its colours by role.
 */
package nightreed.desktop.drawing;
