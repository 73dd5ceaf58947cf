package nightreed.voice.effect;

import nightreed.recipe.part.Effects.Reverb;

/**
 * Eight delay lines that feed each other through a matrix that keeps their energy (Hadamard), each with the gain that lets it
 * fall by 60 dB in the time asked and a low-pass that halves the time of the highs (J.-M. Jot, 1991).
 */
final class ReverbEffect {
    private static final int LINES = 8;

    /** Lengths for the largest room [s], no two with a common measure. */
    private static final double[] LENGTHS = {0.0311, 0.0397, 0.0457, 0.0533, 0.0617, 0.0701, 0.0797, 0.0899};

    private final double fs;
    private final Line[] lines = new Line[LINES];
    private final Line before;
    private final int[] length = new int[LINES];
    private final double[] gain = new double[LINES];
    private final double[] damp = new double[LINES];
    private final double[] low = new double[LINES];
    private final double[] out = new double[LINES];
    private int preDelay = 1;
    private double mix;
    private double cutPole;
    private double cut;
    private Reverb seen;

    ReverbEffect(double fs) {
        this.fs = fs;
        for (int i = 0; i < LINES; i++) {
            lines[i] = new Line((int) (LENGTHS[i] * 1.05 * fs) + 4);
        }
        before = new Line((int) (0.21 * fs));
    }

    void step(Reverb r) {
        if (r == seen) {
            return;
        }
        seen = r;
        mix = r.mix();
        preDelay = Math.max(1, (int) (r.preDelayMs() / 1000 * fs));
        cutPole = Math.exp(-2 * Math.PI * r.lowCutHz() / fs);
        double scale = 0.12 + 0.88 * r.size();
        for (int i = 0; i < LINES; i++) {
            length[i] = Math.max(8, (int) (LENGTHS[i] * scale * fs));
            double trips = length[i] / fs;
            gain[i] = Math.exp(-Math.log(1000) * trips / r.t60Seconds());
            // one pole whose gain at the damping frequency is that of half the time
            double half = Math.exp(-Math.log(1000) * trips / r.t60Seconds());
            double c = Math.cos(2 * Math.PI * Math.min(r.dampingHz(), 0.45 * fs) / fs);
            double h = half * half;
            double b = (1 - h * c) / (1 - h + 1e-12);
            damp[i] = Math.max(0, Math.min(0.98, b - Math.sqrt(Math.max(0, b * b - 1))));
        }
    }

    void clear() {
        for (Line l : lines) {
            l.clear();
        }
        before.clear();
        java.util.Arrays.fill(low, 0);
        cut = 0;
    }

    void process(double[] l, double[] r, int n) {
        for (int i = 0; i < n; i++) {
            before.put(0.5 * (l[i] + r[i]));
            double x = before.get(preDelay);
            cut += (1 - cutPole) * (x - cut);
            cut = Math.abs(cut) < 1e-20 ? 0 : cut;
            x -= cut;
            for (int k = 0; k < LINES; k++) {
                double v = lines[k].get(length[k]);
                low[k] = v * (1 - damp[k]) + damp[k] * low[k];
                low[k] = Math.abs(low[k]) < 1e-20 ? 0 : low[k];
                out[k] = low[k] * gain[k];
            }
            double a = out[0] - out[2] + out[4] - out[6];
            double b = out[1] - out[3] + out[5] - out[7];
            hadamard();
            for (int k = 0; k < LINES; k++) {
                lines[k].put(x + out[k]);
            }
            l[i] += mix * a;
            r[i] += mix * b;
        }
    }

    /** Sums and differences, three times over, scaled so that no energy comes or goes. */
    private void hadamard() {
        for (int half = 1; half < LINES; half *= 2) {
            for (int k = 0; k < LINES; k += 2 * half) {
                for (int j = k; j < k + half; j++) {
                    double s = out[j] + out[j + half];
                    out[j + half] = out[j] - out[j + half];
                    out[j] = s;
                }
            }
        }
        double scale = 1 / Math.sqrt(LINES);
        for (int k = 0; k < LINES; k++) {
            out[k] *= scale;
        }
    }
}
