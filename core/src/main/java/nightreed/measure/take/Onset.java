package nightreed.measure.take;

import java.util.Arrays;

/**
 * Where a note begins: a change of variance, found by likelihood.
 *
 * <p>Samples before the onset are background noise of known variance, samples after it something louder. Both are looked
 * at through a linear predictor of the background (J. Makhoul, "Linear prediction", Proc. IEEE 63(4), 1975), so that the
 * change shows in coloured noise as early as in white. The split that makes the samples most likely is the onset
 * (M. Basseville, I. Nikiforov, "Detection of Abrupt Changes", 1993, section 2.6).
 *
 * @param sample    first sample of the note
 * @param hasLeadIn whether enough background precedes it to tell the noise by
 */
public record Onset(int sample, boolean hasLeadIn) {
    private static final int ORDER = 24;

    /** Shortest stretch that the background can be told by [s]. */
    private static final double LEAD_IN = 0.03;

    /** How long before the strike something else may sound [ms]. */
    private static final int BEFORE_STRIKE_MS = 45;

    /** Jump of the power by which a strike is told from a note that swells: 18 dB. */
    private static final double STRIKE_JUMP = 63;

    /** @param x mono samples, not all of one value */
    public static Onset find(double[] x, double sampleRateHz) {
        int lead = (int) (LEAD_IN * sampleRateHz);
        double[] loud = frameEnergy(x, lead);
        double loudest = Arrays.stream(loud).max().orElse(0);
        // a clip that is as loud at its start as anywhere was cut at the onset
        if (loud.length < 3 || loud[0] > 0.03 * loudest) {
            return new Onset(firstAudible(x), false);
        }
        int rough = rough(x, lead, sampleRateHz);
        if (rough <= lead) {
            return new Onset(firstAudible(x), false);
        }
        int noiseTo = Math.max(lead, rough - lead / 10);
        int from = Math.max(ORDER, rough - lead);
        int to = Math.min(x.length, rough + lead);
        double[] e = predictionError(x, 0, noiseTo, from, to);
        double variance = 1e-30;
        int known = Math.max(1, noiseTo - from);
        for (int i = 0; i < known && i < e.length; i++) {
            variance += e[i] * e[i] / known;
        }
        return new Onset(from + split(e, variance, (int) (0.0003 * sampleRateHz) + 4), true);
    }

    /**
     * The strike that follows something weak, such as the smear of lossy coding, a breath or a stick: where the power jumps,
     * within two milliseconds, far over all that was since the onset.
     *
     * @return its onset, or this one if it is the strike itself
     */
    public Onset strike(double[] x, double fs) {
        int frame = (int) (0.001 * fs);
        double before = 0;
        for (int f = 0; f < BEFORE_STRIKE_MS && sample + (f + 3) * frame < x.length; f++) {
            double now = power(x, sample + (f + 1) * frame, sample + (f + 2) * frame);
            double next = power(x, sample + (f + 2) * frame, sample + (f + 3) * frame);
            before = Math.max(before, power(x, sample + Math.max(0, f - 1) * frame, sample + f * frame));
            if (f >= 5 && Math.min(now, next) > STRIKE_JUMP * before) {
                int from = sample + (f - 2) * frame;
                double quiet = power(x, sample + Math.max(0, f - 6) * frame, from);
                for (int i = from; i < from + 4 * frame; i++) {
                    if (x[i] * x[i] > 25 * quiet) {
                        return new Onset(i, hasLeadIn);
                    }
                }
            }
        }
        return this;
    }

    private static double power(double[] x, int from, int to) {
        double sum = 1e-16;
        for (int i = from; i < to; i++) {
            sum += x[i] * x[i] / Math.max(1, to - from);
        }
        return sum;
    }

    private static double[] frameEnergy(double[] x, int frame) {
        double[] e = new double[Math.max(1, x.length / frame)];
        for (int f = 0; f < e.length; f++) {
            for (int i = f * frame; i < Math.min(x.length, (f + 1) * frame); i++) {
                e[f] += x[i] * x[i] / frame;
            }
        }
        return e;
    }

