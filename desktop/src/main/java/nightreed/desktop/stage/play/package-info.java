/** Keys, envelopes and routes under the hands. Start with {@link nightreed.desktop.stage.play.PlayView}. */
package nightreed.desktop.stage.play;
