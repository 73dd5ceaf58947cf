package nightreed.match.start.string;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;
import nightreed.match.start.StartContext;
import nightreed.measure.partial.Partial;
import nightreed.music.Pitch;
import nightreed.optim.LevenbergMarquardt;
import nightreed.optim.RobustLoss;
import nightreed.recipe.StringRecipe.Drive;
import nightreed.recipe.part.Exciter;
import nightreed.voice.Renderer;
import nightreed.voice.string.StringModes;
import nightreed.voice.string.StringModes.Mode;
import nightreed.voice.string.StringStrike;
import nightreed.voice.string.StringStrike.White;

/**
 * Which strike calls up the partials of a known loop as loud as they were measured: contact, noise and pluck point at once. A
 * partial is told exactly by the strike's spectrum ({@link StringStrike}), so that thousands of strikes can be tried.
 *
 * @param db     how loud the second string is against the first, null if there is none [dB]
 * @param rmsDb  what is left over, strays counting as far [dB]
 */
record StrikeFit(Drive drive, Exciter exciter, double pluck, Double db, double rmsDb) {
    /** Fewer levels tell less than is asked of them. */
    private static final int FEWEST = 8;

    private static final double CLOSE_CENTS = 3;

    private static final double[] CONTACTS_MS = {0.05, 0.3, 1, 3, 8, 18};
    private static final double[] NOISES_DB = {-100, -12, 0, 12, 22};
    private static final double[] T60S_MS = {3, 6, 12, 25, 50, 100, 250};
    private static final double[] LOWS_HZ = {30, 150, 600, 2000};
    private static final double[] HIGHS_HZ = {300, 1000, 3000, 6000, 15_000};
    private static final double PLUCK_STEP = 0.0075;

    /** Level differences that matter, first from far and then from near [dB]. */
    private static final double[] NEAR_DB = {6, 2, 0.5};

    /** Strikes that are walked from, and of them those that are told. */
    private static final int WALKED = 24;

    private static final int TOLD = 4;

    private record Lines(StringStrike strike, double[] db, double[] weight) {}

    /** The likeliest first; none where too few partials are the loop's. */
    static List<StrikeFit> of(StartContext g, LoopFit loop, boolean inverted) {
        double fs = g.measurement().sampleRateHz();
        List<Mode> first = matched(g, loop, inverted, loop.f0Hz());
        List<Partial> heard = first.stream().map(m -> near(g, m)).toList();
        if (heard.size() < FEWEST) {
            return List.of();
        }
        double top = heard.stream().mapToDouble(Partial::levelDb).max().orElse(0);
        double[] weight = heard.stream()
                .mapToDouble(p -> 1 / (1 + (top - p.levelDb()) / 10))
                .toArray();
        double sum = Arrays.stream(weight).sum();
        Lines lines = new Lines(
                new StringStrike(fs, loop.f0Hz(), first, Renderer.CHANCE_OF_NOTE),
                heard.stream().mapToDouble(Partial::levelDb).toArray(),
                Arrays.stream(weight).map(w -> w / sum).toArray());
        return likely(lines).parallelStream()
                .map(f -> f.polished(lines))
                .map(f -> f.withSecond(g, loop, inverted, lines))
                .sorted(Comparator.comparingDouble(StrikeFit::rmsDb))
                .limit(TOLD)
                .toList();
    }

    /** Partials of one string that something was measured of. */
    private static List<Mode> matched(StartContext g, LoopFit loop, boolean inverted, double hz) {
        double fs = g.measurement().sampleRateHz();
        return StringModes.of(fs, hz, loop.loss(), loop.stiffness(), inverted, null, 0.4 * fs).stream()
                .filter(m -> Math.abs(Pitch.cents(m.hz(), near(g, m).frequencyHz())) < CLOSE_CENTS)
                .toList();
    }

    private static Partial near(StartContext g, Mode m) {
        return g.measurement().reliablePartials().stream()
                .min(Comparator.comparingDouble(p -> Math.abs(p.frequencyHz() - m.hz())))
                .orElseThrow();
    }

    /** Of many strikes the nearest, each with another noise. */
    private static List<StrikeFit> likely(Lines lines) {
        int plucks = (int) (0.5 / PLUCK_STEP) + 1;
        double[][] combs = IntStream.range(0, plucks)
                .mapToObj(i -> lines.strike.comb(i * PLUCK_STEP))
                .toArray(double[][]::new);
        List<StrikeFit> out = new ArrayList<>();
        for (double t60 : T60S_MS) {
            White white = lines.strike.white(t60);
            for (double noise : NOISES_DB) {
                boolean off = noise < -60;
                if (off && t60 != T60S_MS[0]) {
                    continue;
                }
                for (Drive drive : off ? List.of(Drive.PULSE) : List.of(Drive.PULSE, Drive.BURST)) {
                    if (drive == Drive.BURST && noise != NOISES_DB[1]) {
                        continue; // how loud it is makes no difference
                    }
                    out.add(nearest(lines, drive, noise, t60, white, combs));
                }
            }
        }
        out.sort(Comparator.comparingDouble(StrikeFit::rmsDb));
        return out.subList(0, Math.min(WALKED, out.size()));
    }

