package nightreed.recipe.size;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import nightreed.dsp.LineFit;
import nightreed.music.Bark;
import nightreed.recipe.Recipe;
import nightreed.recipe.part.Parameter;
import nightreed.recipe.part.Parameter.Law;

/**
 * A straight line that a value of a list's elements may lie on, once both it and what it depends on are put on fitting scales: two values
 * in place of one for each element.
 */
enum ListLaw {
    /** T60 = T · ratio^-p: what friction in the body does, with p of 0.5 to 2 (N. Fletcher, T. Rossing, 1998). */
    DECAY("mode", "t60", "ratio", Scale.LOG, Scale.LOG, 0.004, "T60 by frequency", "ln/ln", -4, 2),
    LEVEL("mode", "level", "ratio", Scale.OCTAVES, Scale.PLAIN, 0.06, "level by frequency", "dB/oct", -60, 30),
    SPECTRUM("harmonic", "level", "", Scale.OCTAVES, Scale.PLAIN, 0.06, "slope of the harmonics", "dB/oct", -60, 30),
    BAND_LEVEL("band", "level", "centre", Scale.OCTAVES, Scale.PLAIN, 0.06, "slope of the bands", "dB/oct", -40, 40),
    FORMANT_WIDTH("band", "width", "centre", Scale.LOG, Scale.LOG, 0.004, "width by frequency", "ln/ln", -2, 3),
    /** Evenly over the ear's own scale, gaps allowed. */
    BARK_SPACING("band", "centre", null, Scale.PLAIN, Scale.BARK, 0.01, "distance of the bands", "Bark", 0.1, 6),
    RATIO_SPACING("band", "centre", null, Scale.PLAIN, Scale.OCTAVES, 0.002, "distance of the bands", "oct", 0.02, 3);

    /** Fewest elements that make a law worth its two values. */
    static final int LEAST = 3;

    /** What makes a law a line. */
    private enum Scale {
        PLAIN,
        LOG,
        OCTAVES,
        BARK;

        double of(double v) {
            return switch (this) {
                case PLAIN -> v;
                case LOG -> Math.log(v);
                case OCTAVES -> Math.log(v) / Math.log(2);
                case BARK -> Bark.of(v);
            };
        }

        double back(double y) {
            return switch (this) {
                case PLAIN -> y;
                case LOG -> Math.exp(y);
                case OCTAVES -> Math.pow(2, y);
                case BARK -> Bark.hz(y);
            };
        }
    }

    private final String list;
    private final String component;
    private final String over; // what it depends on: a component, the element's number if empty; null for even steps
    private final Scale across;
    private final Scale up;
    private final double tolerance; // what the last digit shown can hide, on the scale
    private final String title;
    private final String unit;
    private final double least;
    private final double most;

    ListLaw(
            String list,
            String component,
            String over,
            Scale across,
            Scale up,
            double tolerance,
            String title,
            String unit,
            double least,
            double most) {
        this.list = list;
        this.component = component;
        this.over = over;
        this.across = across;
        this.up = up;
        this.tolerance = tolerance;
        this.title = title;
        this.unit = unit;
        this.least = least;
        this.most = most;
    }

    boolean isOf(String aList) {
        return list.equals(aList);
    }

    String title() {
        return title;
    }

    String column() {
        return list + "." + component;
    }

    boolean isOf(String aList, String aComponent) {
        return list.equals(aList) && component.equals(aComponent);
    }

    /** An element of the list on the scales of the law. */
    private record Point(String id, double x, double y) {}

    /**
     * The most elements that lie on one line.
     *
     * @param values   all of a recipe by id
     * @param elements numbers of those whose value is not neutral, from 1
     * @return null if there are too few on any
     */
    Line found(Map<String, Double> values, List<Integer> elements, Map<String, Parameter> parameters) {
        List<Point> points = points(values, elements);
        List<Point> best = List.of();
        for (int i = 0; i < points.size(); i++) {
            for (int k = i + 1; k < points.size(); k++) {
                if (over != null && many(points, points.get(i), points.get(k)) <= best.size()) {
                    continue; // most pairs of long lists, which need not be gathered
                }
                List<Point> on = over == null ? evenly(points, i, k) : on(points, points.get(i), points.get(k));
                best = on.size() > best.size() ? on : best;
            }
        }
        return best.size() < LEAST ? null : line(best, parameters);
    }

    private List<Point> points(Map<String, Double> values, List<Integer> elements) {
        List<Point> out = new ArrayList<>();
        for (int e : elements) {
            String id = list + "." + e + "." + component;
            double x = over == null || over.isEmpty() ? e : values.get(list + "." + e + "." + over);
            double y = up.of(values.get(id));
            if (Double.isFinite(y)) {
                out.add(new Point(id, over == null ? 0 : across.of(x), y));
            }
        }
        return out;
    }

    private List<Point> on(List<Point> points, Point a, Point b) {
        return points.stream().filter(p -> isOn(p, a, b)).toList();
    }

    private int many(List<Point> points, Point a, Point b) {
        int n = 0;
        for (Point p : points) {
            n += isOn(p, a, b) ? 1 : 0;
        }
        return n;
    }

    /** Whether a point lies on the line through two others; two of one place have none. */
    private boolean isOn(Point p, Point a, Point b) {
        double wide = b.x - a.x;
        return Math.abs(wide) > 1e-6 && Math.abs(a.y + (b.y - a.y) * (p.x - a.x) / wide - p.y) < tolerance;
    }

