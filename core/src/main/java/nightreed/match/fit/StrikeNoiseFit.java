package nightreed.match.fit;

import java.util.Arrays;
import nightreed.match.hearing.JndThresholds;
import nightreed.match.sound.AnalysedSound;
import nightreed.music.Bark;
import nightreed.optim.LeastSquaresProblem;
import nightreed.optim.LevenbergMarquardt;
import nightreed.recipe.Recipe;
import nightreed.recipe.part.Exciter;
import nightreed.voice.Renderer;

/**
 * Noise of a strike out of what the first quarter of a second of a recording has more than the tones of a recipe, as power by
 * critical bands and short spans: white noise through two cuts that falls by 60 dB in its T60 leaves a power there that a
 * formula tells.
 */
final class StrikeNoiseFit {
    /** Limits of the spans [s]. */
    private static final double[] SPANS = {0, 0.003, 0.007, 0.014, 0.026, 0.045, 0.075, 0.12, 0.18, 0.25};

    /** Power under the loudest that is as good as none. */
    private static final double FLOOR = 1e-5;

    /** A difference that matters [dB]. */
    private static final double NEAR_DB = 4;

    private static final double[] T60S = {0.005, 0.02, 0.08};
    private static final double[][] CUTS = {{50, 500}, {300, 2500}, {1200, 9000}};
    private static final double OFF_DB = -100;
    private static final LevenbergMarquardt.Options OPTIONS =
            LevenbergMarquardt.Options.USUAL.withMostIterations(15).withCostTolerance(0.01);

    private final double fs;
    private final double[][] seen; // power per sample [span][band]
    private final double[][] tones; // of the recipe without its noise
    private final double least;

    private StrikeNoiseFit(AnalysedSound recording, Recipe silent) {
        fs = recording.measurement().sampleRateHz();
        FrameSpectra looks = new FrameSpectra(fs);
        double[] x = recording.clip().mixed();
        int onset = Math.max(0, Math.min(x.length - 1, (int)
                Math.round(recording.measurement().onsetSeconds() * fs)));
        seen = bands(looks, Arrays.copyOfRange(x, onset, x.length));
        double end = SPANS[SPANS.length - 1];
        tones = bands(
                looks,
                Renderer.asFitted(silent, 0, recording.keySeconds(), end, (int) fs)
                        .mixed());
        double loudest = 1e-20;
        for (double[] span : seen) {
            loudest = Math.max(loudest, Arrays.stream(span).max().orElse(0));
        }
        least = FLOOR * loudest;
    }

    private double[][] bands(FrameSpectra looks, double[] x) {
        double[][] out = new double[SPANS.length - 1][];
        for (int s = 0; s < out.length; s++) {
            out[s] = looks.bands(x, (int) (SPANS[s] * fs), (int) (SPANS[s + 1] * fs));
        }
        return out;
    }

    /**
     * With the noise that the recording has more than its tones.
     *
     * @param recipe as loud as the recording; one without a strike stays as it is
     */
    static Recipe of(Recipe recipe, AnalysedSound recording) {
        boolean there =
                recipe.settings().stream().anyMatch(s -> s.parameter().id().equals("noise.t60"));
        if (!there) {
            return recipe;
        }
        StrikeNoiseFit fit = new StrikeNoiseFit(recording, recipe.with("noise.level", OFF_DB));
        double[] best = null;
        double least = fit.cost(new double[] {OFF_DB / 9, 0, 0, 0}, recipe.levelDb());
        for (double t60 : T60S) {
            for (double[] cuts : CUTS) {
                double[] start = {0, Math.log(t60), Math.log(cuts[0]), Math.log(cuts[1] / cuts[0])};
                double[] u = LevenbergMarquardt.minimize(
                                LeastSquaresProblem.limited(1, at -> fit.residuals(at, recipe.levelDb())),
                                start,
                                OPTIONS)
                        .point();
                double cost = fit.cost(u, recipe.levelDb());
                if (cost < least) {
                    least = cost;
                    best = u;
                }
            }
        }
        return best == null ? recipe.with("noise.level", OFF_DB) : with(recipe, exciter(best));
    }

    private static Recipe with(Recipe recipe, Exciter e) {
        return recipe.with("noise.level", e.noiseDb())
                .with("noise.t60", e.noiseT60Ms())
                .with("noise.low", e.noiseLowHz())
                .with("noise.high", e.noiseHighHz());
    }

    private static Exciter exciter(double[] u) {
        double low = limited(Math.exp(u[2]), 20, 9000);
        return new Exciter(
                1,
                limited(9 * u[0], OFF_DB, 24),
                limited(1000 * Math.exp(u[1]), 1, 2000),
                low,
                limited(low * Math.exp(u[3]), Math.max(60, 0.3 * low), 20_000));
    }

    private static double limited(double v, double low, double high) {
        return Math.max(low, Math.min(high, v));
    }

    private double cost(double[] u, double levelDb) {
        return Arrays.stream(residuals(u, levelDb)).map(r -> r * r).sum();
    }

    private double[] residuals(double[] u, double levelDb) {
        Exciter e = exciter(u);
        double[] share = shares(e);
        double start = 0.5 * Math.pow(10, (levelDb + e.noiseDb()) / 10);
        double rate = 2 * Math.log(1000) / (e.noiseT60Ms() / 1000);
        double[] out = new double[seen.length * Bark.BANDS];
        for (int s = 0; s < seen.length; s++) {
            double from = SPANS[s];
            double to = SPANS[s + 1];
            double mean = start * (Math.exp(-rate * from) - Math.exp(-rate * to)) / (rate * (to - from));
            for (int b = 0; b < Bark.BANDS; b++) {
                double db = 10 * Math.log10((tones[s][b] + mean * share[b] + least) / (seen[s][b] + least));
                out[s * Bark.BANDS + b] = JndThresholds.limited(db / NEAR_DB);
            }
        }
        return out;
    }

    /** Of the power of the noise in each band. */
    private static double[] shares(Exciter e) {
        double[] out = new double[Bark.BANDS];
        double sum = 0;
        for (int b = 0; b < out.length; b++) {
            for (int k = 0; k < 3; k++) {
                double width = Bark.edgeHz(b + 1) - Bark.edgeHz(b);
                double p = e.passed(Bark.edgeHz(b) + (k + 0.5) / 3 * width) * width / 3;
                out[b] += p;
                sum += p;
            }
        }
        for (int b = 0; b < out.length; b++) {
            out[b] /= sum;
        }
        return out;
    }
}