    /** First sample of the 2 ms from which on the background is left behind for good; 0 if there is none. */
    private static int rough(double[] x, int lead, double sampleRateHz) {
        int frame = Math.max(8, (int) (0.002 * sampleRateHz));
        int run = 4;
        double[] energy = frameEnergy(predictionError(x, 0, lead, 0, x.length), frame);
        double peak = Arrays.stream(energy).max().orElse(0);
        double background = 0;
        for (int f = 0; f + run < energy.length; f++) {
            double next = 0;
            for (int i = f; i < f + run; i++) {
                next += energy[i] / run;
            }
            boolean known = (f + 1) * frame > lead;
            if (known && energy[f] > 2 * background && next > 4 * background && next > 1e-6 * peak) {
                return f * frame;
            }
            background += (energy[f] - background) / Math.min(f + 1, 60);
        }
        return 0;
    }

    private static int firstAudible(double[] x) {
        double peak = 0;
        for (double v : x) {
            peak = Math.max(peak, Math.abs(v));
        }
        for (int i = 0; i < x.length; i++) {
            if (Math.abs(x[i]) > 0.003 * peak) {
                return i;
            }
        }
        return 0;
    }

    /** Error of predicting x[from..to) by a linear predictor of the noise in x[noiseFrom..noiseTo). */
    private static double[] predictionError(double[] x, int noiseFrom, int noiseTo, int from, int to) {
        double[] r = new double[ORDER + 1];
        for (int lag = 0; lag <= ORDER; lag++) {
            for (int i = noiseFrom + lag; i < noiseTo; i++) {
                r[lag] += x[i] * x[i - lag];
            }
        }
        r[0] = r[0] * (1 + 1e-6) + 1e-30;
        double[] a = levinson(r);
        double[] e = new double[to - from];
        for (int i = from; i < to; i++) {
            double s = x[i];
            for (int k = 1; k <= ORDER && k <= i; k++) {
                s += a[k] * x[i - k];
            }
            e[i - from] = s;
        }
        return e;
    }

    private static double[] levinson(double[] r) {
        double[] a = new double[ORDER + 1];
        a[0] = 1;
        double error = r[0];
        for (int m = 1; m <= ORDER; m++) {
            double s = r[m];
            for (int k = 1; k < m; k++) {
                s += a[k] * r[m - k];
            }
            double reflection = -s / error;
            double[] b = a.clone();
            for (int k = 1; k < m; k++) {
                a[k] = b[k] + reflection * b[m - k];
            }
            a[m] = reflection;
            error *= 1 - reflection * reflection;
            if (!(error > 0)) {
                break;
            }
        }
        return a;
    }

    private static int split(double[] e, double variance, int window) {
        // the change is over once a short window is surely louder than the background; it began not long before
        int end = e.length - 1;
        double sum = 0;
        for (int i = 0; i < e.length; i++) {
            sum += e[i] * e[i];
            if (i >= window) {
                sum -= e[i - window] * e[i - window];
            }
            if (i >= window && sum > 12 * window * variance) {
                end = i;
                break;
            }
        }
        int first = Math.max(0, end - window * 8);
        double best = Double.NEGATIVE_INFINITY;
        int at = end;
        double after = 0;
        double before = 0;
        for (int i = first; i <= end; i++) {
            before += e[i] * e[i];
        }
        for (int t = end; t >= first; t--) {
            after += e[t] * e[t];
            before -= e[t] * e[t];
            int n = end - t + 1;
            if (n >= 4) {
                double louder = Math.max(after / n, variance * 1.5);
                double likelihood =
                        -0.5 * n * Math.log(louder / variance) - 0.5 * after / louder - 0.5 * before / variance;
                if (likelihood > best) {
                    best = likelihood;
                    at = t;
                }
            }
        }
        return at;
    }
}
