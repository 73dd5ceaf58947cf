package nightreed.match.frontier;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.UnaryOperator;
import nightreed.recipe.ListChange;
import nightreed.recipe.Recipe;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.Parameter;
import nightreed.recipe.part.ParameterAccess;
import nightreed.recipe.part.ParameterAccess.Absent;
import nightreed.recipe.part.ParameterAccess.Found;
import nightreed.recipe.part.SetValues;
import nightreed.recipe.part.Structure;
import nightreed.recipe.size.FreeValue;
import nightreed.recipe.size.FreeValues;
import nightreed.recipe.size.ListLaws;

/** All ways to make a recipe simpler by one step, whatever its method. */
final class Simplifications {
    /** Envelopes that another is tried to be made equal to. */
    private static final int NEAREST = 3;

    /** Times at which two envelopes are held against each other [s]. */
    private static final double[] LOOKS = {0.002, 0.01, 0.03, 0.08, 0.15, 0.3, 0.6, 1.2, 2.5, 5};

    private Simplifications() {}

    /**
     * One way.
     *
     * @param what    what it does away with, such as {@code mode.3}: of two with the same only one is used
     * @param list    list that it takes an element out of; empty if it takes out none
     * @param element which, from 1
     */
    record Step(String what, String list, int element, UnaryOperator<Recipe> on) {
        static Step of(String what, UnaryOperator<Recipe> on) {
            return new Step(what, "", 0, on);
        }

        boolean removes() {
            return element > 0;
        }

        /** The recipe after it; as it was where it cannot be. */
        Recipe apply(Recipe recipe) {
            try {
                return on.apply(recipe);
            } catch (IllegalArgumentException cannot) {
                return recipe;
            }
        }
    }

    /** @param locked values that stay, by id */
    static List<Step> of(Recipe recipe, Set<String> locked) {
        List<FreeValue> free = FreeValues.of(recipe);
        List<Step> out = new ArrayList<>();
        out.addAll(elements(recipe));
        out.addAll(parts(recipe));
        free.forEach(v -> out.addAll(neutral(recipe, v)));
        ListLaws.puts(recipe).forEach(p -> out.add(Step.of(p.column() + ".law", p.on())));
        out.addAll(envelopes(recipe));
        return out.stream().filter(s -> !touches(s, recipe, locked)).toList();
    }

    private static boolean touches(Step s, Recipe before, Set<String> locked) {
        if (locked.isEmpty()) {
            return false;
        }
        Recipe after = s.apply(before);
        return locked.stream().anyMatch(id -> !same(before, after, id));
    }

    private static boolean same(Recipe a, Recipe b, String id) {
        try {
            return a.value(id) == b.value(id);
        } catch (IllegalArgumentException gone) {
            return false;
        }
    }

    private static List<Step> elements(Recipe recipe) {
        List<Step> out = new ArrayList<>();
        for (Structure.Listed l : recipe.lists()) {
            boolean sound = !l.id().equals("macro") && !l.id().equals("route") && !l.id().equals("harmonic");
            for (int k = 1; k <= l.size() && sound && l.canLose(); k++) {
                ListChange less = ListChange.remove(l.id(), k);
                out.add(new Step(l.id() + "." + k, l.id(), k, less::on));
            }
        }
        return out;
    }

    private static List<Step> parts(Recipe recipe) {
        List<Step> out = new ArrayList<>();
        for (Absent part : ParameterAccess.optional((Record) recipe)) {
            out.add(Step.of(part.id(), r -> r.withoutPart(part.id())));
        }
        return out;
    }

    /** A value where it does nothing; of a wave also the other plain ones. */
    private static List<Step> neutral(Recipe recipe, FreeValue v) {
        List<Step> out = new ArrayList<>();
        Parameter p = v.parameter();
        if (p.id().endsWith(".wave")) {
            for (int w = 0; w + 1 < p.choices().size(); w++) { // the last is the measured one
                double wave = w;
                out.add(Step.of(p.id(), r -> v.with(r, wave)));
            }
            return out;
        }
        for (double n : SetValues.neutral((Record) recipe, p.id())) {
            out.add(Step.of(p.id(), r -> v.with(r, n)));
        }
        return out;
    }

    /** Each envelope made equal to one of those that it is most like. */
    private static List<Step> envelopes(Recipe recipe) {
        List<Found<Envelope>> all = ParameterAccess.parts((Record) recipe, Envelope.class);
        List<Envelope> different = all.stream().map(Found::part).distinct().toList();
        List<Step> out = new ArrayList<>();
        for (Envelope e : different) {
            List<Found<Envelope>> users =
                    all.stream().filter(f -> f.part().equals(e)).toList();
            Set<String> ends = new HashSet<>();
            users.forEach(u -> ends.add(end(u.id())));
            different.stream()
                    .filter(o -> !o.equals(e))
                    .filter(o -> all.stream().anyMatch(f -> f.part().equals(o) && ends.contains(end(f.id()))))
                    .sorted(Comparator.comparingDouble(o -> apart(e, o)))
                    .limit(NEAREST)
                    .forEach(o -> out.add(Step.of(users.get(0).id() + ".envelope", r -> equal(r, users, o))));
        }
        return out;
    }

    private static String end(String id) {
        return id.substring(id.lastIndexOf('.') + 1);
    }

    private static Recipe equal(Recipe recipe, List<Found<Envelope>> users, Envelope by) {
        Recipe r = recipe;
        for (Found<Envelope> u : users) {
            for (ParameterAccess.Reading v : ParameterAccess.of(by)) {
                r = r.with(u.id() + "." + v.parameter().id(), v.value());
            }
        }
        return r;
    }

    private static double apart(Envelope a, Envelope b) {
        double sum = 0;
        for (double t : LOOKS) {
            double d = Math.log(a.at(t, 1) + 0.01) - Math.log(b.at(t, 1) + 0.01);
            sum += d * d;
        }
        return sum;
    }
}
