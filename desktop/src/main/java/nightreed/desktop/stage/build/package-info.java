/** The recipe: its values as rulers, the fits that set them, layers and machines. Start with {@link nightreed.desktop.stage.build.BuildView}. */
package nightreed.desktop.stage.build;
