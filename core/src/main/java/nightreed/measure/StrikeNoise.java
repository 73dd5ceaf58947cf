package nightreed.measure;

/**
 * The burst of noise at the strike, apart from the partials.
 *
 * @param levelDb          level of its first 5 ms [dB] relative to the strongest partial at the onset
 * @param t60Seconds       time to fall by 60 dB [s]
 * @param slopeDbPerOctave colour [dB/octave], 0 white, -3 pink
 * @param lowHz            frequency under which a tenth of its energy lies [Hz]
 * @param highHz           frequency above which a tenth of its energy lies [Hz]
 */
public record StrikeNoise(double levelDb, double t60Seconds, double slopeDbPerOctave, double lowHz, double highHz) {}
