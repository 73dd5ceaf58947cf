package nightreed.measure;

import java.util.List;
import nightreed.measure.law.StrikeNote;
import nightreed.music.Pitch;

/**
 * The pitch of a note. All but the candidates are null if no pitch is heard, or if the notes of a chord wait for a choice.
 *
 * @param f0Hz             fundamental or strike note [Hz]
 * @param nearestNote      name of the nearest equal-tempered key
 * @param centsFromConcert offset from that key at A4 = 440 Hz [cents]
 * @param strikeNotes      candidates for the heard pitch, the likeliest first
 */
public record HeardPitch(Double f0Hz, String nearestNote, Double centsFromConcert, List<StrikeNote> strikeNotes) {
    public HeardPitch {
        strikeNotes = List.copyOf(strikeNotes);
    }

    /** A pitch [Hz], with its nearest key; null for none. */
    public static HeardPitch of(Double f0Hz, List<StrikeNote> candidates) {
        return f0Hz == null
                ? new HeardPitch(null, null, null, candidates)
                : new HeardPitch(f0Hz, Pitch.name(Pitch.nearestKey(f0Hz)), Pitch.centsFromNearest(f0Hz), candidates);
    }
}
