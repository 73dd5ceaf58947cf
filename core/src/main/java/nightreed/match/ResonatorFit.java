package nightreed.match;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import nightreed.measure.Measurement;
import nightreed.measure.Partial;
import nightreed.measure.Progress;
import nightreed.measure.StrikeNoise;
import nightreed.music.Pitch;
import nightreed.recipe.Mode;
import nightreed.recipe.ResonatorRecipe;
import nightreed.recipe.part.Exciter;
import nightreed.recipe.part.KeyTracking;
import nightreed.recipe.part.VelocityMap;
import nightreed.sound.UnusableSound;
import org.hipparchus.exception.MathIllegalStateException;
import org.hipparchus.optim.InitialGuess;
import org.hipparchus.optim.MaxEval;
import org.hipparchus.optim.nonlinear.scalar.GoalType;
import org.hipparchus.optim.nonlinear.scalar.ObjectiveFunction;
import org.hipparchus.optim.nonlinear.scalar.noderiv.NelderMeadSimplex;
import org.hipparchus.optim.nonlinear.scalar.noderiv.SimplexOptimizer;

/**
 * Resonators from a measurement: the partials are the modes, as many as the ear calls for; the strike is then polished on
 * the distance with real renders (J. A. Nelder, R. Mead, 1965).
 */
final class ResonatorFit {
    /** Modes that together would change the distance by less than this are left out [JND]. */
    private static final double NEGLIGIBLE_JND = 0.15;

    /** The strike is over by then; longer renders would only slow its polish [s]. */
    private static final double STRIKE_SPAN = 0.25;

    private static final int POLISH_RENDERS = 110;

    /** Sum of squares of four aspects [JND²] at which another start is not worth its time. */
    private static final double GOOD_ENOUGH = 2;

    private final Side recording;
    private final Progress progress;

    ResonatorFit(Side recording, Progress progress) {
        this.recording = recording;
        this.progress = progress;
    }

    /** @throws UnusableSound if the measurement holds no partial that decays */
    ResonatorRecipe run() throws UnusableSound {
        progress.report(0, "choosing modes");
        ResonatorRecipe start = start(recording);
        ResonatorRecipe polished = polish(start);
        progress.report(0.95, "checking the level");
        double gain = Listener.compare(recording, Prediction.of(polished, recording.measurement(), 30))
                .gainDb();
        return Math.abs(gain) < 6 ? polished.withLevelDb(clamp(polished.levelDb() + gain, -80, 6)) : polished;
    }

    /** The recipe as the measurement gives it, before anything is tried. */
    static ResonatorRecipe start(Side recording) throws UnusableSound {
        Measurement m = recording.measurement();
        if (m.isChord()) {
            throw new UnusableSound("These are several notes at once, and an imitation is of one: choose one of them on"
                    + " the Measure stage, or record them one by one.");
        }
        List<Partial> chosen = choose(recording);
        if (chosen.isEmpty() || m.f0Hz() == null) {
            throw new UnusableSound("No decaying partial stands clear of the noise, so there is nothing for resonators"
                    + " to ring at: use a longer or cleaner recording.");
        }
        int key = Math.max(0, Math.min(127, Pitch.nearestKey(m.f0Hz())));
        double f0 = m.f0Hz();
        double top = chosen.stream().mapToDouble(Partial::amplitude).max().orElse(1);
        List<Mode> modes = new ArrayList<>();
        for (Partial p : chosen) {
            modes.add(new Mode(
                    p.frequencyHz() / f0,
                    clamp(20 * Math.log10(p.amplitude() / top), -119, 0),
                    clamp(p.t60Seconds() == null ? 100 : p.t60Seconds(), 0.005, 100),
                    p.phaseRad()));
        }
        modes.sort(Comparator.comparingDouble(Mode::ratio));
        StrikeNoise n = m.noise();
        double contact = m.attackSeconds() == null ? 1 : clamp(1000 * m.attackSeconds(), 0.05, 12);
        Exciter exciter = n == null
                ? new Exciter(contact, -100, 20, 100, 8000)
                : new Exciter(
                        contact,
                        clamp(n.levelDb() + 3, -99, 24),
                        clamp(1000 * n.t60Seconds(), 2, 1500),
                        clamp(n.lowHz(), 20, 9000),
                        clamp(Math.max(n.highHz(), 1.5 * n.lowHz()), 60, 20_000));
        // how a body follows key and strength cannot be told from one note: usual values, to be fitted with more notes
        return new ResonatorRecipe(
                key,
                clamp(Pitch.cents(Pitch.hz(key), f0), -100, 100),
                clamp(20 * Math.log10(top), -80, 6),
                exciter,
                modes,
                new KeyTracking(0.7, 0.5),
                new VelocityMap(0.7, 24, 1.5),
                100);
    }

