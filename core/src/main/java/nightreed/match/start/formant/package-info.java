/**
 * Formant starting values.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.match.start.formant.FormantStart} makes the starts: free formants as measured, and banks of bands that follow a recording.
 */
package nightreed.match.start.formant;
