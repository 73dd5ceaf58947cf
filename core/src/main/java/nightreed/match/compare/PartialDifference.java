package nightreed.match.compare;

import nightreed.measure.partial.Partial;

/**
 * One partial on both sides.
 *
 * @param recording    the recording's, null if only the imitation has it
 * @param imitation    the imitation's, null if only the recording has it
 * @param levelDb      imitation over recording at the onset, at equal loudness [dB]; how far it stands out of the others'
 *                     masking if only one side has it
 * @param levelJnd     the level and frequency difference [JND]
 * @param decayJnd     the difference in T60 [JND], 0 if either has none
 * @param weight       how audible the partial is among the others, 0 (masked) to 1
 */
public record PartialDifference(
        Partial recording, Partial imitation, double levelDb, double levelJnd, double decayJnd, double weight) {
    /** The larger of the two differences, as audible as the partial is [JND]. */
    public double heardJnd() {
        return weight * Math.max(levelJnd, decayJnd);
    }

    /** Whichever side there is, the recording first. */
    public Partial either() {
        return recording != null ? recording : imitation;
    }
}
