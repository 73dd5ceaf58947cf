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

    private static final int ROUNDS = 24;

    /** A stretch in which so many times the power of the background is heard [s]. */
    private static final double HEARD_SECONDS = 0.004;

    private static final double HEARD_TIMES = 4;

    /** Share of the power of what is held that is not heard before it. */
    private static final double SOFTEST = 1e-5;

    private final double[] y;
    private final double[][] waves; // each harmonic as if it had always been held
    private final double[] all; // their sum
    private final double[] before; // energy of y up to a sample, which no ramp that starts there explains
    private final double[] after; // energy from a sample on that all harmonics at their full level leave over

    private RampFit(double[] y, double[][] waves) {
        int n = y.length;
        this.y = y;
        this.waves = waves;
        this.all = new double[n];
        this.before = new double[n + 1];
        this.after = new double[n + 1];
        for (double[] wave : waves) {
            for (int i = 0; i < n; i++) {
                all[i] += wave[i];
            }
        }
        for (int i = 0; i < n; i++) {
            before[i + 1] = before[i] + y[i] * y[i];
        }
        for (int i = n - 1; i >= 0; i--) {
            after[i] = after[i + 1] + (y[i] - all[i]) * (y[i] - all[i]);
        }
    }

    /**
     * @param rough    sample that first leaves the background
     * @param variance of the background per sample
     * @return onset [s]; where the ramp tells nothing, that of the sample {@code rough}
     */
    static double onset(double[] x, double fs, int rough, double variance, HeldSpan span, Harmonics h, double f0) {
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
        RampFit fit = new RampFit(y, waves);
        double[] ramp = fit.best(rough - from, fs);
        double start = fit.unlessHeard(ramp, rough - from, variance, fs);
        return (from + fit.fromWhereHeard(start, rough - from, Math.max(variance, SOFTEST * span.loudest()), fs)) / fs;
    }

    /**
     * Start of a ramp [samples], moved earlier over what is heard all through up to there, but not before the background was
     * left: a note may come in softly, and then swell by the ramp that was found.
     *
     * @param least power that is not heard
     */
    private double fromWhereHeard(double start, int rough, double least, double fs) {
        int window = (int) (2 * HEARD_SECONDS * fs);
        int at = inside(start);
        while (at - window > rough && before[at] - before[at - window] > HEARD_TIMES * window * least) {
            at -= window / 2;
        }
        boolean moved = at < inside(start);
        return !moved ? start : at - window <= rough ? rough : at;
    }

    /**
     * Start of a ramp [samples], moved later where the ramp would have left the background before it was left: then the note
     * swells otherwise than the ramp does, which has only found its middle.
     */
    private double unlessHeard(double[] ramp, int rough, double variance, double fs) {
        int window = (int) (HEARD_SECONDS * fs);
        int first = inside(ramp[0]);
        double[] model = new double[Math.max(0, rough - first)];
        rise(all, first, ramp[0], ramp[1], model);
        double sum = 0;
        for (int i = 0; i < model.length; i++) {
            sum += model[i] * model[i];
            sum -= i >= window ? model[i - window] * model[i - window] : 0;
            if (sum > HEARD_TIMES * window * variance) {
                return ramp[0] + model.length - i;
            }
        }
        return ramp[0];
    }

    /** Start of the ramp, its length, and by how much later each next harmonic starts [samples], looked for around a sample. */
    private double[] best(int rough, double fs) {
        double[] best = {rough, 0.03 * fs, 0};
        double least = cost(best);
        for (double ramp : new double[] {0.005, 0.015, 0.03, 0.06, 0.1}) {
            for (double at = -0.05; at <= 0.05; at += 0.005) {
                double[] p = {rough + at * fs, ramp * fs, 0};
                double c = p[0] < 0 ? Double.POSITIVE_INFINITY : cost(p);
                if (c < least) {
                    least = c;
                    best = p;
                }
            }
        }
        double[] step = {0.004 * fs, 0.006 * fs, 0.0006 * fs};
        for (int round = 0; round < ROUNDS; round++) {
            boolean better = false;
            for (int k = 0; k < 3; k++) {
                for (int sign = -1; sign <= 1; sign += 2) {
                    double[] p = best.clone();
                    p[k] += sign * step[k];
                    if (k == 1) {
                        p[0] -= sign * step[k] / 2; // a longer ramp about the same middle
                    }
                    if (p[0] >= 0 && p[1] > 0 && p[2] >= 0 && p[0] < y.length) {
                        double c = cost(p);
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
        return best;
    }

    /** @param p start, length of the ramp, and by how much later each next harmonic starts [samples] */
    private double cost(double[] p) {
        int first = inside(p[0]);
        int full = Math.max(first, inside(p[0] + (waves.length - 1) * p[2] + p[1]));
        double[] model = new double[full - first];
        if (p[2] == 0) {
            rise(all, first, p[0], p[1], model);
        } else {
            for (int k = 0; k < waves.length; k++) {
                rise(waves[k], first, p[0] + k * p[2], p[1], model);
            }
        }
        double sum = before[first] + after[full];
        for (int i = first; i < full; i++) {
            double e = y[i] - model[i - first];
            sum += e * e;
        }
        return sum;
    }

    /** Adds a wave under a raised cosine that rises from {@code start} over {@code ramp} samples to a model that begins at a sample. */
    private void rise(double[] wave, int from, double start, double ramp, double[] model) {
        int first = Math.max(from, inside(start));
        int full = Math.min(from + model.length, Math.max(first, inside(start + ramp)));
        double w = Math.PI / ramp;
        double c = Math.cos(w * (first - start));
        double s = Math.sin(w * (first - start));
        double cw = Math.cos(w);
        double sw = Math.sin(w);
        for (int i = first; i < full; i++) { // by rotation
            model[i - from] += (0.5 - 0.5 * c) * wave[i];
            double t = c * cw - s * sw;
            s = c * sw + s * cw;
            c = t;
        }
        for (int i = full; i < from + model.length; i++) {
            model[i - from] += wave[i];
        }
    }

    /** The first sample from a time [samples] on, within those there are. */
    private int inside(double at) {
        return (int) Math.max(0, Math.min(y.length, Math.ceil(at)));
    }
}
