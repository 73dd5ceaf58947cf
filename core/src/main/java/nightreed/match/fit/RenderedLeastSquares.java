package nightreed.match.fit;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.IntStream;
import nightreed.machine.Machine;
import nightreed.match.method.Methods;
import nightreed.match.start.Anchor;
import nightreed.optim.LeastSquaresProblem;
import nightreed.optim.LevenbergMarquardt;
import nightreed.optim.Solution;
import nightreed.recipe.Recipe;
import nightreed.recipe.part.Parameter;
import nightreed.recipe.size.EqualValues;
import nightreed.recipe.size.FreeValue;
import nightreed.work.Progress;

/**
 * Least squares over many values of a recipe at once; each trial is a real render. Values move on their rulers. Renders run on all cores;
 * the result depends only on what is given.
 */
public final class RenderedLeastSquares {
    /**
     * Four dampings at once, which several cores compute side by side. A gain under 0.8 % of the cost is not worth an iteration. A
     * large step of any value costs 0.02 JND² times the damping: differences of renders tell no more than that.
     */
    private static final LevenbergMarquardt.Options OPTIONS = new LevenbergMarquardt.Options(
            12, 0.008, 0.03, 1e-4, 100, 3, 1, 0, 0.02, 2, List.of(0.1, 1.0, 10.0, 100.0), true);

    /** Square of the change over a large step that makes no difference [JND²]. */
    private static final double UNHEARD = 1e-6;

    /** Every so many looks at the slopes, those that made no difference are looked at again. */
    private static final int ALL_AGAIN = 3;

    private final ResidualFunction trial;
    private final Budget budget;
    private final Progress progress;
    private final Machine machine;

    private final BestSoFar best;
    private final boolean patient;

    /** @param machine that must be able to play each recipe that is tried */
    public RenderedLeastSquares(ResidualFunction trial, Budget budget, Progress progress, Machine machine) {
        this(trial, budget, progress, machine, new BestSoFar());
    }

    /** @param best offered whatever is heard */
    public RenderedLeastSquares(
            ResidualFunction trial, Budget budget, Progress progress, Machine machine, BestSoFar best) {
        this(trial, budget, progress, machine, best, false);
    }

    private RenderedLeastSquares(
            ResidualFunction trial,
            Budget budget,
            Progress progress,
            Machine machine,
            BestSoFar best,
            boolean patient) {
        this.best = best;
        this.patient = patient;
        this.trial = trial;
        this.budget = budget;
        this.progress = progress;
        this.machine = machine;
    }

    /**
     * One whose rounds do not end when the budget is spent, only when its time is: of several that walk side by side, which
     * spends the last of it would be chance.
     */
    public RenderedLeastSquares patient() {
        return new RenderedLeastSquares(trial, budget, progress, machine, best, true);
    }

    private boolean isOver() {
        return patient ? budget.late() : budget.spent();
    }

    /** What a look at a recipe costs. */
    public double cost(Recipe recipe) {
        return trial.cost(recipe);
    }

    /** A recipe and how it sounds. */
    public record Candidate(Recipe recipe, double[] differences, double total) {}

    public Candidate at(Recipe recipe) {
        Recipe playable = machine.limited(recipe);
        budget.spend(trial.cost(playable));
        double[] d = trial.differences(playable);
        Candidate met = new Candidate(playable, d, PerceptualResiduals.total(d));
        best.offer(met);
        return met;
    }

    /** All of them, on all cores; of those that time is too short for only the first. */
    public List<Candidate> at(List<? extends Recipe> recipes) {
        return IntStream.range(0, recipes.size())
                .parallel()
                .filter(i -> i == 0 || !budget.late())
                .mapToObj(i -> at(recipes.get(i)))
                .toList();
    }

    public static Candidate best(List<Candidate> points) {
        Candidate best = points.get(0);
        for (Candidate p : points) {
            best = p.total < best.total ? p : best;
        }
        return best;
    }

    /** With what it costs to leave measured values. */
    private static Candidate anchored(Candidate p, Map<String, Anchor> anchors) {
        if (anchors.isEmpty()) {
            return p;
        }
        int n = p.differences.length;
        double[] all = Arrays.copyOf(p.differences, n + anchors.size());
        Map<String, Double> values = new HashMap<>();
        p.recipe.settings().forEach(s -> values.put(s.parameter().id(), s.value()));
        for (Map.Entry<String, Anchor> a : anchors.entrySet()) {
            all[n++] = a.getValue().difference(values.get(a.getKey()));
        }
        return new Candidate(p.recipe, all, PerceptualResiduals.total(all));
    }

