package nightreed.match.frontier;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import nightreed.match.advice.Adviser;
import nightreed.match.compare.Comparison;
import nightreed.match.hearing.Use;
import nightreed.recipe.Recipe;
import nightreed.recipe.size.PatchSize;

/**
 * Patches from the simplest to the nearest, each both further and simpler than the next.
 *
 * @param points by rising size; at least one
 */
public record Frontier(List<Point> points) {
    /** What a value more has to bring to be worth setting [JND]; chosen: ten values for a fifth of what is just noticed. */
    private static final double WORTH_JND = 0.02;

    /**
     * A patch.
     *
     * @param size     values that a hand has to set
     * @param totalJnd distance of a fresh render from the recording [JND]
     */
    public record Point(int size, Recipe recipe, double totalJnd) {
        /** @param comparison of a fresh render with the recording */
        static Point of(Recipe recipe, Comparison comparison) {
            return new Point(PatchSize.of(recipe), recipe, comparison.totalJnd());
        }

        public String method() {
            return recipe.method();
        }
    }

    public Frontier {
        if (points.isEmpty()) {
            throw new IllegalArgumentException("a frontier has at least one point");
        }
        points = List.copyOf(points);
    }

    /** Of many patches, those that none beats that is as simple and as near. */
    public static Frontier of(List<Point> met) {
        List<Point> order = new ArrayList<>(met);
        order.sort(Comparator.comparingInt(Point::size).thenComparingDouble(Point::totalJnd));
        List<Point> out = new ArrayList<>();
        for (Point p : order) {
            if (out.isEmpty() || p.totalJnd() < out.get(out.size() - 1).totalJnd()) {
                out.add(p);
            }
        }
        return new Frontier(out);
    }

    /** The best of several, of whatever method. */
    public static Frontier over(List<Frontier> all) {
        return of(all.stream().flatMap(f -> f.points.stream()).toList());
    }

    /** Points of one method alone, null if there is none; as they were found, though those of others may beat them. */
    public Frontier by(String method) {
        List<Point> own = points.stream().filter(p -> p.method().equals(method)).toList();
        return own.isEmpty() ? null : of(own);
    }

    public Point simplest() {
        return points.get(0);
    }

    public Point nearest() {
        return points.get(points.size() - 1);
    }

    /** The nearest with at most so many values; the simplest if none is so simple. */
    public Point atMost(int size) {
        Point best = simplest();
        for (Point p : points) {
            best = p.size() <= size ? p : best;
        }
        return best;
    }

    /** The simplest that is at least so near [JND]; the nearest if none is. */
    public Point within(double jnd) {
        for (Point p : points) {
            if (p.totalJnd() <= jnd) {
                return p;
            }
        }
        return nearest();
    }

    /**
     * The one in which each value more than in a simpler one is worth setting. What is nearer than the use asks for is worth
     * nothing.
     */
    public Point recommended(Use use) {
        return points.stream()
                .min(Comparator.comparingDouble(p -> Math.max(p.totalJnd(), use.mostJnd()) + WORTH_JND * p.size()))
                .orElseThrow();
    }

    /**
     * What a point takes and gives, and what the next would bring, in a sentence.
     *
     * @param method what people call its method
     */
    public String words(Point p, String method) {
        String now = String.format(
                Locale.ROOT, "%s: %s, %d values, %.1f JND", method, Adviser.cost(p.recipe()), p.size(), p.totalJnd());
        int at = points.indexOf(p);
        if (at < 0) {
            return now;
        }
        if (at == points.size() - 1) {
            return now + "; nothing nearer was found";
        }
        Point next = points.get(at + 1);
        int more = next.size() - p.size();
        double gain = p.totalJnd() - next.totalJnd();
        return String.format(
                Locale.ROOT,
                gain < 0.1 ? "%s; %d value%s more would bring %.2f" : "%s; %d value%s more would bring %.1f",
                now,
                more,
                more == 1 ? "" : "s",
                gain);
    }
}
