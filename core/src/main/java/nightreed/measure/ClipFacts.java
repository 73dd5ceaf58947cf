package nightreed.measure;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;

/**
 * The recording in which a note was measured.
 *
 * @param sampleRateHz    rate of the recording [Hz]
 * @param durationSeconds length of the recording [s]
 * @param onsetSeconds    start of the note from the start of the recording [s]
 * @param noteOnsets      where notes begin in the recording, of which this is the first [s]
 * @param loudnessLufs    loudness of the whole clip (ITU-R BS.1770-4) [LUFS], null if it is too short or silent
 * @param remarks         what the listener should know about the recording, in plain sentences
 */
@RecordBuilder
public record ClipFacts(
        int sampleRateHz,
        double durationSeconds,
        double onsetSeconds,
        List<Double> noteOnsets,
        Double loudnessLufs,
        List<String> remarks)
        implements ClipFactsBuilder.With {
    public ClipFacts {
        noteOnsets = noteOnsets == null ? List.of(onsetSeconds) : List.copyOf(noteOnsets); // older projects have none
        remarks = List.copyOf(remarks);
    }

    ClipFacts shifted(double seconds) {
        List<Double> later = noteOnsets.stream().map(t -> t + seconds).toList();
        return with(b -> b.onsetSeconds(onsetSeconds + seconds).noteOnsets(later));
    }
}
