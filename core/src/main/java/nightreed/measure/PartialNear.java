package nightreed.measure;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
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
        double fs = clip.sampleRateHz();
        if (m.held() != null || !(hz > 20 && hz < 0.46 * fs)) {
            return null;
        }
        double[] x = Channels.of(clip).samples();
        int onset = (int) Math.round(m.onsetSeconds() * fs);
        int start = onset + (int) (0.008 * fs);
        int end = (int) Math.min(x.length, start + 6 * fs);
        if (end - start < 0.04 * fs) {
            return null;
        }
        double[] y = Arrays.copyOfRange(x, start, end);
        List<DampedSinusoid> known = new ArrayList<>();
        for (Partial p : m.reliablePartials()) {
            if (p.t60Seconds() != null) {
                double alpha = Math.log(1000) / (p.t60Seconds() * fs);
                known.add(new DampedSinusoid(
                                2 * Math.PI * p.frequencyHz() / fs,
                                alpha,
                                p.amplitude() * Math.cos(p.phaseRad()),
                                p.amplitude() * Math.sin(p.phaseRad()),
                                0,
                                Math.pow(10, p.snrDb() / 10))
                        .movedBy(start - onset));
            }
        }
        SpectralRefinement refinement = new SpectralRefinement(y);
        NoiseFloor floor =
                onset > 0.05 * fs ? NoiseFloor.of(x, 0, onset - (int) (0.002 * fs), fs) : NoiseFloor.none(fs);
        double reach = Math.max(REACH_HZ, REACH * hz);
        DampedSinusoid candidate = new PartialSearch(y.length, fs, floor)
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
        return new PartialAccount(fs, y.length, start - onset)
                .of(all).stream()
                        .filter(p -> Math.abs(p.frequencyHz() - candidate.omega() * fs / (2 * Math.PI)) < REACH_HZ)
                        .filter(p -> m.reliablePartials().stream()
                                .noneMatch(q -> Math.abs(q.frequencyHz() - p.frequencyHz()) < 0.05))
                        .max(Comparator.comparingDouble(Partial::amplitude))
                        .map(p -> p.relevelled(20 * Math.log10(p.amplitude() / strongest), true))
                        .orElse(null);
    }
}
