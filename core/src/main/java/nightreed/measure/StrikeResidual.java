package nightreed.measure;

import java.util.Arrays;
import java.util.List;
import nightreed.dsp.LineFit;
import nightreed.dsp.RealFft;
import nightreed.measure.law.FmLaw;
import nightreed.measure.partial.DampedSinusoid;
import nightreed.measure.partial.NoiseFloor;
import nightreed.measure.partial.PartialAssembler;

/**
 * What is left of a note without its partials. The partials are known from after the strike only; carried back to the
 * onset they are faded in over the rise that leaves the least, as the body does not ring at once.
 */
final class StrikeResidual {
    private static final double[] RISES = {0, 0.0003, 0.0006, 0.001, 0.0016, 0.0025, 0.004, 0.006};
    /** Samples by which the partials may come after the onset, which is known to a few samples only. */
    private static final int[] SHIFTS = {0, 1, 2, 3, 4, 6, 8, 11, 15, 20};

    /** Window in which the burst's level and colour are taken [s]. */
    private static final double LEVEL_SECONDS = 0.005;

    private final double[] samples; // from the onset
    private final double fs;
    private final double strongest;
    private final NoiseFloor floor;

    private StrikeResidual(double[] samples, double fs, double strongest, NoiseFloor floor) {
        this.samples = samples;
        this.fs = fs;
        this.strongest = strongest;
        this.floor = floor;
    }

    /**
     * @param fm        law that stands for the terms, or null
     * @param strongest amplitude of the strongest reliable partial at the onset, which levels are told against; 0 if there is
     *     none: then that of the strongest term
     */
    static StrikeResidual of(
            double[] x,
            double fs,
            int onset,
            int start,
            List<DampedSinusoid> terms,
            FmLaw fm,
            NoiseFloor floor,
            double strongest) {
        int length = (int) Math.min(x.length - onset, 0.35 * fs);
        double[] partials = new double[length];
        int back = start - onset;
        double loudest = 0;
        if (fm != null) {
            fm.addTo(partials, 0, fs, 1);
            loudest = fm.strongest();
        }
        for (DampedSinusoid t : fm != null ? List.<DampedSinusoid>of() : terms) {
            double grow = Math.exp(t.alpha() * back);
            double turn = -t.omega() * back;
            double re = grow * (t.cRe() * Math.cos(turn) - t.cIm() * Math.sin(turn));
            double im = grow * (t.cRe() * Math.sin(turn) + t.cIm() * Math.cos(turn));
            new DampedSinusoid(t.omega(), t.alpha(), re, im, 0, 0).addTo(partials, 0, 1);
            if (t.alpha() < Math.log(1000) / (PartialAssembler.SHORTEST_RINGING * fs)) {
                loudest = Math.max(loudest, Math.hypot(re, im));
            }
        }
        double least = Double.POSITIVE_INFINITY;
        int bestShift = 0;
        double bestRise = 0;
        int judged = (int) Math.min(length, 0.008 * fs);
        for (int shift : SHIFTS) {
            for (double rise : RISES) {
                double energy = 0;
                for (int i = 0; i < judged; i++) {
                    double r = x[onset + i] - fade((i - shift) / fs, rise) * partials[i];
                    energy += r * r;
                }
                if (energy < least) {
                    least = energy;
                    bestShift = shift;
                    bestRise = rise;
                }
            }
        }
        double[] best = new double[length];
        for (int i = 0; i < length; i++) {
            best[i] = x[onset + i] - fade((i - bestShift) / fs, bestRise) * partials[i];
        }
        return new StrikeResidual(best, fs, strongest > 0 ? strongest : loudest, floor);
    }

    private static double fade(double seconds, double rise) {
        return seconds < 0 ? 0 : seconds < rise ? 0.5 - 0.5 * Math.cos(Math.PI * seconds / rise) : 1;
    }

