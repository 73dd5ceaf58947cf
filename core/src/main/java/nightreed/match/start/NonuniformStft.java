package nightreed.match.start;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import nightreed.dsp.RealFft;
import nightreed.dsp.Windows;
import nightreed.match.sound.AnalysedSound;
import nightreed.recipe.part.Common;

/** Spectra of a note at times after its onset that lie close together at first and further apart later. Immutable. */
public final class NonuniformStft {
    private static final double WINDOW = 0.085;
    private static final double SHORT_WINDOW = 0.02;
    private static final double BEGINNING_SECONDS = 0.06;
    private static final double MOST_SECONDS = 8;
    private static final int MOST_FRAMES = 21;

    /** Time after the key was let go that is looked at [s]. */
    private static final double RELEASED_SECONDS = 0.6;

    /** Power under the strongest bin of all frames that is looked at. */
    private static final double LEAST = 1e-6;

    /** What lies lower is not heard: what a wave is off zero on average, and its skirts [Hz]. */
    public static final double LOWEST_HZ = 26;

    /** Power of a frame under the loudest at which it counts no more [dB]. */
    private static final double RANGE_DB = 45;

    private final double binHz;
    private final double[] seconds;
    private final double[][] power;
    private final double[] weight;
    private final double keySeconds;

    private NonuniformStft(double binHz, double[] seconds, double[][] power, double keySeconds) {
        this.keySeconds = keySeconds;
        this.binHz = binHz;
        this.seconds = seconds;
        this.power = power;
        this.weight = new double[seconds.length];
        double[] loud = new double[seconds.length];
        double most = 1e-20;
        for (int f = 0; f < loud.length; f++) {
            for (double p : power[f]) {
                loud[f] += p;
            }
            most = Math.max(most, loud[f]);
        }
        for (int f = 0; f < loud.length; f++) {
            weight[f] = Math.max(0, 1 + 10 * Math.log10(loud[f] / most + 1e-12) / RANGE_DB);
        }
    }

    /** Of a sound as it is, while its key is held. */
    public static NonuniformStft of(AnalysedSound side) {
        return of(side, Common.NONE, false);
    }

    /**
     * @param movement that is taken off
     * @param released whether what sounds after the key was let go is looked at too
     */
    public static NonuniformStft of(AnalysedSound side, Common movement, boolean released) {
        double fs = side.measurement().sampleRateHz();
        int n = RealFft.powerOfTwoFrom((int) (WINDOW * fs));
        double window = n / fs;
        double end = seconds(side);
        List<Double> at = new ArrayList<>(List.of(0.0));
        for (double t = 0.02; t + window <= end && at.size() < MOST_FRAMES; t += Math.max(0.02, 0.35 * t)) {
            at.add(t);
        }
        double key = side.keySeconds();
        double after = after(side);
        for (double t = key; released && t + window < after && t < key + RELEASED_SECONDS; ) {
            at.add(Math.max(0, t - 0.5 * window));
            t += Math.max(0.02, 0.35 * (t - key));
        }
        return of(side, movement, n, at);
    }

    /** Short spectra of how a sound begins, close together. */
    public static NonuniformStft ofBeginning(AnalysedSound side) {
        double fs = side.measurement().sampleRateHz();
        int n = RealFft.powerOfTwoFrom((int) (SHORT_WINDOW * fs));
        double end = Math.min(BEGINNING_SECONDS, seconds(side) - n / fs);
        List<Double> at = new ArrayList<>(List.of(0.0));
        for (double t = 0.004; t <= end; t *= 1.6) {
            at.add(t);
        }
        return of(side, Common.NONE, n, at);
    }

    /** That is looked at, and that there is after the onset. */
    private static double seconds(AnalysedSound side) {
        return Math.min(Math.min(MOST_SECONDS, side.keySeconds()), after(side));
    }

    private static double after(AnalysedSound side) {
        double fs = side.measurement().sampleRateHz();
        return (side.clip().mixed().length - onset(side)) / fs;
    }

    private static int onset(AnalysedSound side) {
        double fs = side.measurement().sampleRateHz();
        return (int) Math.max(0, Math.round(side.measurement().onsetSeconds() * fs));
    }

