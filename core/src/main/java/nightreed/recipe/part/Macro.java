package nightreed.recipe.part;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import nightreed.recipe.part.Parameter.Group;

/**
 * One control that moves several values, each along a curve of its own.
 *
 * @param name    such as "pluck to bow"
 * @param targets what it moves, 1 to 12
 */
public record Macro(
        String name,

        @ParameterSpec(name = "", group = Group.PLAYING, meaning = "Moves all values of the macro.")
        double amount,

        List<Aim> targets)
        implements Named {
    private static final int MOST_TARGETS = 12;

    /**
     * One value that is moved.
     *
     * @param parameter its id
     * @param from      value at 0
     * @param to        value at 1
     * @param curve     exponent 4^curve on the way, -1 to 1: above 0 late, below 0 early
     * @param points    values at equal steps of the way in place of the curve, the ends included; empty for none
     */
    public record Aim(String parameter, double from, double to, double curve, List<Double> points) {
        private static final int MOST_POINTS = 101;

        /** Along a curve. */
        public Aim(String parameter, double from, double to, double curve) {
            this(parameter, from, to, curve, List.of());
        }

        /** Along given values, at least two. */
        public static Aim along(String parameter, List<Double> points) {
            return new Aim(parameter, points.get(0), points.get(points.size() - 1), 0, points);
        }

        public Aim {
            points = points == null ? List.of() : List.copyOf(points);
            if (points.size() == 1
                    || points.size() > MOST_POINTS
                    || !points.stream().allMatch(Double::isFinite)) {
                throw new IllegalArgumentException(
                        "the way of a macro is told by 2 to " + MOST_POINTS + " numbers, or by none");
            }
            if (parameter == null || parameter.isBlank() || !Double.isFinite(from) || !Double.isFinite(to)) {
                throw new IllegalArgumentException("a macro needs the id of a value and two numbers to move between");
            }
            Range.check("curve of a macro", curve, -1, 1, "");
        }

        /** @param place of a parameter, so that frequencies and times move by equal ratios */
        double at(double amount, Parameter place) {
            if (!points.isEmpty()) {
                double at = Math.max(0, Math.min(1, amount)) * (points.size() - 1);
                int i = Math.min(points.size() - 2, (int) at);
                double before = place.position(points.get(i));
                return place.at(before + (at - i) * (place.position(points.get(i + 1)) - before));
            }
            double a = place.position(from);
            double b = place.position(to);
            return place.at(a + (b - a) * Math.pow(amount, Math.pow(4, curve)));
        }
    }

    /**
     * What takes a recipe's values from what they are in one to what they are in another, by the values that differ most.
     * It stands at 1: the values of {@code to}.
     *
     * @return null if no value differs
     */
    public static Macro between(String name, Record from, Record to) {
        Map<String, Double> before = new HashMap<>();
        ParameterAccess.of(from).forEach(v -> before.put(v.parameter().id(), v.value()));
        record Way(Parameter parameter, double from, double to, double length) {}
        List<Way> ways = new ArrayList<>();
        for (ParameterAccess.Reading v : ParameterAccess.of(to)) {
            Double was = before.get(v.parameter().id());
            Parameter p = v.parameter();
            if (was != null && p.law() != Parameter.Law.CHOICE && !p.id().startsWith("macro.")) {
                double length = Math.abs(p.position(v.value()) - p.position(p.clamp(was)));
                if (length > 1e-4) {
                    ways.add(new Way(p, was, v.value(), length));
                }
            }
        }
        ways.sort(Comparator.comparingDouble((Way v) -> -v.length()));
        List<Aim> aims = ways.stream()
                .limit(MOST_TARGETS)
                .map(v -> new Aim(v.parameter().id(), v.from(), v.to(), 0))
                .toList();
        return aims.isEmpty() ? null : new Macro(name, 1, aims);
    }

    public Macro {
        ParameterAccess.check(Macro.class, name, amount, targets);
        if (name == null || name.isBlank() || name.length() > 40) {
            throw new IllegalArgumentException("a macro needs a name of 1 to 40 letters");
        }
        targets = targets == null ? List.of() : List.copyOf(targets);
        if (targets.isEmpty() || targets.size() > MOST_TARGETS) {
            throw new IllegalArgumentException("a macro moves 1 to " + MOST_TARGETS + " values, got " + targets.size());
        }
    }

    /** A record with the macro's values moved to where it stands; ids that the record does not have are passed over. */
    public <R extends Record> R on(R recipe) {
        R r = recipe;
        List<ParameterAccess.Reading> all = ParameterAccess.of(recipe);
        for (Aim aim : targets) {
            for (ParameterAccess.Reading v : all) {
                if (v.parameter().id().equals(aim.parameter())) {
                    r = ParameterAccess.with(r, aim.parameter(), aim.at(amount, v.parameter()));
                }
            }
        }
        return r;
    }
}
