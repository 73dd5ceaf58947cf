/** What was measured, with its pictures and what a hand corrects. Start with {@link nightreed.desktop.stage.measure.MeasureView}. */
package nightreed.desktop.stage.measure;
