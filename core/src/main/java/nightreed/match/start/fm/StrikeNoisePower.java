package nightreed.match.start.fm;

import nightreed.match.start.NonuniformStft;
import nightreed.recipe.part.Exciter;

/** What the noise of a strike adds to the frames that FM pairs are fitted to. */
record StrikeNoisePower(NonuniformStft frames, FrameBins bins) {
    /** Points that stand for a window where noise falls. */
    private static final int POINTS = 32;

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
            for (int b = frames.lowestBin(); power > 1e-9 * bins.most() && b < shape.length; b++) {
                out[f][bins.slot(b)] += power * shape[b];
            }
        }
        return out;
    }
}
