package nightreed.match.frontier;

import java.util.ArrayList;
import java.util.List;
import java.util.function.IntToDoubleFunction;
import nightreed.dsp.LineFit;
import nightreed.match.sound.AnalysedSound;
import nightreed.match.sound.LoudnessTracks;
import nightreed.music.Bark;
import nightreed.recipe.Recipe;
import nightreed.recipe.part.Common;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.Route;
import nightreed.recipe.part.Route.Source;
import nightreed.recipe.part.Route.Target;
import nightreed.sound.Clip;

/**
 * Slow swells of a held note that a fit has left over, of its level or its brightness: the movement envelope does them, by a
 * depth of its own.
 */
final class Drift {
    /** Times over which envelopes are tried [s]: what is shorter belongs to the attack. */
    private static final double[] TIMES = {0.4, 0.8, 1.5, 3, 6};

    private static final double[] SUSTAINS = {0, 0.5, 1};

    /** Span that a look is the mean of, and time of the first [s]: vibrato is no drift. */
    private static final double LOOK_SECONDS = 0.3;

    private static final double FIRST_SECONDS = 0.2;

    /** A drift of less is none: about what is just heard. */
    private static final double LEAST_DB = 1;

    private static final double LEAST_OCTAVES = 0.1;
    private static final double MOST_DB = 24;
    private static final double MOST_OCTAVES = 3;
    private static final double RELEASE = 0.3;

    private Drift() {}

    /** Recipes with a drift of the level or of the brightness; none where there is nothing to drift, or no envelope left. */
    static List<Recipe> added(AnalysedSound recording, Recipe recipe, Clip imitation) {
        List<Recipe> out = new ArrayList<>();
        Common c = recipe.common();
        if (recording.measurement().held() == null
                || c.envelope() != null
                || c.routes().size() >= Common.MOST_ROUTES) {
            return out;
        }
        int onset = (int) Math.round(recording.measurement().onsetSeconds() * imitation.sampleRateHz());
        LoudnessTracks mine = recording.paths();
        LoudnessTracks its = LoudnessTracks.of(imitation, onset);
        int frames = (int) Math.min(
                Math.min(mine.power().length, its.power().length), recording.keySeconds() / LoudnessTracks.HOP);
        double[] level = looks(frames, f -> 10 * Math.log10(mine.power()[f] / its.power()[f]));
        add(out, recipe, level, Target.LEVEL, LEAST_DB, MOST_DB);
        double[] octaves = looks(
                Math.min(frames, Math.min(mine.bark().length, its.bark().length)),
                f -> Math.log(Bark.hz(mine.bark()[f]) / Bark.hz(its.bark()[f])) / Math.log(2));
        add(out, recipe, octaves, Target.CUTOFF, LEAST_OCTAVES, MOST_OCTAVES);
        add(out, recipe, octaves, Target.INDEX, LEAST_OCTAVES, MOST_OCTAVES);
        return out;
    }

    private static double[] looks(int frames, IntToDoubleFunction at) {
        int wide = (int) (LOOK_SECONDS / LoudnessTracks.HOP);
        int first = (int) (FIRST_SECONDS / LoudnessTracks.HOP);
        double[] out = new double[Math.max(0, (frames - first) / wide)];
        for (int k = 0; k < out.length; k++) {
            double sum = 0;
            int n = 0;
            for (int f = first + k * wide; f < first + (k + 1) * wide; f++) {
                double v = at.applyAsDouble(f);
                if (Double.isFinite(v)) {
                    sum += v;
                    n++;
                }
            }
            out[k] = n == 0 ? Double.NaN : sum / n;
        }
        return out;
    }

    private static void add(List<Recipe> out, Recipe recipe, double[] looks, Target target, double least, double most) {
        Envelope best = null;
        double depth = 0;
        double left = Double.POSITIVE_INFINITY;
        for (double attack : TIMES) {
            for (double decay : TIMES) {
                for (double sustain : SUSTAINS) {
                    Envelope e = new Envelope(0, attack, 0, 0, decay, 0, sustain, RELEASE);
                    LineFit line = new LineFit();
                    for (int k = 0; k < looks.length; k++) {
                        if (Double.isFinite(looks[k])) {
                            line.add(e.at(seconds(k), 1), looks[k]);
                        }
                    }
                    double error = error(e, line, looks);
                    if (line.settled() && error < left) {
                        left = error;
                        best = e;
                        depth = line.slope();
                    }
                }
            }
        }
        if (best == null || Math.abs(depth) < least) {
            return;
        }
        Common c = recipe.common();
        List<Route> routes = new ArrayList<>(c.routes());
        routes.add(new Route(Source.ENVELOPE, target, Math.max(-most, Math.min(most, depth))));
        out.add(recipe.withCommon(c.withEnvelope(best).withRoutes(routes)));
    }

    private static double seconds(int look) {
        return FIRST_SECONDS + (look + 0.5) * LOOK_SECONDS;
    }

    private static double error(Envelope e, LineFit line, double[] looks) {
        if (!line.settled()) {
            return Double.POSITIVE_INFINITY;
        }
        double sum = 0;
        for (int k = 0; k < looks.length; k++) {
            double off = looks[k] - line.intercept() - line.slope() * e.at(seconds(k), 1);
            sum += Double.isFinite(off) ? off * off : 0;
        }
        return sum;
    }
}
