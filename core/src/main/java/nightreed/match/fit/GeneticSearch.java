package nightreed.match.fit;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import nightreed.match.fit.RenderedLeastSquares.Candidate;
import nightreed.match.start.Method;
import nightreed.recipe.Recipe;
import nightreed.recipe.part.Parameter;
import nightreed.recipe.part.Parameter.Group;

/**
 * A genetic search between local searches: parts of one recipe are put into another, and a few values are moved (after A. Horner, J.
 * Beauchamp, L. Haken, "Machine Tongues XVI", 1993). It crosses from one minimum to the next at the price of one render each. A child
 * replaces its first parent only, so that the population stays diverse. The same for the same seed.
 */
final class GeneticSearch {
    private static final int CHILDREN = 48;
    private static final long SEED = 1;

    /** Chance that a child has two parents. */
    private static final double CROSSED = 0.4;

    /** Chance that a value goes anywhere, not only a little way. */
    private static final double FAR = 0.4;

    private static final double A_LITTLE_WAY = 0.1; // of the ruler

    private final RenderedLeastSquares polish;
    private final Set<String> locked;
    private final boolean choices;
    private final Random chance = new Random(SEED);

    /**
     * @param locked  values that stay, by id
     * @param choices whether waves, kinds and drives may become others as well
     */
    GeneticSearch(RenderedLeastSquares polish, Set<String> locked, boolean choices) {
        this.polish = polish;
        this.locked = locked;
        this.choices = choices;
    }

    /** So many times some children of the points, which are not changed; as many points, the nearest first. */
    List<Candidate> of(List<Candidate> points, int generations) {
        List<Candidate> all = new ArrayList<>(points);
        for (int g = 0; g < generations; g++) {
            List<Integer> parents = new ArrayList<>();
            List<Recipe> children = new ArrayList<>();
            while (children.size() < CHILDREN) {
                int parent = chosen(all);
                parents.add(parent);
                children.add(
                        child(all.get(parent).recipe(), all.get(chosen(all)).recipe()));
            }
            List<Candidate> born = polish.at(children);
            if (born.size() < children.size()) {
                break; // time was too short for all of them
            }
            for (int c = 0; c < born.size(); c++) {
                int parent = parents.get(c);
                if (born.get(c).total() < all.get(parent).total()) {
                    all.set(parent, born.get(c));
                }
            }
        }
        all.sort(Comparator.comparingDouble(Candidate::total));
        return all;
    }

    /** What a generation of recipes that are much like one costs. */
    static double cost(RenderedLeastSquares polish, Recipe like) {
        return polish.cost(like) * CHILDREN;
    }

    /** The nearer of two. */
    private int chosen(List<Candidate> points) {
        int a = chance.nextInt(points.size());
        int b = chance.nextInt(points.size());
        return points.get(a).total() < points.get(b).total() ? a : b;
    }

    private Recipe child(Recipe first, Recipe second) {
        boolean crossed = !first.equals(second) && chance.nextDouble() < CROSSED;
        Recipe r = crossed ? crossed(first, second) : first;
        List<Recipe.Setting> told = told(r);
        int changes = crossed ? chance.nextInt(2) : 1 + chance.nextInt(3);
        for (int k = 0; k < changes && !told.isEmpty(); k++) {
            r = changed(r, told.get(chance.nextInt(told.size())));
        }
        return r;
    }

    /** With one part of another recipe, such as its noise or its second pair, as far as both have it. */
    private Recipe crossed(Recipe first, Recipe second) {
        List<Recipe.Setting> own = told(first);
        String part = part(own.get(chance.nextInt(own.size())).parameter().id());
        Map<String, Double> values = new HashMap<>();
        told(second).forEach(s -> values.put(s.parameter().id(), s.value()));
        Recipe r = first;
        for (Recipe.Setting s : own) {
            Double value = values.get(s.parameter().id());
            if (value != null && part(s.parameter().id()).equals(part)) {
                r = unlessItTouches(r, s.parameter().id(), value);
            }
        }
        return r;
    }

    /** "pair.2" of "pair.2.amp.attack", "noise" of "noise.level". */
    private static String part(String id) {
        String[] names = id.split("\\.");
        boolean numbered = names.length > 1 && Character.isDigit(names[1].charAt(0));
        return numbered ? names[0] + "." + names[1] : names[0];
    }

    private Recipe changed(Recipe r, Recipe.Setting s) {
        Parameter p = s.parameter();
        double now = p.position(s.value());
        double value;
        if (p.law() == Parameter.Law.CHOICE) {
            value = chance.nextInt(p.choices().size());
        } else if (p.unit().equals("×")) {
            value = p.clamp(s.value() * (1 + chance.nextInt(4)) / (1 + chance.nextInt(4)));
        } else if (!p.unit().equals("cents") && chance.nextDouble() < FAR) {
            value = p.at(chance.nextDouble());
        } else {
            value = p.at(now + A_LITTLE_WAY * chance.nextGaussian());
        }
        return unlessItTouches(r, p.id(), value);
    }

    /** Every value, and every choice, that the sound of one note can tell and that may change. */
    private List<Recipe.Setting> told(Recipe r) {
        Set<String> numbers = Set.copyOf(Method.searched(r));
        return r.settings().stream()
                .filter(s -> numbers.contains(s.parameter().id()) || choices && isChoiceOfSound(s.parameter()))
                .filter(s -> !locked.contains(s.parameter().id()))
                .toList();
    }

    private static boolean isChoiceOfSound(Parameter p) {
        return p.law() == Parameter.Law.CHOICE
                && (p.group() == Group.SOURCE || p.group() == Group.SHAPING || p.group() == Group.EXCITER);
    }

    private static Recipe unlessItTouches(Recipe r, String id, double value) {
        try {
            return r.with(id, value);
        } catch (IllegalArgumentException touches) {
            return r;
        }
    }
}
