package nightreed.measure;

import java.util.List;
import nightreed.measure.held.HeldNote;
import nightreed.measure.law.FmLaw;
import nightreed.measure.law.SeriesFit;
import nightreed.measure.law.StrikeNote;
import nightreed.measure.partial.Partial;
import nightreed.measure.take.Echo;
import nightreed.measure.traits.Traits;

/**
 * What a recorded note is made of. Anything that could not be measured is null.
 *
 * @param sampleRateHz      rate of the recording [Hz]
 * @param durationSeconds   length of the recording [s]
 * @param onsetSeconds      start of the note from the start of the recording [s]
 * @param f0Hz              fundamental or strike note [Hz]
 * @param nearestNote       name of the nearest equal-tempered key
 * @param centsFromConcert  offset from that key at A4 = 440 Hz [cents]
 * @param series            best model series, null if none fits
 * @param partials          partials by rising frequency
 * @param strikeNotes       candidates for the heard pitch, the likeliest first
 * @param brightness        path of the centroid
 * @param attackSeconds     rise of the waveform from 10 to 90 % of its first peak [s]
 * @param noise             burst at the strike, null if none stands out
 * @param strikeBands       what the burst and the partials put into the critical bands
 * @param inharmonicityB    stiffness B of a string whose partials follow n f0 √(1 + B n²), null if they follow no such law
 * @param fm                law of a frequency modulation that all partials follow, null if they do not
 * @param held              what a bowed or blown note does, null for one that dies by itself
 * @param traits           formants, source, pluck point, law of the decays
 * @param echo             repeat of the sound in the recording, null if there is none
 * @param tail             what rings on beside the note, null if nothing was found
 * @param loudnessLufs      loudness of the whole clip (ITU-R BS.1770-4) [LUFS]
 * @param noteOnsets        where notes begin in the recording, of which this is the first [s]
 * @param remarks           what the listener should know about the recording, in plain sentences
 */
public record Measurement(
        int sampleRateHz,
        double durationSeconds,
        double onsetSeconds,
        Double f0Hz,
        String nearestNote,
        Double centsFromConcert,
        SeriesFit series,
        List<Partial> partials,
        List<StrikeNote> strikeNotes,
        Brightness brightness,
        Double attackSeconds,
        StrikeNoise noise,
        StrikeBands strikeBands,
        Double inharmonicityB,
        FmLaw fm,
        HeldNote held,
        Traits traits,
        Echo echo,
        ReverbTail tail,
        Double loudnessLufs,
        List<Double> noteOnsets,
        List<String> remarks) {
    public Measurement {
        partials = List.copyOf(partials);
        strikeNotes = List.copyOf(strikeNotes);
        traits = traits == null ? Traits.NONE : traits; // older projects have none
        noteOnsets = noteOnsets == null ? List.of(onsetSeconds) : List.copyOf(noteOnsets); // older projects have none
        remarks = List.copyOf(remarks);
    }

    /** Partials that stand clear of noise, strike and neighbours. */
    public List<Partial> reliablePartials() {
        return partials.stream().filter(Partial::reliable).toList();
    }

    /** Whether these are several notes at once, none of which has been chosen: then there is no pitch, but candidates. */
    public boolean isChord() {
        return f0Hz == null && strikeNotes.size() > 1;
    }

    /** The same note in a longer recording, in which it comes later by so much [s]. */
    public Measurement shifted(double seconds) {
        return with(
                onsetSeconds + seconds,
                f0Hz,
                nearestNote,
                centsFromConcert,
                partials,
                noteOnsets.stream().map(t -> t + seconds).toList(),
                remarks);
    }

    /** With pitch, partials and remarks as a person has them. */
    public Measurement withHand(Double hz, String note, Double cents, List<Partial> own, List<String> said) {
        return with(onsetSeconds, hz, note, cents, own, noteOnsets, said);
    }

    private Measurement with(
            double onset,
            Double hz,
            String note,
            Double cents,
            List<Partial> own,
            List<Double> onsets,
            List<String> said) {
        return new Measurement(
                sampleRateHz,
                durationSeconds,
                onset,
                hz,
                note,
                cents,
                series,
                own,
                strikeNotes,
                brightness,
                attackSeconds,
                noise,
                strikeBands,
                inharmonicityB,
                fm,
                held,
                traits,
                echo,
                tail,
                loudnessLufs,
                onsets,
                said);
    }

    /** The strongest partial, or null if there is none. */
    public Partial strongest() {
        return partials.stream()
                .filter(Partial::reliable)
                .max((a, b) -> Double.compare(a.levelDb(), b.levelDb()))
                .orElse(null);
    }
}
