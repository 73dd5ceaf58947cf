package nightreed.measure;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import nightreed.dsp.Transforms;
import nightreed.measure.partial.DampedSinusoid;
import nightreed.measure.partial.DampedSinusoids;
import nightreed.measure.partial.NoiseFloor;
import nightreed.measure.partial.Partial;
import nightreed.measure.partial.PartialSearch;
import nightreed.measure.partial.SpectralRefinement;
import nightreed.sound.Clip;

/** A partial that somebody hears where none was found: the strongest term near a frequency in what the others leave over. */
public final class PartialNear {
    /** How far from the frequency it may lie: a semitone, and at least so many Hz. */
    private static final double REACH = 0.06;

    private static final double REACH_HZ = 12;

    /** Ratio over the noise that it needs, once somebody has pointed at it. */
    private static final double LEAST_RATIO = 16;

    private PartialNear() {}

    /** @return null if nothing stands out of the noise there, or if the note is held */
    public static Partial find(Clip clip, Measurement m, double hz) {
        NoteSegment segment = NoteSegment.of(clip, m);
        if (segment == null || !(hz > 20 && hz < 0.46 * segment.fs())) {
            return null;
        }
        double fs = segment.fs();
        double[] y = segment.y();
        NoiseFloor floor = segment.floor();
        List<DampedSinusoid> known = segment.terms(m.reliablePartials());
        Transforms transforms = new Transforms();
        SpectralRefinement refinement = new SpectralRefinement(y, transforms);
        double reach = Math.max(REACH_HZ, REACH * hz);
        DampedSinusoid candidate = new PartialSearch(y.length, fs, floor, transforms)
                .candidates(refinement.residual(known), 4000, LEAST_RATIO).stream()
                        .filter(c -> Math.abs(c.term().omega() * fs / (2 * Math.PI) - hz) < reach)
                        .max(Comparator.comparingDouble(PartialSearch.Candidate::power))
                        .map(PartialSearch.Candidate::term)
                        .orElse(null);
        if (candidate == null) {
            return null;
        }
        List<DampedSinusoid> all = new ArrayList<>(known);
        all.add(candidate);
        for (int pass = 0; pass < 3; pass++) {
            all = refinement.refine(all);
        }
        all = DampedSinusoids.prune(all, y.length, fs, floor);
        double strongest = m.strongest() == null ? 1 : m.strongest().amplitude();
        return segment.account().of(all).stream()
                .filter(p -> Math.abs(p.frequencyHz() - candidate.omega() * fs / (2 * Math.PI)) < REACH_HZ)
                .filter(p -> m.reliablePartials().stream()
                        .noneMatch(q -> Math.abs(q.frequencyHz() - p.frequencyHz()) < 0.05))
                .max(Comparator.comparingDouble(Partial::amplitude))
                .map(p -> p.relevelled(20 * Math.log10(p.amplitude() / strongest), true))
                .orElse(null);
    }
}
