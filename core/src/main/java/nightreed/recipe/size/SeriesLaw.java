package nightreed.recipe.size;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import nightreed.measure.law.ModelSeries;
import nightreed.recipe.Recipe;
import nightreed.recipe.part.Parameter;
import nightreed.recipe.part.Parameter.Law;

/** Modes whose ratios are those of a body with a name, or of a stiff string: one or two values in place of one for each. */
final class SeriesLaw {
    /** Share of a ratio that its last digit shown can hide: 0.3 cents. */
    private static final double SAME = 1.7e-4;

    /** Most stiffness that is still a string: that of the shortest of a small piano (H. Fletcher, 1964). */
    private static final double MOST_STIFFNESS = 0.02;

    private static final int MOST_NUMBER = 64;

    /** Name of the body whose ratios are stretched whole numbers. */
    static final String STRING = "stiff string";

    private SeriesLaw() {}

    /** Ratios that are those of a body. @param numbers which of the body's each mode is, from 1 */
    record Found(String name, List<String> ids, List<Integer> numbers, double stiffness) {
        /** Values that say all of them: the body, and its stiffness if it has any. */
        List<FreeValue> values(Map<String, Parameter> parameters) {
            List<FreeValue> out = new ArrayList<>(List.of(new Body(this)));
            if (stiffness > 0) {
                out.add(new Stiffness(this));
            }
            for (int i = 0; i < ids.size(); i++) {
                int n = numbers.get(i);
                if (n > lowest() && !numbers.contains(n - 1)) {
                    out.add(new Gap(parameters.get(ids.get(i)), n));
                }
            }
            return out;
        }

        private int lowest() {
            return numbers.stream().mapToInt(n -> n).min().orElse(1);
        }

        /** What it saves: a value for each, less what says the law. */
        int saved() {
            int[] places = numbers.stream().mapToInt(n -> n).toArray();
            return ids.size() - 1 - (stiffness > 0 ? 1 : 0) - Gap.among(places);
        }
    }

    static double stretched(int n, double stiffness) {
        return n * Math.sqrt((1 + stiffness * n * n) / (1 + stiffness));
    }

    /** The body that says most of the ratios in fewest values; null if there are fewer than a law needs. */
    static Found found(Map<String, Double> values, List<Integer> elements) {
        Found best = null;
        for (ModelSeries s : ModelSeries.all()) {
            best = better(best, named(s, values, elements));
        }
        for (int e : elements) { // the stiffness of each, in case others have it, too
            best = better(best, stiff(e, values, elements));
        }
        return best == null || best.ids.size() < ListLaw.LEAST ? null : best;
    }

    private static Found better(Found a, Found b) {
        return a == null || b.saved() > a.saved() ? b : a;
    }

    private static Found named(ModelSeries s, Map<String, Double> values, List<Integer> elements) {
        List<String> ids = new ArrayList<>();
        List<Integer> numbers = new ArrayList<>();
        for (int e : elements) {
            for (int n = 0; n < s.ratios().length; n++) {
                if (same(values.get(id(e)), s.ratios()[n])) {
                    ids.add(id(e));
                    numbers.add(n + 1);
                    break;
                }
            }
        }
        return new Found(s.name(), ids, numbers, 0);
    }

    private static Found stiff(int element, Map<String, Double> values, List<Integer> elements) {
        List<String> ids = new ArrayList<>();
        List<Integer> numbers = new ArrayList<>();
        double r = values.get(id(element));
        int n = (int) Math.min(MOST_NUMBER, Math.max(1, Math.floor(r)));
        double b = stiffness(r, n);
        if (!(b > 0) || n < 2) {
            return new Found(STRING, ids, numbers, 0);
        }
        double[] all = stretched(b);
        for (int e : elements) {
            double ratio = values.get(id(e));
            int k = 1;
            while (k < MOST_NUMBER && all[k] < ratio && !same(ratio, all[k])) {
                k++;
            }
            if (same(ratio, all[k])) {
                ids.add(id(e));
                numbers.add(k);
            }
        }
        return new Found(STRING, ids, numbers, b);
    }

    /** B that puts number n at a ratio; not above 0 if none does. */
    private static double stiffness(double ratio, int n) {
        double q = (ratio / n) * (ratio / n);
        double b = (q - 1) / ((double) n * n - q);
        return n < 2 || b > MOST_STIFFNESS ? 0 : b;
    }

    private static boolean same(double a, double b) {
        return Math.abs(a / b - 1) < SAME;
    }

