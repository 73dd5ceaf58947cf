package nightreed.dsp;

import java.util.Arrays;

/**
 * Roughness of steady lines, in asper: that of a tone of 1 kHz whose level swings fully at 70 Hz is 1. In channels half a critical
 * band apart the envelope of what the lines excite is weighted for how fast it swings, and its depth for where it lies, after the
 * outline of P. Daniel and R. Weber (Acustica 83, 1997). Unlike there, channels are not correlated with each other, each counts by
 * its level, and slopes do not depend on level. The constants that are marked as chosen were set so that roughness grows about
 * with the 1.6th power of the depth, as H. Fastl and E. Zwicker have it ("Psychoacoustics", 2007). Good for telling which of two
 * sounds is rougher; tones over 2 kHz read low.
 */
public final class Roughness {
    private static final int CHANNELS = 47;

    /** One period of the envelope that is looked at [s]; swings slower than 2 Hz are not rough. */
    private static final double SECONDS = 0.5;

    private static final int POINTS = 512;
    /** By which the depth of a channel counts; chosen. */
    private static final double EXPONENT = 2;

    /** Upper and lower slope of what a line excites beyond its own critical band [dB per Bark]; the upper one is chosen. */
    private static final double UPPER = 24;

    private static final double LOWER = 27;

    /** Weight of a modulation by its channel: Daniel and Weber's table [Bark], [1]. */
    private static final double[] AT = {0, 1, 2.5, 4.9, 6.5, 8, 9, 10, 11, 11.5, 13, 15, 17.5, 24};

    private static final double[] WEIGHT = {0, 0.35, 0.7, 0.7, 1.1, 1.25, 1.26, 1.18, 1.08, 1, 0.66, 0.46, 0.38, 0.3};

    private static final RealFft FFT = new RealFft(POINTS);

    /** What the sum comes to for the tone that is 1 asper by definition. */
    private static final double UNIT = sum(new double[] {930, 1000, 1070}, new double[] {0.5, 1, 0.5});

    private Roughness() {}

    /**
     * @param hz        frequencies of the lines, above 0
     * @param amplitude as many, 0 or more; only their relation matters
     * @return roughness [asper]; 0 for silence
     */
    public static double asper(double[] hz, double[] amplitude) {
        double most = Arrays.stream(amplitude).max().orElse(0);
        return most <= 0 ? 0 : sum(hz, amplitude) / UNIT;
    }

    private static double sum(double[] hz, double[] amplitude) {
        int n = hz.length;
        double[] bark = new double[n];
        for (int i = 0; i < n; i++) {
            bark[i] = bark(hz[i]);
        }
        double loudest = Arrays.stream(amplitude).max().orElse(1);
        double sum = 0;
        double[] re = new double[POINTS];
        double[] im = new double[POINTS];
        for (int c = 1; c <= CHANNELS; c++) {
            double z = 0.5 * c;
            Arrays.fill(re, 0);
            Arrays.fill(im, 0);
            double strongest = 0;
            for (int i = 0; i < n; i++) {
                double away = Math.abs(z - bark[i]) - 0.5; // within its own critical band a line is not weakened
                double db = away <= 0 ? 0 : z > bark[i] ? -UPPER * away : -LOWER * away;
                double a = amplitude[i] * Math.pow(10, db / 20);
                strongest = Math.max(strongest, a);
                if (a > 1e-4 * loudest) {
                    add(re, im, hz[i], a);
                }
            }
            if (strongest > 1e-3 * loudest) {
                sum += strongest / loudest * weight(z) * Math.pow(depth(re, im, z), EXPONENT);
            }
        }
        return sum;
    }

    private static void add(double[] re, double[] im, double hz, double a) {
        double step = 2 * Math.PI * hz * SECONDS / POINTS;
        double c = Math.cos(step);
        double s = Math.sin(step);
        double x = a;
        double y = 0;
        for (int k = 0; k < POINTS; k++) {
            re[k] += x;
            im[k] += y;
            double next = x * c - y * s;
            y = x * s + y * c;
            x = next;
        }
    }

    /** Depth of the envelope's swings, each weighted for its rate: 1 at most. */
    private static double depth(double[] re, double[] im, double z) {
        double[] envelope = new double[POINTS];
        double mean = 0;
        for (int k = 0; k < POINTS; k++) {
            envelope[k] = Math.sqrt(re[k] * re[k] + im[k] * im[k]);
            mean += envelope[k] / POINTS;
        }
        double[] spectrum = RealFft.power(FFT.forward(envelope));
        double power = 0;
        for (int b = 1; b < spectrum.length; b++) {
            double m = 2 * Math.sqrt(spectrum[b]) / POINTS * ofRate(b / SECONDS, z);
            power += m * m / 2;
        }
        return Math.min(1, Math.sqrt(power) / Math.max(1e-12, mean));
    }

    /** Weight of a swing by its rate: most at 70 Hz from 1 kHz on, slower where critical bands are narrow. */
    private static double ofRate(double hz, double z) {
        double best = Math.min(70, 24 + 5.6 * z);
        double r = hz / best;
        return r * r * Math.exp(1 - r * r) + Math.max(0, r - 1) * 0.35 * Math.exp(-0.9 * (r - 1)) * Math.min(1, r);
    }

    private static double weight(double z) {
        for (int i = 1; i < AT.length; i++) {
            if (z <= AT[i]) {
                double share = (z - AT[i - 1]) / (AT[i] - AT[i - 1]);
                return WEIGHT[i - 1] + share * (WEIGHT[i] - WEIGHT[i - 1]);
            }
        }
        return WEIGHT[WEIGHT.length - 1];
    }

    /** Critical-band rate (E. Zwicker, E. Terhardt, 1980). */
    private static double bark(double hz) {
        return 13 * Math.atan(0.00076 * hz) + 3.5 * Math.atan(Math.pow(hz / 7500, 2));
    }
}
