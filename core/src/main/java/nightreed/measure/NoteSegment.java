package nightreed.measure;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import nightreed.measure.partial.DampedSinusoid;
import nightreed.measure.partial.NoiseFloor;
import nightreed.measure.partial.Partial;
import nightreed.measure.partial.PartialAssembler;
import nightreed.measure.take.Channels;
import nightreed.sound.Clip;

/**
 * The part of a measured recording in which single partials are looked at again by hand.
 *
 * @param y     samples from after the strike on
 * @param fs    their rate [Hz]
 * @param since samples from the onset to the first of them
 * @param floor background
 */
record NoteSegment(double[] y, double fs, int since, NoiseFloor floor) {
    /** Strike that is left aside [s]. */
    private static final double STRIKE_SECONDS = 0.008;

    private static final double LONGEST_SECONDS = 6;
    private static final double SHORTEST_SECONDS = 0.04;

    /** Null if the note is held, or too little of it is left. */
    static NoteSegment of(Clip clip, Measurement m) {
        double fs = clip.sampleRateHz();
        double[] x = Channels.of(clip).samples();
        int onset = (int) Math.round(m.onsetSeconds() * fs);
        int start = onset + (int) (STRIKE_SECONDS * fs);
        double next = m.noteOnsets().size() > 1 ? m.noteOnsets().get(1) - 0.005 : clip.seconds();
        int end = (int) Math.min(Math.min(x.length, next * fs), start + LONGEST_SECONDS * fs);
        if (m.held() != null || end - start < SHORTEST_SECONDS * fs) {
            return null;
        }
        NoiseFloor floor =
                onset > 0.05 * fs ? NoiseFloor.of(x, 0, onset - (int) (0.002 * fs), fs) : NoiseFloor.none(fs);
        return new NoteSegment(Arrays.copyOfRange(x, start, end), fs, start - onset, floor);
    }

    /** The terms that partials stand for, from the first sample on; those without a decay are left out. */
    List<DampedSinusoid> terms(List<Partial> partials) {
        List<DampedSinusoid> out = new ArrayList<>();
        for (Partial p : partials) {
            if (p.stages() != null) {
                double late = p.amplitude() * Math.pow(10, p.stages().lateLevelDb() / 20);
                out.add(term(p, p.amplitude() - late, p.stages().earlyT60Seconds()));
                out.add(term(p, late, p.stages().lateT60Seconds()));
            } else if (p.t60Seconds() != null) {
                out.add(term(p, p.amplitude(), p.t60Seconds()));
            }
        }
        return out;
    }

    private DampedSinusoid term(Partial p, double amplitude, double t60) {
        return new DampedSinusoid(
                        2 * Math.PI * p.frequencyHz() / fs,
                        Math.log(1000) / (t60 * fs),
                        amplitude * Math.cos(p.phaseRad()),
                        amplitude * Math.sin(p.phaseRad()),
                        0,
                        Math.pow(10, p.snrDb() / 10))
                .movedBy(since);
    }

    PartialAssembler account() {
        return new PartialAssembler(fs, y.length, since);
    }

    double hz(DampedSinusoid t) {
        return t.omega() * fs / (2 * Math.PI);
    }
}
