/** Takes, notes and files to keep. Start with {@link nightreed.desktop.stage.keep.KeepView}. */
package nightreed.desktop.stage.keep;
