/**
 * What is taken away: patch sheet, tables and files in open formats.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.sheet.PatchSheet} is the page with everything on it; {@link nightreed.sheet.PartialCsv} and {@link
 * nightreed.sheet.ReportJson} are for other programs.
 */
package nightreed.sheet;