    /**
     * @param anchors values that are believed
     * @param ids     values that may move
     * @param rounds  at the most
     */
    public Candidate run(Candidate start, Map<String, Anchor> anchors, List<String> ids, int rounds) {
        return runTogether(start, anchors, Methods.of(start.recipe).together(start.recipe, ids), rounds);
    }

    /** The same with values that stand for several, which stay as they are to each other. */
    public Candidate runTogether(
            Candidate start, Map<String, Anchor> anchors, List<? extends FreeValue> free, int rounds) {
        List<Axis> axes = free.stream()
                .filter(FreeValue::isNumber)
                .map(v -> Axis.of(v, v.value(start.recipe)))
                .toList();
        return along(start, anchors, axes, rounds);
    }

    private Candidate along(Candidate start, Map<String, Anchor> anchors, List<Axis> axes, int rounds) {
        Values values = new Values(start, anchors, axes);
        if (values.axes.isEmpty()) {
            return start;
        }
        Solution end = LevenbergMarquardt.minimize(
                values, new double[values.axes.size()], OPTIONS.withMostIterations(rounds), this::isOver);
        Recipe found = values.recipe(end.point());
        return found.equals(start.recipe) ? start : at(found);
    }

    /**
     * Values of a recipe as parameters of a least-squares search: each in large steps from where it starts. Recipes are made by
     * moving the accepted one, so that values that depend on each other, such as the order of bands, move together.
     */
    private final class Values implements LeastSquaresProblem {
        private final Map<String, Anchor> anchors;
        private final List<Axis> axes;
        private final double[] origin; // positions on the rulers at the start
        private final IdentityHashMap<double[], Recipe> recipes = new IdentityHashMap<>(); // of points that were made
        private final IdentityHashMap<double[], Candidate> met = new IdentityHashMap<>(); // of points that were heard
        private double[] accepted;
        private boolean[] heard; // parameters that made a difference when they were last looked at
        private int looks;

        Values(Candidate start, Map<String, Anchor> anchors, List<Axis> axes) {
            this.anchors = anchors;
            this.axes = axes;
            this.origin = axes.stream()
                    .mapToDouble(a -> a.parameter.position(a.value))
                    .toArray();
            this.accepted = new double[axes.size()];
            recipes.put(accepted, start.recipe);
            met.put(accepted, anchored(start, anchors));
        }

        @Override
        public double[] bounded(double[] point) {
            if (recipes.size() == 1 && accepted.length == point.length && isZero(point)) {
                return accepted; // the start itself
            }
            Recipe r = recipes.get(accepted);
            for (int i = 0; i < point.length; i++) {
                Axis a = axes.get(i);
                double by = origin[i] + point[i] * a.large - a.parameter.position(a.value); // from the start
                r = point[i] == accepted[i] ? r : unlessItTouches(r, a, by);
            }
            r = machine.limited(r);
            double[] there = new double[point.length];
            for (int i = 0; i < there.length; i++) {
                Axis a = axes.get(i);
                there[i] = (a.parameter.position(a.free.value(r)) - origin[i]) / a.large;
            }
            recipes.put(there, r);
            return there;
        }

        private static boolean isZero(double[] point) {
            return Arrays.stream(point).allMatch(v -> v == 0);
        }

        @Override
        public double[] residuals(double[] point) {
            Candidate there = met.get(point);
            if (there == null) {
                there = anchored(at(recipes.get(point)), anchors);
                met.put(point, there);
            }
            return there.differences;
        }

        @Override
        public List<double[]> residualsOfAll(List<double[]> points) {
            Candidate[] found = new Candidate[points.size()];
            IntStream.range(0, found.length)
                    .parallel()
                    .filter(i -> !budget.late())
                    .forEach(i -> found[i] = anchored(at(recipes.get(points.get(i))), anchors));
            List<double[]> out = new ArrayList<>();
            for (int i = 0; i < found.length; i++) {
                out.add(found[i] == null ? null : found[i].differences);
                if (found[i] != null) {
                    met.put(points.get(i), found[i]);
                }
            }
            return out;
        }

