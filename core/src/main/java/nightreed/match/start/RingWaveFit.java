package nightreed.match.start;

import java.util.List;
import java.util.stream.IntStream;
import nightreed.recipe.part.Filter;
import nightreed.recipe.part.Oscillator;
import nightreed.voice.note.MovingFilter;
import nightreed.voice.ring.SumsAndDifferences;

/**
 * A filtered wave, and beside it its product with a sine hardly off its own pitch, that have the levels of a held note's
 * harmonics: each lies where one harmonic of the wave is dry and two others are moved to, and as these beat their powers add.
 *
 * @param cutoffHz of the low-pass of 12 dB per octave [Hz]
 * @param width    of a pulse
 * @param ringDb   of the product's lines over what is dry [dB]
 * @param rms      what the levels are off by, NaN while that is not known [dB]
 */
record RingWaveFit(double cutoffHz, double q, double width, double ringDb, double rms) {
    private static final double[] CUTOFFS = {1.5, 4, 10, 30};
    private static final double[] WIDTHS = {0.5, 0.25, 0.1};

    /** Levels under the strongest that are looked at, and what they may be off to be near [dB]. */
    private static final double RANGE_DB = 60;

    private static final double NEAR_DB = 2;

    /** At which a filter is told; the voice's is higher by far. */
    private static final double SAMPLE_RATE_HZ = 96_000;

    /** Harmonics of the wave that are counted. */
    private static final int HARMONICS = 66;

    /**
     * The nearest from several beginnings.
     *
     * @param lines harmonics, the strongest first; at least one
     * @param f0    [Hz]
     */
    static RingWaveFit of(List<Ground.Line> lines, double f0, Oscillator wave) {
        double[] level = new double[HARMONICS + 1];
        for (Ground.Line l : lines) {
            int n = (int) Math.rint(l.hz() / f0);
            if (n >= 1 && n < HARMONICS) {
                level[n] = Math.max(level[n], l.db() - lines.get(0).db() + RANGE_DB);
            }
        }
        RingWaveFit best = null;
        for (double cutoff : CUTOFFS) {
            for (double width : wave.wave() == Oscillator.Wave.PULSE ? WIDTHS : new double[] {0.5}) {
                double[] start = {Math.log(cutoff * f0), Math.log(0.71), width / 0.2, 0};
                RingWaveFit f = at(NearestWalk.from(start, u -> residuals(at(u), level, f0, wave)));
                double[] left = residuals(f, level, f0, wave);
                double squares = 0;
                for (double r : left) {
                    squares += r * r;
                }
                double rms = NEAR_DB * Math.sqrt(squares / Math.max(1, left.length));
                best = best == null || rms < best.rms ? new RingWaveFit(f.cutoffHz, f.q, f.width, f.ringDb, rms) : best;
            }
        }
        return best;
    }

    /** @param u logarithms of cutoff and Q, width and balance, each on a ruler on which 1 is far */
    private static RingWaveFit at(double[] u) {
        return new RingWaveFit(
                Ground.limited(Math.exp(u[0]), 20, 18_000),
                Ground.limited(Math.exp(u[1]), 0.3, 12),
                Ground.limited(0.2 * u[2], 0.03, 0.5),
                Ground.limited(9 * u[3], -40, 40),
                Double.NaN);
    }

    /** Over what is near, of each level that is looked at, whatever they have in common taken off. */
    private static double[] residuals(RingWaveFit f, double[] level, double f0, Oscillator wave) {
        double[] power = f.powers(f0, wave);
        int[] seen = IntStream.range(1, HARMONICS).filter(n -> level[n] > 0).toArray();
        double[] off = new double[seen.length];
        double mean = 0;
        double weights = 1e-9;
        for (int i = 0; i < seen.length; i++) {
            off[i] = 10 * Math.log10(power[seen[i]] + 1e-9) - level[seen[i]];
            mean += level[seen[i]] * off[i];
            weights += level[seen[i]];
        }
        for (int i = 0; i < seen.length; i++) {
            off[i] = Math.sqrt(level[seen[i]] / RANGE_DB) * NearestWalk.bent((off[i] - mean / weights) / NEAR_DB);
        }
        return off;
    }

    /** A wave with the width that was found. */
    private Oscillator widened(Oscillator wave) {
        return new Oscillator(
                wave.wave(),
                wave.feet(),
                wave.ratio(),
                wave.detuneCents(),
                wave.levelDb(),
                width,
                wave.phaseRad(),
                wave.free(),
                wave.imperfection(),
                wave.driftCents(),
                wave.pan());
    }

    private double[] powers(double f0, Oscillator wave) {
        double[] own = new double[HARMONICS + 2];
        for (int n = 1; n < own.length; n++) {
            double a = SumsAndDifferences.harmonic(widened(wave), null, n);
            double db = MovingFilter.levelDb(Filter.Kind.LOW, Filter.Slope.DB_12, q, cutoffHz, n * f0, SAMPLE_RATE_HZ);
            own[n] = a * a * Math.pow(10, db / 10);
        }
        double moved = 0.25 * Math.pow(10, ringDb / 10);
        double[] out = new double[HARMONICS + 1];
        for (int n = 1; n <= HARMONICS; n++) {
            out[n] = own[n] + moved * (own[n - 1] + own[n + 1]);
        }
        return out;
    }
}
