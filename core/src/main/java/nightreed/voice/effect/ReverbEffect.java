package nightreed.voice.effect;

import nightreed.recipe.part.Effects.Reverb;

/**
 * A feedback delay network (J.-M. Jot, A. Chaigne, "Digital delay networks for designing artificial reverberators", 1991): sixteen
 * lines that feed each other through a matrix that keeps their energy. Two steps of short delays and the same matrix before
 * them make 256 echoes of one; the first step is what is heard of the walls early on. Slow turns between pairs of lines, which
 * keep the energy too, let no mode stand out (S. Schlecht, E. Habets, "Time-varying feedback matrices in feedback delay networks
 * and their application in artificial reverberation", 2015).
 *
 * <p>The level does not depend on size and time: at a mix of 1 the room gives back the energy of the sound.
 */
final class ReverbEffect {
    private static final int LINES = 16;

    /** Lengths in the largest room, in samples at 48 kHz: primes, evenly spread over the logarithm. */
    private static final int[] LENGTHS = {
        2039, 2203, 2377, 2557, 2767, 2969, 3217, 3461, 3739, 4021, 4339, 4679, 5039, 5437, 5861, 6311
    };

    /** The same for the first step: where walls answer. */
    private static final int[] EARLY = {
        211, 293, 373, 457, 541, 617, 701, 787, 863, 953, 1033, 1109, 1193, 1277, 1361, 1439
    };

    /** And for the second, which fills the gaps between them. */
    private static final int[] DENSE = {29, 83, 137, 191, 241, 293, 347, 401, 457, 509, 563, 617, 673, 727, 787, 839};

    private static final double LENGTHS_AT = 48_000;

    /**
     * Signs with which the lines are heard, x0 x1 + x2 x3 of the digits of their number: a bent function, whose products with
     * all rows of the matrix are alike, or only one line would be heard of what has just been mixed.
     */
    private static final int[] SIGNS = {1, 1, 1, -1, 1, 1, 1, -1, 1, 1, 1, -1, -1, -1, -1, 1};

    /** Share of the energy that comes from the first step; the rest is the tail. Chosen. */
    private static final double EARLY_SHARE = 0.2;

    /** The smallest room as a share of the largest, for the lines: shorter ones would leave single modes to be heard. */
    private static final double LEAST_LINES = 0.5;

    private static final double LEAST_STEPS = 0.12;

    /** Turns between pairs of lines [Hz], about one a second. */
    private static final double[] TURN_HZ = {0.61, 0.73, 0.89, 1.03, 1.13, 1.31, 0.53, 0.97};

    /** How far [rad]. Chosen. */
    private static final double TURN = 0.35;

    /** Where the level is measured [Hz]: every octave that matters. */
    private static final double[] BANDS = {125, 250, 500, 1000, 2000, 4000, 8000};

    private final double fs;
    private final Line before;
    private final Step early;
    private final Step dense;
    private final Line[] lines = new Line[LINES];
    private final int[] length = new int[LINES];
    private final Shelf[] losses = new Shelf[LINES];
    private final double[] x = new double[LINES];
    private final double[] out = new double[LINES];
    private final double[] cos = new double[LINES / 2];
    private final double[] sin = new double[LINES / 2];
    private int preDelay = 1;
    private double tailGain;
    private double earlyGain;
    private double cutShare;
    private double cut;
    private long samples; // rendered so far
    private Reverb seen;

    ReverbEffect(double fs) {
        this.fs = fs;
        before = new Line((int) (0.21 * fs));
        early = new Step(EARLY, fs);
        dense = new Step(DENSE, fs);
        for (int i = 0; i < LINES; i++) {
            lines[i] = new Line((int) (LENGTHS[i] * fs / LENGTHS_AT) + 8);
            losses[i] = new Shelf();
        }
    }

    /** Short delays side by side, then the matrix: sixteen echoes of each. */
    private static final class Step {
        private final Line[] lines = new Line[LINES];
        private final int[] longest = new int[LINES];
        private final int[] length = new int[LINES];

        Step(int[] samples, double fs) {
            for (int i = 0; i < LINES; i++) {
                longest[i] = (int) (samples[i] * fs / LENGTHS_AT) + 1;
                lines[i] = new Line(longest[i] + 4);
            }
        }

        void scale(double share) {
            for (int i = 0; i < LINES; i++) {
                length[i] = Math.max(1, (int) (longest[i] * share));
            }
        }

        /** Delays what stands in an array; the matrix is left to the caller. */
        void delay(double[] v) {
            for (int i = 0; i < LINES; i++) {
                lines[i].put(v[i]);
                v[i] = lines[i].get(length[i]);
            }
        }

        void clear() {
            for (Line l : lines) {
                l.clear();
            }
        }
    }

    /** Loss once through a line: a gain at low frequencies and its square at high ones, by a shelf of first order. */
    private static final class Shelf {
        private double b0;
        private double b1;
        private double a1;
        private double x1;
        private double y1;

        /** @param gain at 0 Hz @param w tan of half the angle of the corner */
        void set(double gain, double w) {
            double g = Math.sqrt(gain); // half of what is lost in addition is lost at the corner
            double zero = w / g;
            double pole = w * g;
            // (s + pole)... normalised to gain at 0 Hz and gain² above
            double k = 1 / (1 + pole);
            b0 = gain * gain * (1 + zero) * k;
            b1 = gain * gain * (zero - 1) * k;
            a1 = (pole - 1) * k;
        }