        /** Null where time was too short for all of it. */
        @Override
        public double[][] jacobian(double[] point, double[] residuals) {
            accept(point);
            Candidate now = met.get(point);
            progress.report(budget.share(), String.format(Locale.ROOT, "polishing, %.2f JND", now.total));
            boolean all = looks++ % ALL_AGAIN == 0;
            List<Axis> moved = new ArrayList<>();
            for (int i = 0; i < axes.size(); i++) {
                if (all || heard[i]) {
                    Axis a = axes.get(i);
                    moved.add(Axis.of(a.free, a.free.value(now.recipe)));
                }
            }
            double[][] some = slopes(now, anchors, moved);
            if (budget.late()) {
                return null;
            }
            double[][] out = new double[axes.size()][];
            boolean[] differs = new boolean[out.length];
            for (int i = 0, at = 0; i < out.length; i++) {
                out[i] = all || heard[i] ? some[at++] : new double[residuals.length];
                differs[i] = dot(out[i], out[i]) > UNHEARD;
                if (!differs[i]) {
                    Arrays.fill(out[i], 0); // the width of a pulse makes no difference where there is none
                }
            }
            heard = differs;
            return out;
        }

        @Override
        public double[] stepLimits(double[] point) {
            accept(point);
            double[] out = new double[point.length];
            Arrays.fill(out, 1);
            return out;
        }

        private void accept(double[] point) {
            Recipe r = recipes.get(point);
            Candidate p = met.get(point);
            recipes.clear();
            met.clear();
            recipes.put(point, r);
            met.put(point, p);
            accepted = point;
        }

        Recipe recipe(double[] point) {
            return recipes.get(point);
        }
    }

    /** One value and the steps that it is moved by, in places on its ruler. */
    public record Axis(FreeValue free, Parameter parameter, double value, double small, double large) {
        static Axis of(FreeValue free, double value) {
            Parameter p = free.parameter();
            double range = p.most() - p.least();
            double small;
            double large;
            if (p.unit().equals("×")) {
                double cent = Math.log(2) / 1200 / Math.log(p.most() / p.least());
                small = cent;
                large = 40 * cent;
            } else if (p.unit().equals("cents")) {
                small = 1.5 / range;
                large = Math.max(0.02, 20 / range);
            } else if (p.unit().startsWith("dB")) {
                small = 0.4 / range;
                large = 10 / range;
            } else if (p.law() == Parameter.Law.LOGARITHMIC) {
                small = Math.log(1.03) / Math.log(p.most() / p.least());
                large = Math.log(2.5) / Math.log(p.most() / p.least());
            } else {
                small = p.law() == Parameter.Law.ROOT ? 0.006 : 0.01;
                large = 0.15;
            }
            boolean atTop = p.position(value) + small > 1;
            return new Axis(free, p, value, atTop ? -small : small, large);
        }

        public Recipe moved(Recipe recipe, double by) {
            return free.with(recipe, parameter.at(parameter.position(value) + by));
        }
    }

    public static List<Axis> axes(Recipe recipe, List<String> ids) {
        List<Axis> out = new ArrayList<>();
        for (Recipe.Setting s : recipe.settings()) {
            if (ids.contains(s.parameter().id())) {
                out.add(Axis.of(EqualValues.one(s.parameter()), s.value()));
            }
        }
        return out;
    }

    /** Change of every difference as a value goes by its large step [axis][difference]; null where time was too short. */
    public double[][] slopes(Candidate now, Map<String, Anchor> anchors, List<Axis> axes) {
        double[][] out = new double[axes.size()][];
        IntStream.range(0, out.length).parallel().filter(i -> !budget.late()).forEach(i -> {
            Axis a = axes.get(i);
            double[] moved = anchored(at(unlessItTouches(now.recipe, a, a.small)), anchors)
                    .differences();
            for (int k = 0; k < moved.length; k++) {
                moved[k] = (moved[k] - now.differences[k]) * a.large / a.small;
            }
            out[i] = moved;
        });
        return out;
    }

    /** Moved, unless that is not allowed beside the other values, such as two bands that would change places. */
    private static Recipe unlessItTouches(Recipe recipe, Axis a, double by) {
        try {
            return a.moved(recipe, by);
        } catch (IllegalArgumentException touches) {
            return recipe;
        }
    }

    public static double dot(double[] a, double[] b) {
        double sum = 0;
        for (int k = 0; k < a.length; k++) {
            sum += a[k] * b[k];
        }
        return sum;
    }
}
