package nightreed.measure.partial;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import nightreed.dsp.RealFft;
import nightreed.dsp.Transforms;

/**
 * Looks for damped sinusoids in a residual with matched filters: for a decay β the statistic |Σ r e^(-βn) e^(-jωn)|² / Σ
 * e^(-2βn) is, over the noise, the likelihood ratio of a partial of that decay (after Goodwin &amp; Vetterli 1999). One
 * transform per decay covers all frequencies. Made for one search, in rounds: it remembers which decays are done with for now.
 */
public final class PartialSearch {
    /** Decays looked for [s to fall by 60 dB]; a factor of 2.5 apart loses at most 0.8 dB between two. */
    private static final double[] T60_SECONDS = {16, 6.4, 2.56, 1.02, 0.41, 0.16, 0.066, 0.03};

    /** Ratio at which one of a million looks at mere noise would still deceive; a partial needs more (13.4 dB). */
    public static final double LEAST_RATIO = 22;

    /** Bins that a quartile is taken of at the most; more would not make it surer. */
    private static final int QUARTILE_OF = 400;

    /** Widths of a line that a band has at the least, and where lines may fill all of such a band. */
    private static final int NARROW = 24;

    private static final int WIDE = 60;

    private final double fs;
    private final NoiseFloor floor;
    private final List<Scale> scales = new ArrayList<>();
    private int lines = NARROW;

    public PartialSearch(int length, double sampleRateHz, NoiseFloor floor, Transforms transforms) {
        this(length, sampleRateHz, floor, Double.POSITIVE_INFINITY, transforms);
    }

    /** @param longest decay that is looked for at the most [s to fall by 60 dB] */
    public PartialSearch(int length, double sampleRateHz, NoiseFloor floor, double longest, Transforms transforms) {
        this.fs = sampleRateHz;
        this.floor = floor;
        for (double t60 : T60_SECONDS) {
            // decays far beyond the clip all look alike in it
            if (t60 <= longest && (t60 <= 6 * length / fs || scales.isEmpty())) {
                scales.add(new Scale(t60, length, transforms));
            }
        }
    }

    public double sampleRateHz() {
        return fs;
    }

    public NoiseFloor floor() {
        return floor;
    }

    /** Lets no decay rest in the next round; false if none would have. */
    public boolean wake() {
        boolean rested = scales.stream().anyMatch(s -> s.rests);
        scales.forEach(s -> s.rests = false);
        return rested;
    }

    /** Judges by wider surroundings from now on; false if it did already. */
    public boolean widen() {
        boolean narrow = lines == NARROW;
        lines = WIDE;
        if (narrow) {
            wake();
        }
        return narrow;
    }

    /** Samples of a residual that are looked at, from its start. */
    public int samples() {
        return scales.stream().mapToInt(s -> s.used).max().orElse(0);
    }

    private final class Scale {
        final double beta;
        final int used;
        final RealFft fft;
        final double energy;
        boolean rests;

        Scale(double t60, int length, Transforms transforms) {
            beta = Math.log(1000) / (t60 * fs);
            used = (int) Math.min(length, 0.7 * t60 * fs); // the weight has fallen by 42 dB there
            fft = transforms.of(RealFft.powerOfTwoFrom(Math.max(256, used + used / 3)));
            energy = -Math.expm1(-2 * beta * used) / -Math.expm1(-2 * beta);
        }

        double[] statistic(double[] r) {
            double[] x = new double[used];
            double step = Math.exp(-beta);
            double w = 1;
            for (int i = 0; i < used; i++) {
                x[i] = r[i] * w;
                w *= step;
            }
            double[] p = RealFft.power(fft.forward(x));
            for (int k = 0; k < p.length; k++) {
                p[k] /= energy;
            }
            return p;
        }

        /** Half-width of the line of a partial of this decay [rad/sample]. */
        double halfWidth() {
            return Math.max(beta, 2 * Math.PI / used);
        }
    }

    /**
     * A term that the residual calls for.
     *
     * @param term  its frequency and decay
     * @param power what it would explain, as {@link #power(DampedSinusoid, int)} counts it
     */
    public record Candidate(DampedSinusoid term, double power) {}

    /** Energy that a fitted term explains over {@code n} samples, in the unit of the statistic. */
    public static double power(DampedSinusoid t, int n) {
        return t.amplitude() * t.amplitude() / 4 * t.energySamples(n);
    }

    /** A local maximum of one scale. */
    private record Peak(double omega, Scale scale, double ratio, double power) {
        /** Most that this partial can put into another scale at a distance: both edges of the window in phase. */
        double skirt(double apart, Scale other) {
            double amplitude2 = power / scale.energy;
            return 4 * amplitude2 / (other.energy * Math.max(apart * apart, other.beta * other.beta));
        }
    }