    /** The burst, or null if nothing stands out of the background. */
    StrikeNoise strikeNoise() {
        int frame = (int) (0.002 * fs);
        int frames = samples.length / frame;
        if (frames < 6 || strongest <= 0) {
            return null;
        }
        double background = 0;
        for (double hz = 50; hz < fs / 2; hz += 50) {
            background += floor.at(hz) * 50 / (fs / 2);
        }
        double[] power = new double[frames];
        for (int f = 0; f < frames; f++) {
            for (int i = f * frame; i < (f + 1) * frame; i++) {
                power[f] += samples[i] * samples[i] / frame;
            }
        }
        double[] tail = Arrays.copyOfRange(power, frames / 2, frames);
        Arrays.sort(tail);
        double rest = Math.max(background, tail[tail.length / 2]); // what stays is not the strike
        int window = (int) (LEVEL_SECONDS * fs);
        double burst = 0;
        for (int i = 0; i < window; i++) {
            burst += samples[i] * samples[i] / window;
        }
        if (burst < 3 * rest || burst < 1e-8 * strongest * strongest) {
            return null;
        }
        double level = 10 * Math.log10((burst - rest) / (strongest * strongest / 2));
        double[] colour = colour(rest);
        return new StrikeNoise(level, decay(power, rest), colour[0], colour[1], colour[2]);
    }

    /** Critical-band powers of the burst and of the whole, with the background taken off the burst. */
    StrikeBands bands(double[] x, int onset) {
        double[] whole = Arrays.copyOfRange(x, onset, onset + samples.length);
        return StrikeBands.of(samples, whole, fs, strongest, floor::at);
    }

    /** T60 from the energy that is still to come (M. R. Schroeder, 1965), between 1 and 16 dB down. */
    private double decay(double[] power, double rest) {
        int end = 3;
        while (end + 3 < power.length && power[end] + power[end + 1] + power[end + 2] > 3 * 2 * rest) {
            end++;
        }
        double[] left = new double[end + 1];
        for (int f = end - 1; f >= 0; f--) {
            left[f] = left[f + 1] + Math.max(0, power[f] - rest);
        }
        double a = crossing(left, 0.8);
        double b = crossing(left, 0.025);
        double db = 10 * Math.log10(0.8 / 0.025);
        return Math.max(0.004, 60 / db * (b - a) * 0.002);
    }

    private static double crossing(double[] left, double share) {
        double target = share * left[0];
        for (int f = 1; f < left.length; f++) {
            if (left[f] <= target) {
                double span = left[f - 1] - left[f];
                return f - 1 + (span > 0 ? (left[f - 1] - target) / span : 0);
            }
        }
        return left.length;
    }

    /** Slope [dB/octave] and the frequencies that a tenth of the energy lies below and above [Hz]. */
    private double[] colour(double rest) {
        int n = RealFft.powerOfTwoFrom((int) (0.012 * fs));
        double[] frame = new double[n];
        for (int i = 0; i < Math.min(n, samples.length); i++) {
            double u = (double) i / n;
            frame[i] = samples[i] * 0.5 * (1 + Math.cos(Math.PI * u)); // fades out; the burst's start must count
        }
        double[] p = RealFft.power(new RealFft(n).forward(frame));
        double binHz = fs / n;
        double total = 0;
        for (int k = 1; k < p.length; k++) {
            p[k] = Math.max(0, p[k] - rest * n * 0.375);
            total += p[k];
        }
        double sum = 0;
        double low = binHz;
        double high = fs / 2;
        boolean lowFound = false;
        for (int k = 1; k < p.length; k++) {
            sum += p[k];
            if (!lowFound && sum >= 0.1 * total) {
                low = k * binHz;
                lowFound = true;
            }
            if (sum >= 0.9 * total) {
                high = k * binHz;
                break;
            }
        }
        return new double[] {slope(p, binHz, low, high), low, high};
    }

    /** Straight line through the band levels between the two frequencies, per octave. */
    private static double slope(double[] p, double binHz, double low, double high) {
        LineFit line = new LineFit();
        for (double f = Math.max(low, binHz); f * 1.26 <= Math.max(high, low * 4); f *= 1.26) {
            double s = 0;
            int count = 0;
            for (int k = (int) Math.ceil(f / binHz); k <= f * 1.26 / binHz && k < p.length; k++) {
                s += p[k];
                count++;
            }
            if (count > 0 && s > 0) {
                line.add(Math.log(f) / Math.log(2), 10 * Math.log10(s / count));
            }
        }
        return line.count() >= 3 ? line.slope() : 0;
    }
}