    /** The fewest partials without which the ear would miss little, the most audible first. */
    private static List<Partial> choose(Side recording) {
        List<PartialDifference> missing =
                recording.listener().missing(recording.measurement().reliablePartials());
        missing.sort(Comparator.comparingDouble(d -> -loss(d)));
        double left = missing.stream().mapToDouble(ResonatorFit::loss).sum();
        double weights = missing.stream().mapToDouble(PartialDifference::weight).sum();
        List<Partial> chosen = new ArrayList<>();
        for (PartialDifference d : missing) {
            boolean enough = left < NEGLIGIBLE_JND * NEGLIGIBLE_JND * weights;
            if (chosen.size() >= ResonatorRecipe.MOST_MODES || enough && !chosen.isEmpty()) {
                break;
            }
            chosen.add(d.recording());
            left -= loss(d);
        }
        return chosen;
    }

    private static double loss(PartialDifference d) {
        return d.weight() * d.levelJnd() * d.levelJnd();
    }

    /** From the measured strike, and if that leaves an audible difference, from a narrower and a wider one. */
    private ResonatorRecipe polish(ResonatorRecipe start) {
        double[] measured = {
            Math.log(start.exciter().contactMs()),
            start.exciter().noiseDb() / 6,
            Math.log(start.exciter().noiseT60Ms()),
            Math.log(start.exciter().noiseLowHz()),
            Math.log(start.exciter().noiseHighHz())
        };
        Trace best = descend(start, measured, 0.05, 0.5);
        for (double width : new double[] {-0.7, 0.7}) {
            if (best.cost > GOOD_ENOUGH) {
                double[] other = measured.clone();
                other[0] = Math.log(0.7);
                other[3] -= width;
                other[4] += width;
                Trace t = descend(start, other, 0.5, 0.9);
                best = t.cost < best.cost ? t : best;
            }
        }
        return with(start, best.x);
    }

    /** Best point met so far. */
    private static final class Trace {
        private double[] x;
        private double cost = Double.POSITIVE_INFINITY;
    }

    private Trace descend(ResonatorRecipe start, double[] from, double progressFrom, double progressTo) {
        Trace best = new Trace();
        int[] renders = {0};
        ObjectiveFunction objective = new ObjectiveFunction(x -> {
            double done = Math.min(1, (double) renders[0]++ / POLISH_RENDERS);
            progress.report(
                    progressFrom + done * (progressTo - progressFrom), "polishing the strike, render " + renders[0]);
            double cost = cost(with(start, x));
            if (cost < best.cost) {
                best.cost = cost;
                best.x = x.clone();
            }
            return cost;
        });
        try {
            new SimplexOptimizer(1e-3, 1e-3)
                    .optimize(
                            new MaxEval(POLISH_RENDERS),
                            objective,
                            GoalType.MINIMIZE,
                            new InitialGuess(from),
                            new NelderMeadSimplex(new double[] {0.5, 0.5, 0.5, 0.4, -0.3}));
        } catch (MathIllegalStateException outOfRenders) {
            // that is how a budget ends here; the best point is known
            return best;
        }
        return best;
    }

    private double cost(ResonatorRecipe r) {
        Comparison c = Listener.compare(recording, Prediction.of(r, recording.measurement(), STRIKE_SPAN));
        double sum = 0;
        for (Aspect a : List.of(Aspect.ATTACK, Aspect.NOISE, Aspect.BRIGHTNESS, Aspect.LOUDNESS)) {
            sum += c.jnd(a) * c.jnd(a);
        }
        return sum;
    }

    private static ResonatorRecipe with(ResonatorRecipe r, double[] x) {
        double low = clamp(Math.exp(x[3]), 20, 9000);
        return r.withExciter(new Exciter(
                clamp(Math.exp(x[0]), 0.03, 15),
                clamp(6 * x[1], -100, 24),
                clamp(Math.exp(x[2]), 1.5, 1500),
                low,
                clamp(Math.exp(x[4]), Math.max(60, low), 20_000)));
    }

    private static double clamp(double v, double least, double most) {
        return Math.max(least, Math.min(most, v));
    }
}
