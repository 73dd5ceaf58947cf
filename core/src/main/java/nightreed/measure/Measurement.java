package nightreed.measure;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;
import nightreed.measure.held.HeldNote;
import nightreed.measure.law.FmLaw;
import nightreed.measure.law.SeriesFit;
import nightreed.measure.law.StrikeNote;
import nightreed.measure.partial.Partial;
import nightreed.measure.take.Echo;
import nightreed.measure.traits.Traits;

/**
 * What a recorded note is made of. Anything that could not be measured is null; the groups themselves are there always.
 *
 * @param clip       the recording
 * @param pitch      what pitch is heard
 * @param lines      the partials, and the laws that they follow
 * @param strike     how the note begins
 * @param brightness path of the centroid, null if the note is too short
 * @param held       what a bowed or blown note does, null for one that dies by itself
 * @param traits     formants, source, pluck point, law of the decays
 * @param room       echo and reverberation
 * @param typical    what it stands for if it is no recording; null for a recording
 */
@RecordBuilder
public record Measurement(
        ClipFacts clip,
        HeardPitch pitch,
        PartialSet lines,
        StrikeFacts strike,
        Brightness brightness,
        HeldNote held,
        Traits traits,
        RoomFacts room,
        Typical typical)
        implements MeasurementBuilder.With {
    public Measurement {
        traits = traits == null ? Traits.NONE : traits; // older projects have none
    }

    /** Of a recording. */
    public Measurement(
            ClipFacts clip,
            HeardPitch pitch,
            PartialSet lines,
            StrikeFacts strike,
            Brightness brightness,
            HeldNote held,
            Traits traits,
            RoomFacts room) {
        this(clip, pitch, lines, strike, brightness, held, traits, room, null);
    }

    /** Partials that stand clear of noise, strike and neighbours. */
    public List<Partial> reliablePartials() {
        return partials().stream().filter(Partial::reliable).toList();
    }

    /** Whether these are several notes at once, none of which has been chosen: then there is no pitch, but candidates. */
    public boolean isChord() {
        return f0Hz() == null && strikeNotes().size() > 1;
    }

    /** The same note in a longer recording, in which it comes later by so much [s]. */
    public Measurement shifted(double seconds) {
        return withClip(clip.shifted(seconds));
    }

    /** With pitch, partials and remarks as a person has them. */
    public Measurement withHand(HeardPitch heard, List<Partial> own, List<String> said) {
        return with(b -> b.clip(clip.withRemarks(said)).pitch(heard).lines(lines.withPartials(own)));
    }

    /** The strongest partial, or null if there is none. */
    public Partial strongest() {
        return partials().stream()
                .filter(Partial::reliable)
                .max((a, b) -> Double.compare(a.levelDb(), b.levelDb()))
                .orElse(null);
    }

    // what is in the groups, by its own name

    public int sampleRateHz() {
        return clip.sampleRateHz();
    }

    public double durationSeconds() {
        return clip.durationSeconds();
    }

    public double onsetSeconds() {
        return clip.onsetSeconds();
    }

    public List<Double> noteOnsets() {
        return clip.noteOnsets();
    }

    public Double loudnessLufs() {
        return clip.loudnessLufs();
    }

    public List<String> remarks() {
        return clip.remarks();
    }

    public Double f0Hz() {
        return pitch.f0Hz();
    }

    public String nearestNote() {
        return pitch.nearestNote();
    }

    public Double centsFromConcert() {
        return pitch.centsFromConcert();
    }

    public List<StrikeNote> strikeNotes() {
        return pitch.strikeNotes();
    }

    public List<Partial> partials() {
        return lines.partials();
    }

    public SeriesFit series() {
        return lines.series();
    }

    public Double inharmonicityB() {
        return lines.inharmonicityB();
    }

    public FmLaw fm() {
        return lines.fm();
    }

    public Double attackSeconds() {
        return strike.attackSeconds();
    }

    public StrikeNoise noise() {
        return strike.noise();
    }

    public StrikeBands strikeBands() {
        return strike.strikeBands();
    }

    public Echo echo() {
        return room.echo();
    }

    public ReverbTail tail() {
        return room.tail();
    }
}
