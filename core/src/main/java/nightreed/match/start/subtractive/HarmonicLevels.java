package nightreed.match.start.subtractive;

import nightreed.match.start.NonuniformStft;
import nightreed.match.start.StartContext;
import nightreed.music.Pitch;
import nightreed.recipe.part.Common;

/**
 * Levels of the harmonics of a recording over time [frame][harmonic]: of the frequency of its whole cycle, which may lie under
 * the pitch that is heard.
 *
 * @param f0      of the whole cycle [Hz]
 * @param fs      sample rate [Hz]
 * @param window  length of the window of a frame [s]
 * @param seconds of each frame after the onset
 * @param db      levels [dB]
 * @param weight  how much each counts; all together 1
 * @param parts   the pitch that is heard over {@code f0}
 */
record HarmonicLevels(
        double f0, double fs, double window, double[] seconds, double[][] db, double[][] weight, int parts) {
    private static final int MOST_HARMONICS = 32;

    /** Share of what is heard that has to be harmonics. */
    private static final double LEAST_SHARE = 0.9;

    /** A line that lies further off is none of them, unless it dies so fast that it is wide: [cents], half widths. */
    private static final double HARMONIC_CENTS = 35;

    private static final double WIDE = 3;

    /** Half width of a line times the time in which it falls by 60 dB. */
    private static final double WIDTH = Math.log(1000) / (2 * Math.PI);

    /** The pitch that is heard over the frequency of the whole cycle, at the most. */
    private static final int MOST_PARTS = 3;

    /** A harmonic so far under the strongest of its frame counts no more [dB]. */
    private static final double RANGE_DB = 60;

    /** @return null if what is heard is not harmonics of one frequency */
    static HarmonicLevels of(StartContext g) {
        int parts = 1;
        while (parts <= MOST_PARTS && harmonic(g, g.f0() / parts) < LEAST_SHARE) {
            parts++;
        }
        return parts > MOST_PARTS ? null : of(g, parts);
    }

    int harmonics() {
        return db[0].length;
    }

    int frames() {
        return db.length;
    }

    /** How many levels of harmonics, of all frames, are there to be told by. */
    int seen() {
        int seen = 0;
        for (double[] w : weight) {
            for (double v : w) {
                seen += v > 0 ? 1 : 0;
            }
        }
        return seen;
    }

    private static HarmonicLevels of(StartContext g, int parts) {
        NonuniformStft frames = NonuniformStft.of(g.side(), g.isHeld() ? g.movement(false) : Common.NONE, false);
        double fs = g.measurement().sampleRateHz();
        double f0 = g.f0() / parts;
        int n = (int) Math.max(1, Math.min(MOST_HARMONICS, 0.45 * fs / f0));
        double[][] db = new double[frames.count()][n];
        double[][] weight = new double[frames.count()][n];
        double sum = 0;
        for (int f = 0; f < db.length; f++) {
            double[] power = frames.power(f);
            double top = -200;
            for (int k = 0; k < n; k++) {
                int middle = (int) Math.round((k + 1) * f0 / frames.binHz());
                double all = 0;
                for (int b = Math.max(1, middle - 2); b <= Math.min(power.length - 1, middle + 2); b++) {
                    all += power[b];
                }
                db[f][k] = 10 * Math.log10(all / 1.5 + 1e-14);
                top = Math.max(top, db[f][k]);
            }
            for (int k = 0; k < n; k++) {
                weight[f][k] = frames.weight(f) * Math.max(0, 1 + (db[f][k] - top) / RANGE_DB);
                sum += weight[f][k];
            }
        }
        for (double[] w : weight) {
            for (int k = 0; k < n; k++) {
                w[k] /= Math.max(1e-9, sum);
            }
        }
        return new HarmonicLevels(f0, fs, 1 / frames.binHz(), frames.seconds(), db, weight, parts);
    }

    /** Share of the lines that were measured, by their levels, that are harmonics of a frequency [Hz]. */
    private static double harmonic(StartContext g, double f0) {
        double top = g.lines().get(0).db();
        double all = 0;
        double harmonic = 0;
        for (StartContext.Line l : g.lines()) {
            double weight = Math.max(0, 1 + (l.db() - top) / RANGE_DB);
            double at = Math.max(1, Math.rint(l.hz() / f0)) * f0;
            boolean within = l.t60() != null && Math.abs(l.hz() - at) < WIDE * WIDTH / l.t60();
            all += weight;
            harmonic += within || Math.abs(Pitch.cents(at, l.hz())) < HARMONIC_CENTS ? weight : 0;
        }
        return harmonic / all;
    }
}