    private static StrikeFit nearest(
            Lines lines, Drive drive, double noise, double t60, White white, double[][] combs) {
        StrikeFit best = null;
        for (double contact : drive == Drive.BURST ? new double[] {1} : CONTACTS_MS) {
            for (double low : LOWS_HZ) {
                for (double high : HIGHS_HZ) {
                    if (high <= low || noise < -60 && (low != LOWS_HZ[1] || high != HIGHS_HZ[3])) {
                        continue;
                    }
                    Exciter e = new Exciter(contact, noise, t60, low, high);
                    double[] bare = lines.strike.levels(drive, e, white);
                    for (int i = 0; i < combs.length; i++) {
                        double left = left(lines, bare, combs[i], NEAR_DB[0]);
                        if (best == null || left < best.rmsDb) {
                            best = new StrikeFit(drive, e, i * PLUCK_STEP, null, left);
                        }
                    }
                }
            }
        }
        return best;
    }

    /** Weighted root mean square of what is left over at the best gain, strays counting as far [dB]. */
    private static double left(Lines lines, double[] bare, double[] comb, double near) {
        double sum = 0;
        for (double r : residuals(lines, bare, comb, near)) {
            sum += r * r;
        }
        return near * Math.sqrt(sum);
    }

    private static double[] residuals(Lines lines, double[] bare, double[] comb, double near) {
        double mean = 0;
        for (int k = 0; k < bare.length; k++) {
            mean += lines.weight[k] * (lines.db[k] - bare[k] - comb[k]);
        }
        double[] out = new double[bare.length];
        for (int k = 0; k < bare.length; k++) {
            double r = (lines.db[k] - bare[k] - comb[k] - mean) / near;
            out[k] = Math.sqrt(lines.weight[k]) * RobustLoss.limited(r);
        }
        return out;
    }

    // ---- on rulers that a polish may walk on ----

    private double[] unknowns() {
        return new double[] {
            Math.log(exciter.contactMs()),
            exciter.noiseDb() / 9,
            Math.log(exciter.noiseLowHz()),
            Math.log(exciter.noiseHighHz()),
            10 * pluck,
            Math.log(exciter.noiseT60Ms())
        };
    }

    private StrikeFit with(double[] u) {
        Exciter e = new Exciter(
                StartContext.limited(Math.exp(u[0]), 0.02, 20),
                StartContext.limited(9 * u[1], -100, 24),
                StartContext.limited(Math.exp(u[5]), 1, 2000),
                StartContext.limited(Math.exp(u[2]), 20, 10_000),
                StartContext.limited(Math.exp(u[3]), 50, 20_000));
        return new StrikeFit(drive, e, StartContext.limited(u[4] / 10, 0, 0.5), db, rmsDb);
    }

    private StrikeFit polished(Lines lines) {
        StrikeFit now = this;
        for (double near : NEAR_DB) {
            now = now.polished(lines, near);
        }
        return now;
    }

    private StrikeFit polished(Lines lines, double near) {
        White[] white = {null};
        double[] t60 = {0};
        double[] u = LevenbergMarquardt.nearest(unknowns(), at -> {
            StrikeFit f = with(at);
            if (white[0] == null || f.exciter.noiseT60Ms() != t60[0]) { // a noise is the costly part
                t60[0] = f.exciter.noiseT60Ms();
                white[0] = lines.strike.white(t60[0]);
            }
            return residuals(lines, lines.strike.levels(drive, f.exciter, white[0]), lines.strike.comb(f.pluck), near);
        });
        StrikeFit found = with(u);
        // from near all strays look alike
        return new StrikeFit(drive, found.exciter, found.pluck, null, found.left(lines, NEAR_DB[0]));
    }

    private double left(Lines lines, double near) {
        return left(
                lines,
                lines.strike.levels(drive, exciter, lines.strike.white(exciter.noiseT60Ms())),
                lines.strike.comb(pluck),
                near);
    }

    /** With how much louder the partials of the other string are than the same strike would make them. */
    private StrikeFit withSecond(StartContext g, LoopFit loop, boolean inverted, Lines lines) {
        if (loop.second() == null) {
            return this;
        }
        double fs = g.measurement().sampleRateHz();
        double hz = loop.f0Hz() * Math.pow(2, loop.second().detuneCents() / 1200);
        List<Mode> other = matched(g, loop, inverted, hz);
        double first = gain(lines.strike, lines.db, lines.weight);
        double[] db = other.stream().mapToDouble(m -> near(g, m).levelDb()).toArray();
        double[] even = new double[db.length];
        Arrays.fill(even, 1.0 / Math.max(1, db.length));
        StringStrike strike = new StringStrike(fs, hz, other, Renderer.CHANCE_OF_NOTE);
        double louder = db.length == 0 ? -12 : gain(strike, db, even) - first;
        return new StrikeFit(drive, exciter, pluck, StartContext.limited(louder, -60, 6), rmsDb);
    }

    private double gain(StringStrike strike, double[] db, double[] weight) {
        double[] bare = strike.levels(drive, exciter, strike.white(exciter.noiseT60Ms()));
        double[] comb = strike.comb(pluck);
        double mean = 0;
        for (int k = 0; k < db.length; k++) {
            mean += weight[k] * (db[k] - bare[k] - comb[k]);
        }
        return mean;
    }
}
