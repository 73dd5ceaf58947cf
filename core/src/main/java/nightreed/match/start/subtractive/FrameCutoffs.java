package nightreed.match.start.subtractive;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import nightreed.match.start.EnvelopeFit;
import nightreed.match.start.StartContext;
import nightreed.optim.RobustLoss;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.Filter;
import nightreed.recipe.part.Filter.Kind;
import nightreed.recipe.part.Filter.Slope;
import nightreed.recipe.part.Oscillator.Wave;
import nightreed.voice.note.MovingFilter;

/**
 * A wave through a filter, looked at from far: each frame of a recording has the cutoff at which the harmonics come nearest to
 * its own, of all that are tried.
 *
 * @param cutoffs number of the cutoff of each frame
 * @param cost    weighted squares of what is left over
 */
record FrameCutoffs(Wave wave, double width, Slope slope, double q, int[] cutoffs, double cost) {
    /** Waves that are worth to look closer at. */
    private static final int WALKED = 4;

    /** Level differences that matter from far [dB]. */
    static final double FAR_DB = 9;

    private static final double[] WIDTHS = {0.5, 0.4, 0.3, 0.22, 0.15, 0.1, 0.06, 0.03};
    private static final double[] RESONANCES = {0.4, 0.55, 0.8, 1.3, 2.2, 4};
    private static final int CUTOFFS = 36;
    private static final double LOWEST_HZ = 40;
    private static final double HIGHEST_HZ = 18_000;

    /** The likeliest waves, each with the slope and resonance that suit it best. */
    static List<FrameCutoffs> likely(HarmonicLevels levels) {
        List<double[]> waves = new ArrayList<>();
        List<Wave> kinds = new ArrayList<>();
        List<Double> widths = new ArrayList<>();
        for (Wave wave : new Wave[] {Wave.SAW, Wave.TRIANGLE, Wave.PULSE}) {
            for (double width : wave == Wave.PULSE ? WIDTHS : new double[] {0.5}) {
                waves.add(WaveLevels.of(wave, width, 0, 0, levels.harmonics()));
                kinds.add(wave);
                widths.add(width);
            }
        }
        List<FrameCutoffs> out = new ArrayList<>();
        for (int w = 0; w < waves.size(); w++) {
            FrameCutoffs best = null;
            for (Slope slope : Slope.values()) {
                for (double q : slope == Slope.DB_6 ? new double[] {0.71} : RESONANCES) {
                    FrameCutoffs c = framewise(levels, kinds.get(w), widths.get(w), waves.get(w), slope, q);
                    best = best == null || c.cost < best.cost ? c : best;
                }
            }
            out.add(best);
        }
        out.sort(Comparator.comparingDouble(FrameCutoffs::cost));
        return out.subList(0, Math.min(WALKED, out.size()));
    }

    private static FrameCutoffs framewise(
            HarmonicLevels levels, Wave wave, double width, double[] bare, Slope slope, double q) {
        int n = bare.length;
        double[][] filter = new double[CUTOFFS][n];
        for (int c = 0; c < CUTOFFS; c++) {
            for (int k = 0; k < n; k++) {
                filter[c][k] = bare[k]
                        + MovingFilter.levelDb(Kind.LOW, slope, q, cutoff(c), (k + 1) * levels.f0(), levels.fs());
            }
        }
        int[] cutoffs = new int[levels.frames()];
        double cost = 0;
        for (int f = 0; f < cutoffs.length; f++) {
            double least = Double.POSITIVE_INFINITY;
            for (int c = 0; c < CUTOFFS; c++) {
                double left = left(levels.db()[f], levels.weight()[f], filter[c]);
                if (left < least) {
                    least = left;
                    cutoffs[f] = c;
                }
            }
            cost += least;
        }
        return new FrameCutoffs(wave, width, slope, q, cutoffs, cost);
    }

    /** Weighted squares of what is left over at the best gain, strays counting as far. */
    private static double left(double[] db, double[] weight, double[] model) {
        double mean = 0;
        double all = 1e-12;
        for (int k = 0; k < db.length; k++) {
            mean += weight[k] * (db[k] - model[k]);
            all += weight[k];
        }
        mean /= all;
        double sum = 0;
        for (int k = 0; k < db.length; k++) {
            double r = RobustLoss.limited((db[k] - model[k] - mean) / FAR_DB);
            sum += weight[k] * r * r;
        }
        return sum;
    }

    private static double cutoff(int i) {
        return LOWEST_HZ * Math.pow(HIGHEST_HZ / LOWEST_HZ, i / (CUTOFFS - 1.0));
    }

    /** As a start for all values at once: courses of cutoff and level that run along these. */
    FilteredWaveFit read(HarmonicLevels levels, Envelope usual) {
        int n = cutoffs.length;
        double[] octaves = new double[n];
        double[] gain = new double[n];
        double[] weight = new double[n];
        double[] bare = WaveLevels.of(wave, width, 0, 0, levels.harmonics());
        double high = Double.NEGATIVE_INFINITY;
        double low = Double.POSITIVE_INFINITY;
        double loud = Double.NEGATIVE_INFINITY;
        for (int f = 0; f < n; f++) {
            double hz = cutoff(cutoffs[f]);
            octaves[f] = Math.log(hz) / Math.log(2);
            for (int k = 0; k < bare.length; k++) {
                double db = bare[k] + MovingFilter.levelDb(Kind.LOW, slope, q, hz, (k + 1) * levels.f0(), levels.fs());
                gain[f] += levels.weight()[f][k] * (levels.db()[f][k] - db);
                weight[f] += levels.weight()[f][k];
            }
            gain[f] = weight[f] > 0 ? gain[f] / weight[f] : -100;
            if (weight[f] > 0) {
                high = Math.max(high, octaves[f]);
                low = Math.min(low, octaves[f]);
                loud = Math.max(loud, gain[f]);
            }
        }
        boolean rises = weight[0] > 0 && octaves[0] < (high + low) / 2;
        double[] course = new double[n];
        double[] level = new double[n];
        for (int f = 0; f < n; f++) {
            double share = high - low < 0.1 ? 0 : (octaves[f] - low) / (high - low);
            course[f] = rises ? 1 - share : share;
            level[f] = Math.pow(10, (gain[f] - loud) / 20);
        }
        Envelope move = EnvelopeFit.of(levels.seconds(), course, weight, 0.0005, usual.releaseSeconds())
                .envelope();
        Envelope amplitude = EnvelopeFit.ofLevel(
                        levels.seconds(), level, weight, usual.attackSeconds(), usual.releaseSeconds())
                .envelope();
        double depth = rises ? low - high : high - low;
        double base = Math.pow(2, rises ? high : low);
        return new FilteredWaveFit(
                FilteredWaveFit.oscillator(wave, width, 0),
                null,
                new Filter(Kind.LOW, slope, base, q, 1, StartContext.limited(depth, -8, 8), 1, 0, move),
                amplitude,
                Double.POSITIVE_INFINITY);
    }
}
