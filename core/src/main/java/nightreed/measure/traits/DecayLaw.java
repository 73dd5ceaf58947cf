package nightreed.measure.traits;

import nightreed.dsp.LineFit;

/**
 * How decay follows frequency: T60 = {@code t60At1kHz} · (f / 1 kHz)^-{@code exponent}.
 *
 * @param t60At1kHz  T60 that the law gives at 1 kHz [s]
 * @param exponent   0 if all partials die alike, 1 if twice the frequency dies in half the time
 * @param exponentSe its standard error
 * @param spread     by what factor partials typically stray from the law, 1 if none does
 */
public record DecayLaw(double t60At1kHz, double exponent, double exponentSe, double spread) {
    private static final int LEAST_PARTIALS = 4;
    private static final double LEAST_OCTAVES = 1;

    /** Even well-measured partials stray from a power law by so much [ln]. */
    private static final double SCATTER = 0.05;

    /** T60 that the law gives at a frequency [Hz] [s]. */
    public double t60At(double hz) {
        return t60At1kHz * Math.pow(hz / 1000, -exponent);
    }

    /**
     * Weighted least squares on the logarithms, strays counting less (P. Huber, 1964).
     *
     * @param hz    frequencies [Hz]
     * @param t60   their T60 [s]
     * @param share standard error over T60 of each
     * @return null with fewer than four partials or less than an octave between them
     */
    public static DecayLaw fit(double[] hz, double[] t60, double[] share) {
        int n = hz.length;
        double low = Double.POSITIVE_INFINITY;
        double high = 0;
        for (double f : hz) {
            low = Math.min(low, f);
            high = Math.max(high, f);
        }
        if (n < LEAST_PARTIALS || Math.log(high / low) < LEAST_OCTAVES * Math.log(2)) {
            return null;
        }
        double[] robust = new double[n];
        java.util.Arrays.fill(robust, 1);
        double a = 0;
        double b = 0;
        double se = 0;
        double rms = 0;
        for (int pass = 0; pass < 8; pass++) {
            LineFit line = new LineFit();
            for (int i = 0; i < n; i++) {
                line.add(Math.log(hz[i] / 1000), Math.log(t60[i]), robust[i] * weight(share[i]));
            }
            b = line.slope();
            a = line.intercept();
            double square = 0;
            for (int i = 0; i < n; i++) {
                double e = Math.log(t60[i]) - a - b * Math.log(hz[i] / 1000);
                square += robust[i] * weight(share[i]) * e * e / line.weight();
            }
            rms = Math.sqrt(square);
            for (int i = 0; i < n; i++) {
                double e = Math.abs(Math.log(t60[i]) - a - b * Math.log(hz[i] / 1000));
                robust[i] = Math.min(1, 1.5 * Math.max(rms, SCATTER) / (e + 1e-12));
            }
            // the scatter about the line, and not the weights, says how sure it is
            se = Math.max(rms, SCATTER)
                    * Math.sqrt(line.slopeVariance() * line.weight() / n)
                    * Math.sqrt((double) n / (n - 2));
        }
        return new DecayLaw(Math.exp(a), -b, se, Math.exp(rms));
    }

    private static double weight(double share) {
        return 1 / (SCATTER * SCATTER + share * share);
    }
}