    /** @param n length of a window [samples] @param at where each begins after the onset [s] */
    private static NonuniformStft of(AnalysedSound side, Common movement, int n, List<Double> at) {
        double fs = side.measurement().sampleRateHz();
        double[] x = side.clip().mixed();
        int onset = onset(side);
        RealFft fft = new RealFft(n);
        double[] note = SteadyNote.samples(side, movement);
        double[][] power = new double[at.size()][];
        double most = 0;
        for (int f = 0; f < power.length; f++) {
            power[f] = spectrum(note, (int) (at.get(f) * fs), fft);
            Arrays.fill(power[f], 0, Math.min(power[f].length, lowestBin(fs / n)), 0);
            for (double p : power[f]) {
                most = Math.max(most, p);
            }
        }
        double[] quiet = new double[n / 2 + 1];
        int lead = onset - (int) (0.003 * fs) - n;
        if (lead >= 0) {
            quiet = spectrum(x, lead, fft);
        }
        for (double[] p : power) {
            for (int k = 0; k < p.length; k++) {
                p[k] = p[k] > Math.max(LEAST * most, 4 * quiet[k]) ? p[k] : 0;
            }
        }
        double[] seconds = at.stream().mapToDouble(t -> t + 0.5 * n / fs).toArray();
        return new NonuniformStft(fs / n, seconds, power, side.keySeconds());
    }

    /** What is left where so much power is known to be of something else. @param taken [frame][bin] */
    public NonuniformStft without(double[][] taken) {
        double[][] left = new double[power.length][];
        for (int f = 0; f < left.length; f++) {
            left[f] = power[f].clone();
            for (int k = 0; k < left[f].length; k++) {
                // the skirts of what is taken are not told well enough to leave anything of them
                left[f][k] = left[f][k] > 4 * taken[f][k] ? left[f][k] - taken[f][k] : 0;
            }
        }
        return new NonuniformStft(binHz, seconds, left, keySeconds);
    }

    /** The first of every so many. */
    public NonuniformStft thinned(int step) {
        int n = (count() + step - 1) / step;
        double[] t = new double[n];
        double[][] some = new double[n][];
        for (int f = 0; f < n; f++) {
            t[f] = seconds[step * f];
            some[f] = power[step * f];
        }
        return new NonuniformStft(binHz, t, some, keySeconds);
    }

    private static double[] spectrum(double[] x, int from, RealFft fft) {
        int n = fft.length();
        double[] y = new double[n];
        for (int i = 0; i < n && from + i < x.length; i++) {
            y[i] = x[from + i] * Windows.hann(i, n);
        }
        double[] p = RealFft.power(fft.forward(y));
        for (int k = 0; k < p.length; k++) {
            p[k] *= 16.0 / n / n; // a sine of 1 on a bin has 1 there
        }
        return p;
    }

    /** Time after the onset at which the key was let go; infinite if it was not [s]. */
    public double keySeconds() {
        return keySeconds;
    }

    /** Whether what sounds after the key was let go is among what is looked at. */
    public boolean showRelease() {
        return seconds[seconds.length - 1] >= keySeconds;
    }

    public int count() {
        return seconds.length;
    }

    /** Middle of each frame after the onset [s]; new array. */
    public double[] seconds() {
        return seconds.clone();
    }

    public double binHz() {
        return binHz;
    }

    public int bins() {
        return power[0].length;
    }

    private static int lowestBin(double binHz) {
        return (int) Math.ceil(LOWEST_HZ / binHz);
    }

    /** The first bin that is looked at; those under it have no power. */
    public int lowestBin() {
        return lowestBin(binHz);
    }

    /** Of a sine's amplitude, 1 for one of full scale, where nothing was found 0. Not to be changed. */
    public double[] power(int frame) {
        return power[frame];
    }

    /** How much a frame counts, 1 for the loudest. */
    public double weight(int frame) {
        return weight[frame];
    }

    /** What a sine puts into a bin that lies so many bins off, as a share of its power: the lobe of the window. */
    public static double lobe(double bins) {
        double a = skirt(bins);
        return a * a;
    }

    /** The same of its amplitude, with its sign, which changes outside of the lobe. */
    public static double skirt(double bins) {
        if (Math.abs(bins) < 1e-6) {
            return 1;
        }
        if (Math.abs(Math.abs(bins) - 1) < 1e-6) {
            return 0.5;
        }
        return Math.sin(Math.PI * bins) / (Math.PI * bins * (1 - bins * bins));
    }
}
