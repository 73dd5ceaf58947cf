package nightreed.match.start.fm;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;
import nightreed.match.start.NonuniformStft;
import nightreed.match.start.fm.ViterbiIndexPath.Like;

/**
 * How loud frames are at the harmonics of a pitch, where the lines of a pair with whole ratios lie: on each one line from above
 * zero and one that is folded there from below. Immutable.
 */
final class HarmonicGrid {
    private static final int MOST_STEPS = 100;

    /** Bins that a line fills to either side, and what a sine of 1 leaves in all of them. */
    private static final int LOBE = 2;

    private static final double FILLED = 1.5;

    /** Lines nearer than this cannot be told from each other [bins]. */
    private static final double LEAST_APART = 4.5;

    /** Harmonics that have to be there for a pair to be told from another. */
    private static final int LEAST_PLACES = 6;

    /** By which folded lines may be turned against those that they meet, from none to half of all. */
    private static final int TURNS = 5;

    private static final double[] COSINES = IntStream.range(0, TURNS)
            .mapToDouble(t -> Math.cos(Math.PI * t / (TURNS - 1)))
            .toArray();

    /**
     * Where one or two lines lie.
     *
     * @param up   multiple of the pitch
     * @param down the same of the line that is folded there
     */
    private record Place(double hz, int up, int down) {}

    private final double halfWidth = LOBE; // of a place [bins]
    private final List<Place> places = new ArrayList<>();
    private final double[][] seen; // roots of the amplitudes [frame][place]
    private final double[] norm;
    private final boolean told;

    /** Of all harmonics of a pitch. */
    HarmonicGrid(NonuniformStft frames, double f0) {
        told = f0 > LEAST_APART * frames.binHz();
        for (int h = 1; h < MOST_STEPS; h++) {
            double hz = h * f0;
            if (hz > NonuniformStft.LOWEST_HZ && hz < (frames.bins() - halfWidth - 1) * frames.binHz()) {
                places.add(new Place(hz, h, -h));
            }
        }
        seen = new double[frames.count()][places.size()];
        norm = new double[frames.count()];
        for (int f = 0; f < seen.length; f++) {
            look(f, frames.power(f), frames.binHz());
        }
    }

    private void look(int f, double[] power, double binHz) {
        for (int p = 0; p < places.size(); p++) {
            double middle = places.get(p).hz / binHz;
            double all = 0;
            for (int b = (int) Math.max(0, Math.rint(middle - halfWidth)); b <= Math.rint(middle + halfWidth); b++) {
                all += power[b] / FILLED;
            }
            seen[f][p] = root(all);
            norm[f] += seen[f][p] * seen[f][p];
        }
        norm[f] = places.size() < LEAST_PLACES ? 0 : norm[f];
    }

    private static double root(double power) {
        return Math.sqrt(Math.sqrt(power));
    }

    /** Whether lines lie so far from each other that they are told apart. */
    boolean isTold() {
        return told;
    }

    /**
     * Roots of the amplitudes at all places, for each turn of what is folded [turn][place]. By how much a folded line is turned
     * against the one that it meets is the same for all of them.
     *
     * @param every the modulator is so many steps of the lattice
     */
    double[][] turned(int carrier, int every, Spectrum spectrum) {
        double[][] out = new double[TURNS][places.size()];
        for (int p = 0; p < places.size(); p++) {
            int one = spectrum.slot(places.get(p).up, carrier, every);
            int other = spectrum.slot(places.get(p).down, carrier, every);
            double up = one < 0 ? 0 : spectrum.lines[one];
            double down = other < 0 ? 0 : spectrum.lines[other];
            double alone =
                    up == 0 && other >= 0 ? spectrum.roots[other] : down == 0 && one >= 0 ? spectrum.roots[one] : 0;
            double apart = up * up + down * down;
            for (int t = 0; t < TURNS && apart > 0; t++) {
                boolean both = up != 0 && down != 0;
                out[t][p] = both ? root(Math.max(0, apart + 2 * up * down * COSINES[t])) : alone;
            }
        }
        return out;
    }

    /**
     * Lines of a modulated carrier of frequency 0 and amplitude 1, which are real: a modulator is the same backwards but for its
     * sign, and so it is with feedback.
     *
     * @param lines by order, those below 0 after the others
     * @param roots of their sizes
     * @param reach highest order that is not as good as none
     */
    record Spectrum(double[] lines, double[] roots, int reach) {
        private static final double AS_GOOD_AS_NONE = 1e-3;

        /** @param transformed real and imaginary parts */
        static Spectrum of(double[] transformed) {
            int n = transformed.length / 2;
            double[] lines = new double[n];
            int reach = 0;
            for (int i = 0; i < n; i++) {
                lines[i] = transformed[2 * i];
                int order = Math.min(i, n - i);
                reach = order < n / 2 && Math.abs(lines[i]) > AS_GOOD_AS_NONE ? Math.max(reach, order) : reach;
            }
            double[] roots =
                    Arrays.stream(lines).map(l -> Math.sqrt(Math.abs(l))).toArray();
            return new Spectrum(lines, roots, reach);
        }

        /** Where the line at a multiple is; -1 if there is none so far off the carrier. */
        private int slot(int line, int carrier, int every) {
            if ((line - carrier) % every != 0) {
                return -1;
            }
            int order = (line - carrier) / every;
            return Math.abs(order) > reach ? -1 : order < 0 ? order + lines.length : order;
        }
    }

    /** How like a frame is to the likest turn. @param turned [turn][place] */
    Like like(int frame, double[][] turned) {
        Like best = new Like(0, 0);
        for (double[] of : turned) {
            double dot = 0;
            double own = 0;
            for (int p = 0; p < of.length; p++) {
                dot += of[p] * seen[frame][p];
                own += of[p] * of[p];
            }
            double likeness = own > 0 && norm[frame] > 0 ? dot / Math.sqrt(own * norm[frame]) : 0;
            double gain = own > 0 ? dot / own : 0;
            best = likeness > best.likeness() ? new Like(likeness, gain * gain) : best;
        }
        return best;
    }
}