    /**
     * New terms that the residual calls for, the strongest first. Only maxima near the strength of their surroundings
     * are named: weaker ones may be skirts of the stronger and show again once those are subtracted.
     */
    public List<Candidate> candidates(double[] residual, int most) {
        return candidates(residual, most, LEAST_RATIO);
    }

    /** @param least ratio over the noise that a candidate needs */
    public List<Candidate> candidates(double[] residual, int most, double least) {
        List<Peak> peaks = peaks(scales.stream().filter(c -> !c.rests).toList(), residual, least);
        // by energy, not by odds: the scale that fits a partial best gathers most of it
        peaks.sort((a, b) -> Double.compare(b.power, a.power));
        List<Peak> chosen = new ArrayList<>();
        for (Peak p : peaks) {
            double skirts = 0;
            boolean apart = true;
            for (Peak c : chosen) {
                double distance = Math.abs(p.omega - c.omega);
                apart &= distance > 3 * (c.scale.halfWidth() + p.scale.halfWidth());
                skirts += c.skirt(distance, p.scale);
            }
            if (apart && p.power > 6 * skirts && chosen.size() < most) {
                chosen.add(p);
            }
        }
        List<Candidate> out = new ArrayList<>();
        for (Peak p : chosen) {
            out.add(new Candidate(DampedSinusoid.candidate(p.omega, p.scale.beta, p.ratio), p.power));
        }
        return out;
    }

    /** Peaks of some scales. One that has none rests for a round: what is subtracted meanwhile hardly brings any up. */
    private List<Peak> peaks(List<Scale> some, double[] residual, double least) {
        List<Peak> peaks = new ArrayList<>();
        // in parallel, but gathered in order, so that the answer does not depend on the machine
        some.parallelStream().map(s -> peaks(s, residual, least)).forEachOrdered(peaks::addAll);
        scales.forEach(s -> s.rests = some.contains(s) && peaks.stream().noneMatch(p -> p.scale == s));
        return peaks;
    }

    private List<Peak> peaks(Scale s, double[] residual, double least) {
        List<Peak> peaks = new ArrayList<>();
        double[] p = s.statistic(residual);
        double[] local = localFloor(p, s);
        double step = 2 * Math.PI / s.fft.length();
        int first = (int) Math.max(2, Math.ceil(20 / fs * s.fft.length()));
        for (int k = first; k < p.length - 2; k++) {
            if (p[k] > p[k - 1] && p[k] >= p[k + 1]) {
                if (p[k] <= least * local[k]) {
                    continue;
                }
                double noise = Math.max(local[k], floor.at(k * fs / s.fft.length()));
                if (p[k] > least * noise) {
                    double a = p[k - 1];
                    double b = p[k + 1];
                    double shift = 0.5 * (a - b) / (a - 2 * p[k] + b);
                    peaks.add(new Peak((k + shift) * step, s, p[k] / noise, p[k]));
                }
            }
        }
        return peaks;
    }

    /**
     * Lower quartile of the statistic over bands of a third of an octave or more, turned into the mean of an exponential law.
     * Partials that die within a tenth of a second have lines so wide that a few of them fill half of a band.
     */
    private double[] localFloor(double[] p, Scale s) {
        double[] out = new double[p.length];
        int width = (int) Math.max(64, lines * s.halfWidth() * s.fft.length() / (2 * Math.PI));
        int a = 0;
        List<double[]> knots = new ArrayList<>(); // centre bin, floor
        while (a < p.length) {
            int b = (int) Math.min(p.length, Math.max(a + width, a * 1.26));
            if (p.length - b < width) {
                b = p.length;
            }
            int step = Math.max(1, (b - a) / QUARTILE_OF);
            double[] band = new double[(b - a) / step];
            for (int i = 0; i < band.length; i++) {
                band[i] = p[a + i * step];
            }
            Arrays.sort(band);
            knots.add(new double[] {(a + b) / 2.0, band[band.length / 4] / -Math.log(0.75)});
            a = b;
        }
        int k = 0;
        for (int n = 0; n < knots.size(); n++) {
            double[] left = knots.get(n);
            double[] right = knots.get(Math.min(n + 1, knots.size() - 1));
            int end = n + 1 < knots.size() ? (int) Math.min(p.length, Math.ceil(right[0])) : p.length;
            double slope = right[0] > left[0] ? (right[1] - left[1]) / (right[0] - left[0]) : 0;
            for (; k < end; k++) {
                out[k] = left[1] + slope * Math.max(0, k - left[0]);
            }
        }
        return out;
    }
}
