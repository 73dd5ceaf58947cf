/**
 * Parts of a recipe as drawings that can be taken hold of. Start with {@link nightreed.desktop.shape.Handled}: a drawing with
 * handles; {@link nightreed.desktop.shape.EnvelopeDrawing}, {@link nightreed.desktop.shape.LfoDrawing} and {@link
 * nightreed.desktop.shape.ExciterDrawing} draw what the voices play, by the functions that the voices play it with.
 */
package nightreed.desktop.shape;
