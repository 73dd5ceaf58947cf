/**
 * Notes that are held: bowed and blown. Start at {@link nightreed.measure.held.HeldNote}: where the note is held
 * ({@link nightreed.measure.held.HeldSpan}), its pitch over time ({@link nightreed.measure.held.PitchPath}), every harmonic
 * along that path ({@link nightreed.measure.held.Harmonics}), what moves ({@link nightreed.measure.held.Movement}).
 */
package nightreed.measure.held;
