package nightreed.voice.effect;

import java.util.Arrays;
import nightreed.recipe.part.Effects.Reverb;
import nightreed.voice.note.Note;

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

    /** Far below anything a sound card can give, and far above denormal numbers [full scale = 1]. */
    private static final double SUNK = 1e-20;

    private final double fs;
    private final Line before;
    private final Step early;
    private final Step dense;
    private final Line[] lines = new Line[LINES];
    private final int[] length = new int[LINES];
    private final Shelf[] losses = new Shelf[LINES];
    // a step of samples in each line: on their way in, and out of the lines
    private final double[][] x = new double[LINES][Note.STEP];
    private final double[][] out = new double[LINES][Note.STEP];
    private final double[] in = new double[Note.STEP];
    private final double[] left = new double[Note.STEP];
    private final double[] right = new double[Note.STEP];
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
        before = new Line((int) (0.21 * fs) + Note.STEP);
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
                lines[i] = new Line(longest[i] + Note.STEP); // a whole step is put in before any is taken
            }
        }

        void scale(double share) {
            for (int i = 0; i < LINES; i++) {
                length[i] = Math.max(1, (int) (longest[i] * share));
            }
        }

        /** Delays what stands in an array; the matrix is left to the caller. */
        void delay(double[][] v, int n) {
            for (int i = 0; i < LINES; i++) {
                lines[i].put(v[i], n);
                lines[i].get(v[i], length[i], n);
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

        /** Two at once, as neither waits for the other. */
        static void process(Shelf p, double[] v, Shelf q, double[] w, int n) {
            double x = p.x1;
            double y = p.y1;
            double u = q.x1;
            double z = q.y1;
            for (int i = 0; i < n; i++) {
                y = (p.b0 * v[i] + p.b1 * x) - p.a1 * y;
                x = v[i];
                v[i] = y;
                z = (q.b0 * w[i] + q.b1 * u) - q.a1 * z;
                u = w[i];
                w[i] = z;
            }
            p.x1 = x;
            p.y1 = Math.abs(y) < SUNK ? 0 : y;
            q.x1 = u;
            q.y1 = Math.abs(z) < SUNK ? 0 : z;
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
            length[i] = Math.max(Note.STEP, (int) (LENGTHS[i] * fs / LENGTHS_AT * scale));
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

    /** @param n at most {@link Note#STEP}, which no line is shorter than */
    void process(double[] l, double[] r, int n) {
        for (int i = 0; i < n; i++) {
            in[i] = Math.sqrt(0.5) * (l[i] + r[i]); // two sides that differ keep their energy
        }
        before.put(in, n);
        before.get(in, preDelay, n);
        double even = 1 / Math.sqrt(LINES);
        for (int i = 0; i < n; i++) {
            cut += cutShare * (in[i] - cut);
            in[i] = (in[i] - cut) * even;
        }
        cut = Math.abs(cut) < SUNK ? 0 : cut;
        for (double[] v : x) {
            System.arraycopy(in, 0, v, 0, n);
        }
        early.delay(x, n);
        // as both sides are added at the start, each gets half the energy of what two alike have together
        for (int k = 0; k < LINES; k += 2) {
            for (int i = 0; i < n; i++) {
                l[i] += earlyGain * x[k][i];
                r[i] -= earlyGain * x[k + 1][i];
            }
        }
        mix(x, n);
        dense.delay(x, n);
        mix(x, n);
        tail(n);
        double gain = Math.sqrt(0.5) * tailGain;
        for (int i = 0; i < n; i++) {
            l[i] += gain * left[i];
            r[i] += gain * right[i];
        }
        samples += n;
    }

    /** The lines: what leaves them is weakened, turned, mixed and goes in again with what is new. */
    private void tail(int n) {
        for (int k = 0; k < LINES; k += 2) {
            lines[k].get(out[k], length[k] - n + 1, n); // what is put in below counts as put in before
            lines[k + 1].get(out[k + 1], length[k + 1] - n + 1, n);
            Shelf.process(losses[k], out[k], losses[k + 1], out[k + 1], n);
            turn(out[k], out[k + 1], cos[k / 2], sin[k / 2], n);
        }
        mix(out, n);
        Arrays.fill(left, 0, n, 0);
        Arrays.fill(right, 0, n, 0);
        for (int k = 0; k < LINES; k++) {
            double[] v = out[k];
            double toLeft = SIGNS[k];
            double toRight = sign(k) * SIGNS[k];
            for (int i = 0; i < n; i++) {
                v[i] += x[k][i]; // heard where it enters the lines: the first echoes are not late
                left[i] += toLeft * v[i];
                right[i] += toRight * v[i];
            }
            lines[k].put(v, n);
        }
    }

    private static double sign(int k) {
        return (k & 1) == 0 ? 1 : -1;
    }

    private static void turn(double[] v, double[] w, double cos, double sin, int n) {
        for (int i = 0; i < n; i++) {
            double a = v[i];
            double b = w[i];
            v[i] = cos * a - sin * b;
            w[i] = sin * a + cos * b;
        }
    }

    /**
     * Sums and differences, four times over, scaled so that no energy comes or goes (Hadamard): by fours of neighbours, then by
     * fours that lie four apart.
     */
    private static void mix(double[][] v, int n) {
        for (int k = 0; k < LINES; k += 4) {
            four(v[k], v[k + 1], v[k + 2], v[k + 3], n);
        }
        for (int k = 0; k < 4; k++) {
            four(v[k], v[k + 4], v[k + 8], v[k + 12], n);
        }
    }

    private static void four(double[] p, double[] q, double[] r, double[] s, int n) {
        for (int i = 0; i < n; i++) {
            double a = p[i];
            double b = q[i];
            double c = r[i];
            double d = s[i];
            p[i] = 0.5 * ((a + b) + (c + d));
            q[i] = 0.5 * ((a - b) + (c - d));
            r[i] = 0.5 * ((a + b) - (c + d));
            s[i] = 0.5 * ((a - b) - (c - d));
        }
    }
}