        double next(double in) {
            double y = b0 * in + b1 * x1 - a1 * y1;
            x1 = in;
            y1 = Math.abs(y) < 1e-20 ? 0 : y;
            return y;
        }

        /** Power gain at an angle a sample [rad]. */
        double power(double angle) {
            double c = Math.cos(angle);
            return (b0 * b0 + b1 * b1 + 2 * b0 * b1 * c) / (1 + a1 * a1 + 2 * a1 * c);
        }

        void clear() {
            x1 = 0;
            y1 = 0;
        }
    }

    void step(Reverb r) {
        for (int p = 0; p < LINES / 2; p++) {
            double angle = TURN * Math.sin(2 * Math.PI * TURN_HZ[p] * samples / fs);
            cos[p] = Math.cos(angle);
            sin[p] = Math.sin(angle);
        }
        if (r == seen) {
            return;
        }
        seen = r;
        preDelay = Math.max(1, (int) (r.preDelayMs() / 1000 * fs));
        cutShare = 1 - Math.exp(-2 * Math.PI * r.lowCutHz() / fs);
        early.scale(LEAST_STEPS + (1 - LEAST_STEPS) * r.size());
        dense.scale(LEAST_STEPS + (1 - LEAST_STEPS) * r.size());
        double scale = LEAST_LINES + (1 - LEAST_LINES) * r.size();
        double corner = Math.tan(Math.PI * Math.min(r.dampingHz(), 0.45 * fs) / fs);
        for (int i = 0; i < LINES; i++) {
            length[i] = Math.max(8, (int) (LENGTHS[i] * fs / LENGTHS_AT * scale));
            losses[i].set(Math.exp(-Math.log(1000) * length[i] / fs / r.t60Seconds()), corner);
        }
        // what goes in comes round and round: of 1 that enters, 1 + kept + kept² + ... is heard
        double given = 0;
        for (double hz : BANDS) {
            double kept = 0;
            for (Shelf s : losses) {
                kept += s.power(2 * Math.PI * hz / fs) / LINES;
            }
            given += 1 / (1 - kept) / BANDS.length;
        }
        tailGain = r.mix() * Math.sqrt((1 - EARLY_SHARE) / given);
        earlyGain = r.mix() * Math.sqrt(EARLY_SHARE);
    }

    void clear() {
        for (int i = 0; i < LINES; i++) {
            lines[i].clear();
            losses[i].clear();
        }
        early.clear();
        dense.clear();
        before.clear();
        cut = 0;
    }

    /** Lets time pass where there is nothing to hear. */
    void rest(int n) {
        samples += n;
    }

    void process(double[] l, double[] r, int n) {
        double even = 1 / Math.sqrt(LINES);
        for (int i = 0; i < n; i++) {
            before.put(Math.sqrt(0.5) * (l[i] + r[i])); // two sides that differ keep their energy
            double in = before.get(preDelay);
            cut += cutShare * (in - cut);
            cut = Math.abs(cut) < 1e-20 ? 0 : cut;
            java.util.Arrays.fill(x, (in - cut) * even);
            early.delay(x);
            double wallLeft = 0;
            double wallRight = 0;
            for (int k = 0; k < LINES; k += 2) {
                wallLeft += sign(k) * x[k];
                wallRight += sign(k + 1) * x[k + 1];
            }
            mixed(x);
            dense.delay(x);
            mixed(x);
            double left = 0;
            double right = 0;
            for (int k = 0; k < LINES; k++) {
                out[k] = losses[k].next(lines[k].get(length[k]));
            }
            turn();
            mixed(out);
            for (int k = 0; k < LINES; k++) {
                double v = x[k] + out[k]; // heard where it enters the lines: the first echoes are not late
                lines[k].put(v);
                left += SIGNS[k] * v;
                right += sign(k) * SIGNS[k] * v;
            }
            // as both sides are added at the start, each gets half the energy of what two alike have together
            l[i] += Math.sqrt(0.5) * (tailGain * left + Math.sqrt(2) * earlyGain * wallLeft);
            r[i] += Math.sqrt(0.5) * (tailGain * right + Math.sqrt(2) * earlyGain * wallRight);
        }
        samples += n;
    }

    private static double sign(int k) {
        return (k & 1) == 0 ? 1 : -1;
    }

    private void turn() {
        for (int p = 0; p < LINES / 2; p++) {
            double a = out[2 * p];
            double b = out[2 * p + 1];
            out[2 * p] = cos[p] * a - sin[p] * b;
            out[2 * p + 1] = sin[p] * a + cos[p] * b;
        }
    }

    /**
     * Sums and differences, four times over, scaled so that no energy comes or goes (Hadamard): by fours of neighbours, then by
     * fours that lie four apart.
     */
    private static void mixed(double[] v) {
        for (int k = 0; k < LINES; k += 4) {
            four(v, k, 1);
        }
        for (int k = 0; k < 4; k++) {
            four(v, k, 4);
        }
    }

    private static void four(double[] v, int at, int by) {
        double a = v[at];
        double b = v[at + by];
        double c = v[at + 2 * by];
        double d = v[at + 3 * by];
        v[at] = 0.5 * ((a + b) + (c + d));
        v[at + by] = 0.5 * ((a - b) + (c - d));
        v[at + 2 * by] = 0.5 * ((a + b) - (c + d));
        v[at + 3 * by] = 0.5 * ((a - b) - (c - d));
    }
}
