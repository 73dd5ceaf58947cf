package nightreed.measure.held;

/**
 * One harmonic of a held note.
 *
 * @param number        1 for the fundamental
 * @param frequencyHz   {@code number} times the pitch [Hz]: what is driven all the time locks its harmonics to it
 * @param frequencySeHz its standard error [Hz]
 * @param amplitude     level while the note is held, as a peak [1 = full scale]
 * @param phaseRad      phase relative to {@code number} times that of the path [rad]
 * @param snrDb         energy over that of the noise at its frequency [dB]
 * @param delaySeconds  time after the onset at which it has half of its amplitude [s], null if it is too weak to say
 * @param attackSeconds its rise from 10 to 90 % [s], null if it is too weak to say
 */
public record HeldHarmonic(
        int number,
        double frequencyHz,
        double frequencySeHz,
        double amplitude,
        double phaseRad,
        double snrDb,
        Double delaySeconds,
        Double attackSeconds) {}
