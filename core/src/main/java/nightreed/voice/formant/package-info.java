/**
 * A source through a bank of bands.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.voice.formant.FormantSound} is one note; {@link nightreed.voice.formant.SplitBank} the bands side by
 * side, {@link nightreed.voice.formant.BankResponse} what a bank does to the spectrum, and {@link
 * nightreed.voice.formant.Followers} how bands take their levels from a recording.
 *
 * <h2>What it follows</h2>
 * S. Linkwitz, R. Riley, "Active crossover networks for noncoincident drivers", JAES 24(1), 1976: two sixth-order halves
 * whose sum is an all-pass, so that a bank with all bands up is flat; each band is passed through the all-passes of the
 * splits above it, so that this holds for any number of bands.
 */
package nightreed.voice.formant;
