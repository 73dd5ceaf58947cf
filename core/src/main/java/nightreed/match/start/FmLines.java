package nightreed.match.start;

import nightreed.recipe.FmPair;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.Exciter;
import nightreed.voice.fm.ModulatedCycle;

/** What a modulated pair, and the noise of a strike, put into the frames of a note, by formula. Immutable. */
final class FmLines {
    private static final double LOWEST_HZ = 12;

    /** Reach of a line [bins]. */
    private static final double REACH = 2;

    /** Times besides the middle of a frame that stand for its window, in its lengths, and what each weighs. */
    private static final double ASIDE = 0.313;

    private static final double ASIDE_WEIGHT = 1.0 / 6;

    /** Later frames change so little that their middle stands for them, up to where the key is let go [s]. */
    private static final double LATE = 0.3;

    /** Points that stand for a window where noise falls. */
    private static final int POINTS = 32;

    private final Frames frames;
    private final FrameBins bins;
    private final double f0;

    /** @param f0 what ratios are of [Hz] */
    FmLines(Frames frames, FrameBins bins, double f0) {
        this.frames = frames;
        this.bins = bins;
        this.f0 = f0;
    }

    /** Power to be expected of noise that falls, through two cuts of 12 dB per octave [frame][bin, then band]. */
    double[][] expected(Exciter noise) {
        double[] shape = new double[bins.all()];
        double mean = 0;
        for (int b = 1; b < shape.length; b++) {
            shape[b] = noise.passed(b * frames.binHz());
            mean += shape[b] / shape.length;
        }
        double start = 0.5 * bins.gain() * bins.gain() * Math.pow(10, noise.noiseDb() / 10);
        double rate = 2 * Math.log(1000) / (noise.noiseT60Ms() / 1000);
        double[] t = frames.seconds();
        double[][] out = new double[t.length][bins.count() + bins.bands()];
        double window = 1 / frames.binHz();
        for (int f = 0; f < t.length; f++) {
            double sum = 0;
            for (int i = 0; i < POINTS; i++) {
                double x = (i + 0.5) / POINTS;
                double w = 0.5 - 0.5 * Math.cos(2 * Math.PI * x);
                sum += w * w * Math.exp(-rate * Math.max(0, t[f] + (x - 0.5) * window)) / POINTS;
            }
            double power = 16 * start * sum / (2 * (shape.length - 1)) / mean;
            for (int b = 1; power > 1e-9 * bins.most() && b < shape.length; b++) {
                out[f][bins.slot(b)] += power * shape[b];
            }
        }
        return out;
    }

    /** Amplitudes of the sidebands in each frame. */
    double[][] shapes(FmPair p) {
        ModulatedCycle cycle = new ModulatedCycle(p.feedback());
        double[] t = frames.seconds();
        double[][] out = new double[t.length][];
        double window = 1 / frames.binHz();
        for (int f = 0; f < t.length; f++) {
            out[f] = amplitudes(cycle, p, t[f]);
            if (t[f] < LATE || t[f] > frames.keySeconds() - 0.5 * window) {
                double[] before = amplitudes(cycle, p, t[f] - ASIDE * window);
                double[] after = amplitudes(cycle, p, t[f] + ASIDE * window);
                out[f] = mixed(out[f], before, after);
            }
        }
        return out;
    }

    /**
     * What a pair puts into each frame: real and imaginary part of each bin that is looked at, then power of each band.
     *
     * @param shapes as {@link #shapes} gives them for the pair, whatever its frequencies and phases
     */
    double[][] of(FmPair p, double[][] shapes) {
        double[] t = frames.seconds();
        double[][] out = new double[t.length][2 * bins.count() + bins.bands()];
        for (int f = 0; f < t.length; f++) {
            add(out[f], shapes[f], p, t[f]);
        }
        return out;
    }

    private static double[] mixed(double[] mid, double[] before, double[] after) {
        int n = Math.max(mid.length, Math.max(before.length, after.length));
        double[] out = new double[n];
        add(out, mid, 1 - 2 * ASIDE_WEIGHT);
        add(out, before, ASIDE_WEIGHT);
        add(out, after, ASIDE_WEIGHT);
        return out;
    }

    /** A shorter transform has the same lines, fewer of them. */
    private static void add(double[] to, double[] x, double times) {
        int half = x.length / 2;
        for (int i = 0; i < half; i++) {
            to[i] += times * x[i];
            to[to.length - 1 - i] += times * x[x.length - 1 - i];
        }
    }

    private double[] amplitudes(ModulatedCycle cycle, FmPair p, double t) {
        double a = bins.gain() * Math.pow(10, p.levelDb() / 20) * course(p.amplitude(), t);
        double[] out = cycle.lines(p.index() * course(p.bend(), t));
        for (int i = 0; i < out.length; i++) {
            out[i] *= a;
        }
        return out;
    }

    private double course(Envelope e, double t) {
        double key = frames.keySeconds();
        return t <= key ? e.at(t, 1) : e.released(e.at(key, 1), t - key);
    }

    private void add(double[] out, double[] amplitudes, FmPair p, double t) {
        int n = amplitudes.length / 2;
        double least = 1e-3 * Math.sqrt(bins.most());
        for (int k = -n / 2; k < n / 2; k++) {
            double re = amplitudes[2 * Math.floorMod(k, n)];
            double im = amplitudes[2 * Math.floorMod(k, n) + 1];
            double signed = f0 * (p.carrierRatio() + k * p.modulatorRatio());
            if (re * re + im * im < least * least || Math.abs(signed) < LOWEST_HZ) {
                continue;
            }
            double turn = p.carrierPhaseRad() + k * p.modulatorPhaseRad() + 2 * Math.PI * signed * t;
            double c = Math.cos(turn);
            double s = Math.sin(turn);
            double x = re * c - im * s;
            double y = re * s + im * c;
            double at = Math.abs(signed) / frames.binHz();
            if (signed < 0) { // of a sine: folds over with a change of sign
                x = -x;
            }
            for (int b = (int) Math.ceil(at - REACH); b <= at + REACH; b++) {
                if (b < frames.lowestBin() || b >= bins.all()) {
                    continue;
                }
                double lobe = Frames.lobe(b - at);
                int slot = bins.slot(b);
                if (bins.isLookedAt(b)) {
                    double root = Math.sqrt(lobe);
                    out[2 * slot] += root * x;
                    out[2 * slot + 1] += root * y;
                } else {
                    out[bins.count() + slot] += lobe * (x * x + y * y);
                }
            }
        }
    }
}
