package nightreed.measure.held;

/**
 * Where a slow note begins. In noise its first moments cannot be seen; but its waveform is known from when it is held, and so
 * is how well the recording agrees with it: the ramp under which that waveform explains the beginning best starts at the
 * onset (a matched filter with a free envelope).
 */
final class RampFit {
    private static final double BEFORE_SECONDS = 0.06;
    private static final double AFTER_SECONDS = 0.2;
    private static final int HARMONICS = 24;

    /** Samples from one that counts to the next, while the ramp is looked for and while it is drawn close. */
    private static final int COARSE = 6;

    private static final int MIDDLE = 3;
    private static final int ROUNDS = 24;

    /** Rounds at the end in which every sample counts. */
    private static final int LAST_ROUNDS = 8;

    private RampFit() {}

    /** @return onset [s]; where the ramp tells nothing, that of the sample {@code rough} */
    static double onset(double[] x, double fs, int rough, HeldSpan span, Harmonics h, double f0) {
        int from = Math.max(0, rough - (int) (BEFORE_SECONDS * fs));
        int to = Math.min(span.to(), rough + (int) (AFTER_SECONDS * fs));
        int count = Math.min(HARMONICS, h.count());
        int n = to - from;
        if (n < 0.02 * fs) {
            return rough / fs;
        }
        // the first frames of the held part, carried back at their pitch
        int frames = Math.min(h.frames() - 1, Math.max(3, (int) (0.06 * f0 / h.hop())));
        double hz = frames * h.hop() / (h.seconds(frames) - h.seconds(0));
        double[][] waves = new double[count][n];
        for (int k = 1; k <= count; k++) {
            double re = 0;
            double im = 0;
            for (int f = 0; f <= frames; f++) {
                re += h.re(k, f) / (frames + 1);
                im += h.im(k, f) / (frames + 1);
            }
            double w = 2 * Math.PI * k * hz / fs;
            double phase = -w * (h.seconds(0) * fs - from);
            double c = Math.cos(phase);
            double s = Math.sin(phase);
            double zr = re * c - im * s;
            double zi = re * s + im * c;
            double cw = Math.cos(w);
            double sw = Math.sin(w);
            for (int i = 0; i < n; i++) {
                waves[k - 1][i] = zr;
                double r = zr * cw - zi * sw;
                zi = zr * sw + zi * cw;
                zr = r;
            }
        }
        double[] y = new double[n];
        System.arraycopy(x, from, y, 0, n);
        double[] best = {rough - from, 0.03 * fs, 0};
        double least = cost(y, waves, best, COARSE);
        for (double ramp : new double[] {0.005, 0.015, 0.03, 0.06, 0.1}) {
            for (double at = -0.05; at <= 0.05; at += 0.005) {
                double[] p = {rough - from + at * fs, ramp * fs, 0};
                double c = p[0] < 0 ? Double.POSITIVE_INFINITY : cost(y, waves, p, COARSE);
                if (c < least) {
                    least = c;
                    best = p;
                }
            }
        }
        double[] step = {0.004 * fs, 0.006 * fs, 0.0006 * fs};
        for (int round = 0; round < ROUNDS; round++) {
            int stride = round < ROUNDS - LAST_ROUNDS ? MIDDLE : 1;
            if (round == 0 || round == ROUNDS - LAST_ROUNDS) {
                least = cost(y, waves, best, stride);
            }
            boolean better = false;
            for (int k = 0; k < 3; k++) {
                for (int sign = -1; sign <= 1; sign += 2) {
                    double[] p = best.clone();
                    p[k] += sign * step[k];
                    if (k == 1) {
                        p[0] -= sign * step[k] / 2; // a longer ramp about the same middle
                    }
                    if (p[0] >= 0 && p[1] > 0 && p[2] >= 0 && p[0] < n) {
                        double c = cost(y, waves, p, stride);
                        if (c < least) {
                            least = c;
                            best = p;
                            better = true;
                        }
                    }
                }
            }
            if (!better) {
                for (int k = 0; k < 3; k++) {
                    step[k] *= 0.5;
                }
            }
        }
        return (from + best[0]) / fs;
    }

    /**
     * @param p      start, length of the ramp, and by how much later each next harmonic starts [samples]
     * @param stride samples from one that counts to the next
     */
    private static double cost(double[] y, double[][] waves, double[] p, int stride) {
        double[] model = new double[y.length];
        for (int k = 0; k < waves.length; k++) {
            double start = p[0] + k * p[2];
            int first = counting(Math.max(0, Math.ceil(start)), stride);
            int full = Math.min(y.length, counting(Math.max(0, Math.ceil(start + p[1])), stride));
            // a raised cosine by rotation
            double w = Math.PI / p[1];
            double c = Math.cos(w * (first - start));
            double s = Math.sin(w * (first - start));
            double cw = Math.cos(w * stride);
            double sw = Math.sin(w * stride);
            for (int i = first; i < full; i += stride) {
                model[i] += (0.5 - 0.5 * c) * waves[k][i];
                double t = c * cw - s * sw;
                s = c * sw + s * cw;
                c = t;
            }
            for (int i = Math.max(first, full); i < y.length; i += stride) {
                model[i] += waves[k][i];
            }
        }
        double sum = 0;
        for (int i = 0; i < y.length; i += stride) {
            double e = y[i] - model[i];
            sum += e * e;
        }
        return sum;
    }

    /** The first sample from {@code at} on that counts. */
    private static int counting(double at, int stride) {
        return stride * (int) Math.ceil(at / stride);
    }
}
