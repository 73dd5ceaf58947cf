package nightreed.match.fit;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import nightreed.machine.Machine;
import nightreed.match.fit.Moves.Anchor;
import nightreed.measure.Progress;
import nightreed.recipe.Recipe;
import nightreed.recipe.part.Parameter;
import org.hipparchus.exception.MathRuntimeException;
import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.ArrayRealVector;
import org.hipparchus.linear.CholeskyDecomposition;
import org.hipparchus.linear.RealMatrix;
import org.hipparchus.linear.RealVector;

/**
 * Moves many values of a recipe at once towards less difference, each try a real render (K. Levenberg, 1944; D. Marquardt,
 * 1963, with differences for derivatives). Values move on their rulers. Renders are spread over all cores; the way taken
 * depends on nothing but what is given.
 */
final class Polish {
    private static final double[] DAMPINGS = {0.1, 1, 10, 100};
    private static final double LEAST_GAIN = 0.004; // of the cost; less is not worth another round

    /** Square of the change over a large step that makes no difference [JND²]. */
    private static final double UNHEARD = 1e-6;

    /** Every so many looks at the slopes, those that made no difference are looked at again. */
    private static final int ALL_AGAIN = 3;

    private final Trial trial;
    private final Budget budget;
    private final Progress progress;
    private final Machine machine;

    private final boolean patient;

    /** @param machine that must be able to play each recipe that is tried */
    Polish(Trial trial, Budget budget, Progress progress, Machine machine) {
        this(trial, budget, progress, machine, false);
    }

