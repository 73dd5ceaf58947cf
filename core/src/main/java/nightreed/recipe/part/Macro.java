package nightreed.recipe.part;

import java.util.List;
import nightreed.recipe.part.Parameter.Group;

/**
 * One control that moves several values, each along a curve of its own.
 *
 * @param name    such as "pluck to bow"
 * @param targets what it moves, 1 to 12
 */
public record Macro(
        String name,

        @Dial(name = "amount", group = Group.PLAYING, meaning = "Moves all values of the macro.")
        double amount,

        List<Aim> targets) {
    private static final int MOST_TARGETS = 12;

    /**
     * One value that is moved.
     *
     * @param parameter its id
     * @param from      value at 0
     * @param to        value at 1
     * @param curve     exponent 4^curve on the way, -1 to 1: above 0 late, below 0 early
     */
    public record Aim(String parameter, double from, double to, double curve) {
        public Aim {
            if (parameter == null || parameter.isBlank() || !Double.isFinite(from) || !Double.isFinite(to)) {
                throw new IllegalArgumentException("a macro needs the id of a value and two numbers to move between");
            }
            Range.check("curve of a macro", curve, -1, 1, "");
        }

        /** @param place of a parameter, so that frequencies and times move by equal ratios */
        double at(double amount, Parameter place) {
            double a = place.position(from);
            double b = place.position(to);
            return place.at(a + (b - a) * Math.pow(amount, Math.pow(4, curve)));
        }
    }

    public Macro {
        Dials.check(Macro.class, name, amount, targets);
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
        List<Dials.Reading> all = Dials.of(recipe);
        for (Aim aim : targets) {
            for (Dials.Reading v : all) {
                if (v.parameter().id().equals(aim.parameter())) {
                    r = Dials.with(r, aim.parameter(), aim.at(amount, v.parameter()));
                }
            }
        }
        return r;
    }
}
