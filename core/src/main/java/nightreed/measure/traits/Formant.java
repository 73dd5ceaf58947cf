package nightreed.measure.traits;

/**
 * A resonance over the lines of a note that stays where it is.
 *
 * @param centreHz    its centre [Hz]
 * @param bandwidthHz width in which it is within 3 dB of its peak [Hz]; one that is narrower than the distance of the lines
 *                    cannot be told from a single strong line
 * @param levelDb     height over the slope of the spectrum [dB]
 * @param centreSeHz  standard error of the centre [Hz], infinite if the lines do not settle it
 * @param certainty   how sure it is that there is one, 0 to 1
 */
public record Formant(double centreHz, double bandwidthHz, double levelDb, double centreSeHz, double certainty) {}
