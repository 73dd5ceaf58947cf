package nightreed.measure.law;

/**
 * A pitch that the note may be heard at.
 *
 * @param note        key name
 * @param frequencyHz pitch [Hz]
 * @param certainty   0 to 1, all candidates together at most 1
 * @param why         reason in words
 */
public record StrikeNote(String note, double frequencyHz, double certainty, String why) {}
