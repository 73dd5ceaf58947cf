package nightreed.voice.formant;

import nightreed.recipe.FormantBand;
import nightreed.recipe.FormantRecipe;
import nightreed.recipe.FormantRecipe.Bank;

/** What a bank does to a spectrum, and which notes it favours. */
public final class BankResponse {
    private final double fs;
    private final FormantRecipe recipe;
    private final double factor;

    /** @param sampleRateHz rate of the sound */
    public BankResponse(FormantRecipe recipe, double sampleRateHz) {
        this.recipe = recipe;
        this.fs = sampleRateHz;
        this.factor = Math.pow(2, recipe.shiftCents() / 1200);
    }

    /** Edge of bands side by side: 0 lies under the lowest, their number over the highest; no shift [Hz]. */
    static double edgeHz(FormantRecipe r, int i) {
        int n = r.bands().size();
        if (i > 0 && i < n) {
            return Math.sqrt(r.bands().get(i - 1).centreHz() * r.bands().get(i).centreHz());
        }
        FormantBand end = r.bands().get(i == 0 ? 0 : n - 1);
        double half = n == 1
                ? (Math.sqrt(end.widthHz() * end.widthHz() + 4 * end.centreHz() * end.centreHz()) + end.widthHz())
                        / 2
                        / end.centreHz()
                : i == 0
                        ? Math.sqrt(r.bands().get(1).centreHz() / end.centreHz())
                        : Math.sqrt(end.centreHz() / r.bands().get(n - 2).centreHz());
        return i == 0 ? end.centreHz() / half : end.centreHz() * half;
    }

    /** Gain of the whole bank at a frequency, courses at their top, one source for all bands [dB]. */
    public double db(double hz) {
        double[] sum = {0, 0};
        int n = recipe.bands().size();
        if (recipe.bank() == Bank.FORMANTS) {
            for (int i = 0; i < n; i++) {
                double[] h = resonance(recipe.bands().get(i), hz);
                double g = gain(i);
                sum[0] += g * h[0];
                sum[1] += g * h[1];
            }
            return 10 * Math.log10(sum[0] * sum[0] + sum[1] * sum[1] + 1e-20);
        }
        double[] above = high(edgeHz(recipe, 0) * factor, hz);
        for (int i = 0; i < n; i++) {
            double[] low = times(above, low(edgeHz(recipe, i + 1) * factor, hz));
            if (i > 0) {
                sum = times(sum, allPass(edgeHz(recipe, i + 1) * factor, hz));
            }
            double g = gain(i);
            sum[0] += g * low[0];
            sum[1] += g * low[1];
            above = times(above, high(edgeHz(recipe, i + 1) * factor, hz));
        }
        return 10 * Math.log10(sum[0] * sum[0] + sum[1] * sum[1] + 1e-20);
    }

    /** @param i from 0 */
    private double gain(int i) {
        FormantBand b = recipe.bands().get(i);
        double split = i % 2 == 1 ? recipe.evenDb() : 0;
        if (i % 2 == 1 && split <= FormantRecipe.OFF_DB) {
            return 0;
        }
        double tilt = recipe.tiltDbPerOctave() * Math.log(b.centreHz() / 1000) / Math.log(2);
        return b.levelDb() <= FormantRecipe.OFF_DB ? 0 : Math.pow(10, (b.levelDb() + tilt + split) / 20);
    }

    /** Frequency as the bilinear transform sees it, over that of the edge. */
    private double warped(double edge, double hz) {
        return Math.tan(Math.PI * Math.min(hz, 0.4999 * fs) / fs)
                / Math.tan(Math.PI * Math.max(5, Math.min(edge, 0.47 * fs)) / fs);
    }

    /** 1/B(jx)², B the third-order Butterworth polynomial (1 + s)(1 + s + s²). */
    private double[] low(double edge, double hz) {
        double[] b = butterworth(warped(edge, hz));
        return over(new double[] {1, 0}, times(b, b));
    }

    /** -(jx)⁶/B(jx)². */
    private double[] high(double edge, double hz) {
        double x = warped(edge, hz);
        double[] b = butterworth(x);
        return over(new double[] {Math.pow(x, 6), 0}, times(b, b));
    }

    private double[] allPass(double edge, double hz) {
        double[] b = butterworth(warped(edge, hz));
        return over(new double[] {b[0], -b[1]}, b);
    }

    private static double[] butterworth(double x) {
        return times(new double[] {1, x}, new double[] {1 - x * x, x});
    }

    private double[] resonance(FormantBand b, double hz) {
        // the digital section's own response, so that the picture and the sound agree up to the top of the band
        double w0 = 2 * Math.PI * Math.min(b.centreHz() * factor, 0.49 * fs) / fs;
        double w = 2 * Math.PI * hz / fs;
        double alpha = Math.tan(Math.PI * Math.min(b.widthHz() * factor / recipe.qFactor(), 0.45 * fs) / fs);
        // H = jα sin w / (cos w0 - cos w ... ) on the unit circle: jα sin w / (cos w - cos w0 + jα sin w)
        double d = Math.cos(w) - Math.cos(w0);
        double s = alpha * Math.sin(w);
        return over(new double[] {0, s}, new double[] {d, s});
    }

    private static double[] times(double[] a, double[] b) {
        return new double[] {a[0] * b[0] - a[1] * b[1], a[0] * b[1] + a[1] * b[0]};
    }

    private static double[] over(double[] a, double[] b) {
        double q = b[0] * b[0] + b[1] * b[1] + 1e-300;
        return new double[] {(a[0] * b[0] + a[1] * b[1]) / q, (a[1] * b[0] - a[0] * b[1]) / q};
    }

    /**
     * How the bank favours the notes of an octave: summed power of the harmonics of each, 1/n for harmonic n, against the
     * mean of the twelve.
     *
     * @param lowestKey first of twelve keys
     * @return twelve values [dB]
     */
    public double[] bias(int lowestKey) {
        double[] out = new double[12];
        double mean = 0;
        for (int k = 0; k < 12; k++) {
            double f = 440 * Math.pow(2, (lowestKey + k - 69) / 12.0);
            double power = 0;
            for (int n = 1; n * f < 0.45 * fs && n < 200; n++) {
                power += Math.pow(10, db(n * f) / 10) / ((double) n * n);
            }
            out[k] = 10 * Math.log10(power + 1e-20);
            mean += out[k] / 12;
        }
        for (int k = 0; k < 12; k++) {
            out[k] -= mean;
        }
        return out;
    }
}
