/** Recording and imitation side by side: aspects, next moves, takes, blind test. Start with {@link nightreed.desktop.stage.compare.CompareView}. */
package nightreed.desktop.stage.compare;
