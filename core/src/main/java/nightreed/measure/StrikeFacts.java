package nightreed.measure;

/**
 * How a note begins.
 *
 * @param attackSeconds rise of the waveform from 10 to 90 % of its first peak [s], null if it has no clear peak
 * @param noise         burst at the strike, null if none stands out
 * @param strikeBands   what the burst and the partials put into the critical bands, null if that was not measured
 */
public record StrikeFacts(Double attackSeconds, StrikeNoise noise, StrikeBands strikeBands) {}