    /** A whole number of steps from a first one, the step being the way between two neighbours. */
    private List<Point> evenly(List<Point> points, int first, int second) {
        List<Point> out = new ArrayList<>();
        double step = points.get(second).y - points.get(first).y;
        if (second != first + 1 || !(step > 20 * tolerance)) {
            return out;
        }
        double from = points.get(first).y;
        for (Point p : points) {
            double steps = Math.rint((p.y - from) / step);
            if (Math.abs(p.y - from - steps * step) < tolerance) {
                out.add(new Point(p.id, steps, p.y));
            }
        }
        return out;
    }

    private Line line(List<Point> on, Map<String, Parameter> parameters) {
        Parameter height = parameters.get(on.get(0).id);
        Parameter slope = new Parameter(
                list + "." + component + ".law",
                height.group(),
                title,
                unit,
                least,
                most,
                Law.LINEAR,
                2,
                "How the " + component + " of all that follow this law goes with its place.",
                List.of());
        return new Line(
                this,
                slope,
                height,
                on.stream().map(Point::id).toList(),
                on.stream().mapToDouble(Point::x).toArray());
    }

    /** Values that lie on a law, and the two that say which. */
    static final class Line {
        private final ListLaw law;
        private final Parameter slopeParameter;
        private final Parameter heightParameter;
        private final List<String> ids;
        private final double[] x;

        private Line(ListLaw law, Parameter slopeParameter, Parameter heightParameter, List<String> ids, double[] x) {
            this.law = law;
            this.slopeParameter = slopeParameter;
            this.heightParameter = heightParameter;
            this.ids = ids;
            this.x = x;
        }

        List<String> ids() {
            return ids;
        }

        List<FreeValue> values(Map<String, Parameter> parameters) {
            List<FreeValue> out = new ArrayList<>(List.of(new Height(this), new Slope(this)));
            for (int i = 0; law.over == null && i < x.length; i++) {
                double before = x[i] - 1;
                double place = x[i];
                boolean first = Arrays.stream(x).allMatch(v -> v >= place);
                if (!first && Arrays.stream(x).noneMatch(v -> v == before)) {
                    out.add(new Gap(parameters.get(ids.get(i)), (int) place));
                }
            }
            return out;
        }

        private double y(Recipe r, int i) {
            return law.up.of(r.value(ids.get(i)));
        }

        private int last() {
            int far = 0;
            for (int i = 1; i < x.length; i++) {
                far = Math.abs(x[i] - x[0]) > Math.abs(x[far] - x[0]) ? i : far;
            }
            return far;
        }

        double slope(Recipe r) {
            int far = last();
            return (y(r, far) - y(r, 0)) / (x[far] - x[0]);
        }

        /** All on a line through a first value. */
        Recipe on(Recipe recipe, double first, double slope) {
            Recipe r = recipe;
            boolean rising = slope * (x[last()] - x[0]) >= slope(recipe) * (x[last()] - x[0]);
            double y0 = law.up.of(first);
            for (int n = 0; n < ids.size(); n++) { // bands may not pass each other on the way
                int i = rising ? ids.size() - 1 - n : n;
                r = r.with(ids.get(i), law.up.back(y0 + slope * (x[i] - x[0])));
            }
            return r;
        }
    }

    /** Where the line begins: the value of its first element. */
    private record Height(Line line) implements FreeValue {
        @Override
        public Parameter parameter() {
            return line.heightParameter;
        }

        @Override
        public List<String> ids() {
            return line.ids;
        }

        @Override
        public double value(Recipe recipe) {
            return recipe.value(line.ids.get(0));
        }

        @Override
        public Recipe with(Recipe recipe, double value) {
            return line.on(recipe, line.heightParameter.clamp(value), line.slope(recipe));
        }
    }

    /** How it goes on from there. */
    private record Slope(Line line) implements FreeValue {
        @Override
        public Parameter parameter() {
            return line.slopeParameter;
        }

        @Override
        public String name() {
            return line.slopeParameter.name();
        }

        @Override
        public List<String> ids() {
            return line.ids;
        }

        @Override
        public double value(Recipe recipe) {
            return line.slope(recipe);
        }

        @Override
        public Recipe with(Recipe recipe, double value) {
            return line.on(recipe, recipe.value(line.ids.get(0)), line.slopeParameter.clamp(value));
        }
    }

    /** A recipe whose values of a list are put on the line that lies nearest, some of them left out; null if there are too few. */
    Recipe put(Recipe recipe, Map<String, Double> values, List<Integer> elements, double[] weights, int leftOut) {
        List<Point> points = new ArrayList<>(points(values, elements));
        if (over == null || points.size() - leftOut < LEAST || points.size() != elements.size()) {
            return null;
        }
        List<Integer> in = new ArrayList<>();
        for (int i = 0; i < points.size(); i++) {
            in.add(i);
        }
        LineFit line = line(points, weights, in);
        for (int n = 0; n < leftOut; n++) {
            int worst = -1;
            double far = -1;
            for (int i : in) {
                double off = Math.sqrt(weights[i]) * Math.abs(points.get(i).y - at(line, points.get(i).x));
                if (off > far) {
                    far = off;
                    worst = i;
                }
            }
            in.remove((Integer) worst);
            line = line(points, weights, in);
        }
        Recipe r = recipe;
        for (int i : in) {
            r = r.with(points.get(i).id, up.back(at(line, points.get(i).x)));
        }
        return r;
    }

    private static double at(LineFit line, double x) {
        return line.intercept() + line.slope() * x;
    }

    private static LineFit line(List<Point> points, double[] weights, List<Integer> in) {
        LineFit line = new LineFit();
        in.forEach(i -> line.add(points.get(i).x, points.get(i).y, weights[i]));
        return line;
    }
}
