/**
 * Pages that take the place of a stage for a while: guide, preferences, welcome, about. None is modal: Escape, or any
 * stage, leads back. {@link nightreed.desktop.page.Page} says what a page is.
 */
package nightreed.desktop.page;
