package nightreed.typical;

import java.util.List;

/**
 * A family of instruments, and what is typical of it.
 *
 * @param id      name on the command line
 * @param title   name for people
 * @param words   other words that mean it, in lower case
 * @param usualKey a key in the middle of its range (MIDI number)
 * @param body    what it does when it is played
 * @param sources books and papers that the numbers are from, and what is only a working value
 */
public record Family(String id, String title, List<String> words, int usualKey, Body body, List<String> sources) {
    public Family {
        words = List.copyOf(words);
        sources = List.copyOf(sources);
    }

    /** What is struck or plucked and dies by itself, or what is held. */
    public sealed interface Body permits Struck, Held {}

    /**
     * A body that is struck or plucked.
     *
     * @param ratios      of its partials to the pitch, ascending
     * @param levelsDb    of the first partials where they follow no slope; may be empty
     * @param slopeDb     how the levels fall along the ratios [dB/octave], negative
     * @param pluckAt     where on its length a string is plucked, a share; 0 for no string
     * @param t60Seconds  of the partial nearest to the pitch, where the pitch is {@code atHz} [s]
     * @param atHz        pitch at which that is so [Hz]
     * @param keyPower    T60 falls by that power of the pitch
     * @param ratioPower  T60 falls by that power of the ratio
     * @param contactMs   time of contact [ms]
     * @param bloomMs     how much later each further octave of partials comes to its top [ms]
     * @param splitHz     distance of the two modes that each partial is [Hz]; 0 for single ones
     * @param strike      noise of the strike
     */
    public record Struck(
            double[] ratios,
            double[] levelsDb,
            double slopeDb,
            double pluckAt,
            double t60Seconds,
            double atHz,
            double keyPower,
            double ratioPower,
            double contactMs,
            double bloomMs,
            double splitHz,
            Burst strike)
            implements Body {}

    /**
     * What is bowed, blown or held by electricity: harmonics.
     *
     * @param slopeDb      fall along the harmonics up to the corner [dB/octave]
     * @param cornerHz     frequency from which they fall faster [Hz]
     * @param beyondDb     fall beyond it [dB/octave]
     * @param evenDb       even harmonics against odd ones at the second, half of it at the fourth, and so on [dB]
     * @param formants     resonances over that
     * @param attackMs     rise of the first harmonic from nothing to its top [ms]
     * @param laterMs      how much later each further harmonic begins [ms]
     * @param releaseMs    fall by 60 dB after the key is let go [ms]
     * @param noiseDb      level of breath or bow noise against the tone [dB]
     * @param noiseLowHz   lower edge of it [Hz]
     * @param noiseHighHz  upper edge [Hz]
     * @param vibratoHz    rate of vibrato and tremolo [Hz]
     * @param vibratoCents depth of the vibrato, to either side [cents]
     * @param tremoloDb    depth of the tremolo, to either side [dB]
     * @param voicesCents  detuning of each of several players or waves [cents]; {0} for one
     */
    public record Held(
            double slopeDb,
            double cornerHz,
            double beyondDb,
            double evenDb,
            List<Resonance> formants,
            double attackMs,
            double laterMs,
            double releaseMs,
            double noiseDb,
            double noiseLowHz,
            double noiseHighHz,
            double vibratoHz,
            double vibratoCents,
            double tremoloDb,
            double[] voicesCents)
            implements Body {}

    /** A resonance of a body. @param hz its centre @param widthHz between its -3 dB points @param db its height */
    public record Resonance(double hz, double widthHz, double db) {}

    /**
     * Noise of a strike.
     *
     * @param levelDb    against the strongest partial at the onset [dB]
     * @param t60Seconds fall by 60 dB [s]
     */
    public record Burst(double levelDb, double t60Seconds, double lowHz, double highHz) {}

    public boolean isHeld() {
        return body instanceof Held;
    }
}