    private Polish(Trial trial, Budget budget, Progress progress, Machine machine, boolean patient) {
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
    Polish patient() {
        return new Polish(trial, budget, progress, machine, true);
    }

    private boolean isOver() {
        return patient ? budget.late() : budget.spent();
    }

    /** What a look at a recipe costs. */
    double cost(Recipe recipe) {
        return trial.cost(recipe);
    }

    /** A recipe and how it sounds. */
    record Point(Recipe recipe, double[] differences, double total) {}

    Point at(Recipe recipe) {
        Recipe playable = machine.limited(recipe);
        budget.spend(trial.cost(playable));
        double[] d = trial.differences(playable);
        return new Point(playable, d, QuickEar.total(d));
    }

    /** All of them, on all cores; of those that time is too short for only the first. */
    List<Point> at(List<? extends Recipe> recipes) {
        return IntStream.range(0, recipes.size())
                .parallel()
                .filter(i -> i == 0 || !budget.late())
                .mapToObj(i -> at(recipes.get(i)))
                .toList();
    }

    static Point best(List<Point> points) {
        Point best = points.get(0);
        for (Point p : points) {
            best = p.total < best.total ? p : best;
        }
        return best;
    }

    /** With what it costs to leave measured values. */
    private static Point anchored(Point p, Map<String, Anchor> anchors) {
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
        return new Point(p.recipe, all, QuickEar.total(all));
    }

    /**
     * @param anchors values that are believed
     * @param ids     values that may move
     * @param rounds  at the most
     */
    Point run(Point start, Map<String, Anchor> anchors, List<String> ids, int rounds) {
        return at(search(anchored(start, anchors), anchors, ids, rounds).recipe);
    }

    private Point search(Point start, Map<String, Anchor> anchors, List<String> ids, int rounds) {
        Point now = start;
        double damping = 0.03;
        int stuck = 0;
        int measured = 0;
        double[][] slopes = null; // as long as they hold
        boolean fresh = false;
        List<Axis> axes = List.of();
        List<String> heard = ids;
        while ((slopes != null || measured < rounds) && stuck < 2 && !isOver()) {
            if (budget.isOwners()) {
                progress.report(budget.share(), String.format(java.util.Locale.ROOT, "polishing, %.2f JND", now.total));
            }
            boolean look = slopes == null;
            axes = axes(now.recipe, look && measured % ALL_AGAIN == 0 ? ids : heard);
            if (look) {
                slopes = slopes(now, anchors, axes);
                if (budget.late()) {
                    return now; // not all of them may be there
                }
                measured++;
                fresh = true;
                boolean[] some = heard(slopes);
                heard = chosen(axes.stream().map(a -> a.parameter.id()).toList(), some);
                axes = chosen(axes, some);
                slopes = chosen(Arrays.asList(slopes), some).toArray(double[][]::new);
            }
            if (axes.isEmpty()) {
                return now;
            }
            Normal normal = Normal.of(now.differences, slopes);
            List<Recipe> tries = new ArrayList<>();
            for (double d : DAMPINGS) {
                tries.add(stepped(now, axes, normal, damping * d));
            }
            List<Point> met = at(tries).stream().map(p -> anchored(p, anchors)).toList();
            int chosen = 0;
            for (int i = 1; i < met.size(); i++) {
                chosen = met.get(i).total < met.get(chosen).total ? i : chosen;
            }
            Point next = met.get(chosen);
            boolean gained = next.total < (1 - LEAST_GAIN) * now.total;
            if (next.total < now.total) {
                damping = Math.max(1e-4, damping * DAMPINGS[chosen] / 3);
                bend(slopes, axes, now, next);
                now = next;
            } else if (fresh) {
                damping *= 100;
            }
            stuck = gained ? 0 : fresh ? stuck + 1 : stuck;
            slopes = gained ? slopes : null;
            fresh = false;
        }
        return now;
    }

    /** Which values make a difference at all: the width of a pulse does not where there is none. */
    private static boolean[] heard(double[][] slopes) {
        boolean[] out = new boolean[slopes.length];
        for (int i = 0; i < out.length; i++) {
            out[i] = dot(slopes[i], slopes[i]) > UNHEARD;
        }
        return out;
    }

    private static <T> List<T> chosen(List<T> all, boolean[] some) {
        return IntStream.range(0, some.length)
                .filter(i -> some[i])
                .mapToObj(all::get)
                .toList();
    }

    /** Slopes corrected by what a step has really done (C. G. Broyden, 1965): a new look at all of them costs far more. */
    private static void bend(double[][] slopes, List<Axis> axes, Point from, Point to) {
        double[] step = new double[axes.size()];
        double length = 0;
        for (int i = 0; i < step.length; i++) {
            Axis a = axes.get(i);
            double now = to.recipe.value(a.parameter.id());
            step[i] = (a.parameter.position(now) - a.parameter.position(a.value)) / a.large;
            length += step[i] * step[i];
        }
        if (length < 1e-12) {
            return;
        }
        for (int k = 0; k < from.differences.length; k++) {
            double foretold = 0;
            for (int i = 0; i < step.length; i++) {
                foretold += slopes[i][k] * step[i];
            }
            double missed = (to.differences[k] - from.differences[k] - foretold) / length;
            for (int i = 0; i < step.length; i++) {
                slopes[i][k] += missed * step[i];
            }
        }
    }

    /** One value and the steps that it is moved by, in places on its ruler. */
    record Axis(Parameter parameter, double value, double small, double large) {
        static Axis of(Parameter p, double value) {
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
            return new Axis(p, value, atTop ? -small : small, large);
        }

        Recipe moved(Recipe recipe, double by) {
            return recipe.with(parameter.id(), parameter.at(parameter.position(value) + by));
        }
    }

    static List<Axis> axes(Recipe recipe, List<String> ids) {
        List<Axis> out = new ArrayList<>();
        for (Recipe.Setting s : recipe.settings()) {
            if (ids.contains(s.parameter().id())) {
                out.add(Axis.of(s.parameter(), s.value()));
            }
        }
        return out;
    }

    /** Change of every difference as a value goes by its large step [axis][difference]; null where time was too short. */
    double[][] slopes(Point now, Map<String, Anchor> anchors, List<Axis> axes) {
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

    /** Products of all slopes with each other, and of each with what there is to lose: the same for every damping. */
    private record Normal(double[][] matrix, double[] right) {
        static Normal of(double[] differences, double[][] slopes) {
            int n = slopes.length;
            double[][] matrix = new double[n][n];
            double[] right = new double[n];
            IntStream.range(0, n).parallel().forEach(i -> {
                right[i] = -dot(slopes[i], differences);
                for (int j = 0; j <= i; j++) {
                    matrix[i][j] = dot(slopes[i], slopes[j]);
                }
            });
            return new Normal(matrix, right);
        }
    }

    /** The recipe after the step that a damping allows. */
    private static Recipe stepped(Point now, List<Axis> axes, Normal normal, double damping) {
        int n = axes.size();
        RealMatrix damped = new Array2DRowRealMatrix(n, n);
        for (int i = 0; i < n; i++) {
            for (int j = 0; j < i; j++) {
                damped.setEntry(i, j, normal.matrix[i][j]);
                damped.setEntry(j, i, normal.matrix[i][j]);
            }
            damped.setEntry(i, i, normal.matrix[i][i] * (1 + damping) + damping * 0.02 + 1e-9);
        }
        RealVector step;
        try {
            step = new CholeskyDecomposition(damped, 1e-9, 1e-12).getSolver().solve(new ArrayRealVector(normal.right));
        } catch (MathRuntimeException degenerate) {
            return now.recipe;
        }
        Recipe r = now.recipe;
        for (int i = 0; i < n; i++) {
            double by = Math.max(-1, Math.min(1, step.getEntry(i))) * axes.get(i).large;
            r = unlessItTouches(r, axes.get(i), by);
        }
        return r;
    }

    static double dot(double[] a, double[] b) {
        double sum = 0;
        for (int k = 0; k < a.length; k++) {
            sum += a[k] * b[k];
        }
        return sum;
    }
}
