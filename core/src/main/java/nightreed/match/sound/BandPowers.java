package nightreed.match.sound;

import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import nightreed.dsp.RealFft;
import nightreed.dsp.Windows;
import nightreed.sound.Clip;

/**
 * Power of a sound near any frequency soon after its onset, whether or not a partial was found there: what one side has and
 * the measurement of the other does not list may yet sound there. Reads the clip when it is first asked.
 */
public final class BandPowers {
    private static final double LONG = 0.17;
    private static final double SHORT = 0.045;

    /** Where a path is looked at, in windows. */
    private static final double[] PLACES = {0, 0.5, 1, 2, 3.5, 6, 10, 16, 25};

    private final Clip clip;
    private final int onset;
    private final Map<Long, double[]> note =
            new ConcurrentHashMap<>(); // power per bin by place and length of the window
    private final Map<Integer, double[]> before = new ConcurrentHashMap<>();

    public BandPowers(Clip clip, int onset) {
        this.clip = clip;
        this.onset = onset;
    }

    /**
     * Mean power within a few Hz of a frequency, the background taken off.
     *
     * @param t60 of what is looked for, which chooses the window; null for long
     */
    public double power(double hz, Double t60) {
        int n = window(t60);
        return Math.max(0, near(note(n), hz, n) - near(before(n), hz, n));
    }

    /**
     * Mean power within a few Hz of a frequency in windows from the onset on, each later than the one before by more.
     *
     * @param t60 as in {@link #power}
     * @return as many as fit in the sound, the first at the onset
     */
    public double[] path(double hz, Double t60) {
        int n = window(t60);
        double noise = near(before(n), hz, n);
        double[] out = new double[PLACES.length];
        int found = 0;
        for (double place : PLACES) {
            int later = (int) (place * n);
            if (found > 0 && onset + later + n > clip.length()) {
                break;
            }
            out[found++] = Math.max(0, near(note(n, later), hz, n) - noise);
        }
        return java.util.Arrays.copyOf(out, found);
    }

    /** Power near a frequency under which nothing can be said, from the unrest of the background. */
    public double doubt(double hz, Double t60) {
        int n = window(t60);
        return near(before(n), hz, n) + 1e-14;
    }

    /** Where the power near a frequency has its middle, as a share of that frequency; 0 if there is none. */
    public double offset(double hz, Double t60) {
        int n = window(t60);
        double[] p = note(n);
        double[] b = before(n);
        double bin = (double) clip.sampleRateHz() / n;
        double sum = 0;
        double moment = 0;
        for (int k = low(hz, bin); k <= high(hz, bin, p.length); k++) {
            double clean = Math.max(0, p[k] - b[k]);
            sum += clean;
            moment += clean * (k * bin - hz);
        }
        return sum > 0 ? moment / sum / hz : 0;
    }

    private int window(Double t60) {
        double seconds = t60 == null || t60 > 0.25 ? LONG : SHORT;
        return RealFft.powerOfTwoFrom((int) (seconds * clip.sampleRateHz()));
    }

    private double near(double[] power, double hz, int n) {
        double bin = (double) clip.sampleRateHz() / n;
        double sum = 0;
        for (int k = low(hz, bin); k <= high(hz, bin, power.length); k++) {
            sum += power[k];
        }
        return sum;
    }

    private static double width(double hz, double bin) {
        return Math.max(2.2 * bin, 0.01 * hz);
    }

    private static int low(double hz, double bin) {
        return (int) Math.max(1, Math.ceil((hz - width(hz, bin)) / bin));
    }

    private static int high(double hz, double bin, int bins) {
        return (int) Math.min(bins - 1.0, Math.floor((hz + width(hz, bin)) / bin));
    }

    private double[] note(int n) {
        return note(n, 0);
    }

    /** Of a window that begins so many samples after the onset. */
    private double[] note(int n, int later) {
        int at = onset + later;
        return note.computeIfAbsent(
                ((long) later << 32) + n,
                k -> at >= clip.length()
                        ? new double[n / 2 + 1]
                        : spectrum(clip.span(at, Math.min(clip.length(), at + n)), n));
    }

    /** Of the background: all there is before the onset, in windows as long. */
    private double[] before(int n) {
        return before.computeIfAbsent(n, k -> {
            double[] sum = new double[n / 2 + 1];
            int end = onset - (int) (0.003 * clip.sampleRateHz());
            int count = 0;
            for (int at = 0; at + n <= end; at += n) {
                double[] p = spectrum(clip.span(at, at + n), n);
                count++;
                for (int b = 0; b < sum.length; b++) {
                    sum[b] += p[b];
                }
            }
            for (int b = 0; b < sum.length; b++) {
                sum[b] /= Math.max(1, count);
            }
            return sum;
        });
    }

    private static double[] spectrum(Clip part, int n) {
        double[] x = java.util.Arrays.copyOf(part.mixed(), n);
        for (int i = 0; i < n; i++) {
            x[i] *= Windows.hann(i, n);
        }
        double[] p = RealFft.power(new RealFft(n).forward(x));
        for (int k = 0; k < p.length; k++) {
            p[k] *= 2 / (0.375 * n * (double) n);
        }
        return p;
    }
}