    private static String id(int element) {
        return "mode." + element + ".ratio";
    }

    /**
     * A recipe with ratios put on a body's, those that lie within so many cents of one.
     *
     * @return null if fewer than a law needs do
     */
    static Recipe put(Recipe recipe, Map<String, Double> values, List<Integer> elements, String body, double cents) {
        Recipe r = recipe;
        int many = 0;
        double b = body == null ? bestStiffness(values, elements) : 0;
        for (int e : elements) {
            double ratio = values.get(id(e));
            double near = body == null
                    ? nearestStretched(ratio, b)
                    : nearest(series(body).ratios(), ratio);
            if (Math.abs(1200 * Math.log(ratio / near) / Math.log(2)) < cents) {
                r = r.with(id(e), near);
                many++;
            }
        }
        return many < ListLaw.LEAST ? null : r;
    }

    private static ModelSeries series(String name) {
        return ModelSeries.all().stream()
                .filter(s -> s.name().equals(name))
                .findFirst()
                .orElseThrow();
    }

    private static double nearest(double[] ratios, double ratio) {
        double best = ratios[0];
        for (double r : ratios) {
            best = Math.abs(Math.log(r / ratio)) < Math.abs(Math.log(best / ratio)) ? r : best;
        }
        return best;
    }

    /** Ratios of a string by number; that of 0 stands for none. */
    private static double[] stretched(double stiffness) {
        double[] out = new double[MOST_NUMBER + 1];
        for (int n = 1; n <= MOST_NUMBER; n++) {
            out[n] = stretched(n, stiffness);
        }
        return out;
    }

    private static double nearestStretched(double ratio, double b) {
        double[] all = stretched(b);
        return nearest(Arrays.copyOfRange(all, 1, all.length), ratio);
    }

    /** Of a fine net, the one that the ratios lie nearest to. */
    private static double bestStiffness(Map<String, Double> values, List<Integer> elements) {
        double best = 0;
        double least = Double.POSITIVE_INFINITY;
        for (double b = 1e-6; b < MOST_STIFFNESS; b *= 1.1) {
            double sum = 0;
            for (int e : elements) {
                double ratio = values.get(id(e));
                double off = Math.abs(Math.log(ratio / nearestStretched(ratio, b)));
                sum += Math.min(off, 0.01);
            }
            if (sum < least) {
                least = sum;
                best = b;
            }
        }
        return best;
    }

    /** Which body it is: a choice. */
    private record Body(Found found) implements FreeValue {
        @Override
        public Parameter parameter() {
            List<String> names = new ArrayList<>(
                    ModelSeries.all().stream().map(ModelSeries::name).toList());
            names.add(STRING);
            return new Parameter(
                    "mode.ratio.law",
                    Parameter.Group.BODY,
                    "series",
                    "",
                    0,
                    names.size() - 1,
                    Law.CHOICE,
                    0,
                    "Body whose ratios the modes have.",
                    names);
        }

        @Override
        public List<String> ids() {
            return found.ids;
        }

        @Override
        public String name() {
            return "series of the modes";
        }

        @Override
        public double value(Recipe recipe) {
            return parameter().choices().indexOf(found.name);
        }

        @Override
        public Recipe with(Recipe recipe, double value) {
            return recipe; // modes are put on another body's ratios by its name, all at once
        }
    }

    /** How far a string's ratios are stretched. */
    private record Stiffness(Found found) implements FreeValue {
        @Override
        public Parameter parameter() {
            return new Parameter(
                    "mode.stiffness.law",
                    Parameter.Group.BODY,
                    "stiffness B",
                    "",
                    0,
                    MOST_STIFFNESS,
                    Law.ROOT,
                    6,
                    "Stretches the upper modes: n·sqrt(1 + B·n²).",
                    List.of());
        }

        @Override
        public List<String> ids() {
            return found.ids;
        }

        @Override
        public String name() {
            return parameter().name();
        }

        @Override
        public double value(Recipe recipe) {
            int last = found.ids.size() - 1;
            return Math.max(0, stiffness(recipe.value(found.ids.get(last)), found.numbers.get(last)));
        }

        @Override
        public Recipe with(Recipe recipe, double value) {
            Recipe r = recipe;
            double b = parameter().clamp(value);
            for (int i = 0; i < found.ids.size(); i++) {
                r = r.with(found.ids.get(i), stretched(found.numbers.get(i), b));
            }
            return r;
        }
    }
}
