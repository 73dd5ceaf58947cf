package nightreed.dsp;

/**
 * Coefficients of a second-order section, y[n] = b0 x[n] + b1 x[n-1] + b2 x[n-2] - a1 y[n-1] - a2 y[n-2].
 * Designs by the bilinear transform with the cutoff prewarped (R. Bristow-Johnson's audio formulas, 1994).
 */
public record Biquad(double b0, double b1, double b2, double a1, double a2) {
    /** Butterworth Q of a second-order section: flat pass band, -3 dB at the cutoff. */
    public static final double BUTTERWORTH_Q = Math.sqrt(0.5);

    /** Low-pass of 12 dB per octave. @param cutoffHz above 0; held below 0.49 of the sample rate */
    public static Biquad lowPass(double cutoffHz, double q, double sampleRateHz) {
        double w = warp(cutoffHz, sampleRateHz);
        double alpha = Math.sin(w) / (2 * q);
        double c = Math.cos(w);
        return normalised((1 - c) / 2, 1 - c, (1 - c) / 2, 1 + alpha, -2 * c, 1 - alpha);
    }

    /** High-pass of 12 dB per octave. @param cutoffHz above 0; held below 0.49 of the sample rate */
    public static Biquad highPass(double cutoffHz, double q, double sampleRateHz) {
        double w = warp(cutoffHz, sampleRateHz);
        double alpha = Math.sin(w) / (2 * q);
        double c = Math.cos(w);
        return normalised((1 + c) / 2, -(1 + c), (1 + c) / 2, 1 + alpha, -2 * c, 1 - alpha);
    }

    private static double warp(double cutoffHz, double sampleRateHz) {
        return 2 * Math.PI * Math.min(Math.max(cutoffHz, 1e-3), 0.49 * sampleRateHz) / sampleRateHz;
    }

    private static Biquad normalised(double b0, double b1, double b2, double a0, double a1, double a2) {
        return new Biquad(b0 / a0, b1 / a0, b2 / a0, a1 / a0, a2 / a0);
    }

    /** |H|² at a frequency [Hz]. */
    public double powerGain(double frequencyHz, double sampleRateHz) {
        double w = 2 * Math.PI * frequencyHz / sampleRateHz;
        double c1 = Math.cos(w);
        double s1 = Math.sin(w);
        double c2 = Math.cos(2 * w);
        double s2 = Math.sin(2 * w);
        double nr = b0 + b1 * c1 + b2 * c2;
        double ni = b1 * s1 + b2 * s2;
        double dr = 1 + a1 * c1 + a2 * c2;
        double di = a1 * s1 + a2 * s2;
        return (nr * nr + ni * ni) / (dr * dr + di * di);
    }
}
