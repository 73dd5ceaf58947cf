package nightreed.match.fit;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import nightreed.match.fit.RenderedLeastSquares.Candidate;
import nightreed.recipe.Recipe;
import nightreed.recipe.part.Parameter;

/**
 * Restarts of single values at other places of their rulers, and of the strike noise as a whole. A local search ends in the nearest
 * minimum; this tries whether there is a lower one.
 */
public final class CoordinateRestarts {
    /** Places on a ruler that stand for all of it. */
    public static final List<Double> PLACES = List.of(0.04, 0.2, 0.36, 0.52, 0.68, 0.84);

    /** Restarts that help alone and are tried together; chosen. */
    private static final int TOGETHER = 6;

    private static final double[] NOISE_T60_MS = {4, 15, 60, 200};
    private static final double[] NOISE_LOW_HZ = {50, 300, 1200, 4000};
    private static final double[] NOISE_WIDTHS = {2, 8, 40};

    private final RenderedLeastSquares polish;
    private final Set<String> ids;

    /** @param ids values that may move */
    public CoordinateRestarts(RenderedLeastSquares polish, List<String> ids) {
        this.polish = polish;
        this.ids = new HashSet<>(ids);
    }

    /** The best candidate that restarts lead to; the start itself where none helps. */
    public Candidate from(Candidate start) {
        List<Recipe> tries = new ArrayList<>();
        for (Recipe.Setting s : start.recipe().settings()) {
            Parameter p = s.parameter();
            if (ids.contains(p.id()) && !isFound(p)) {
                for (double place : PLACES) {
                    add(tries, start.recipe(), p.id(), p.at(place));
                }
            }
        }
        tries.addAll(noises(start.recipe()));
        List<Candidate> met = new ArrayList<>(polish.at(tries));
        met.removeIf(p -> p.total() >= start.total());
        met.sort(Comparator.comparingDouble(Candidate::total));
        Candidate best = start;
        for (Candidate p : met.subList(0, Math.min(TOGETHER, met.size()))) {
            Candidate both = best.equals(start) ? p : polish.at(with(best.recipe(), start.recipe(), p.recipe()));
            best = both.total() < best.total() ? both : best;
        }
        return best;
    }

    /** The nearest with another noise of the strike; the point itself where none helps. */
    public Candidate noisy(Candidate start) {
        List<Candidate> met = new ArrayList<>(polish.at(noises(start.recipe())));
        met.add(0, start);
        return RenderedLeastSquares.best(met);
    }

    /** Whether a value is left: pitches are measured, and their minima lie too close together. */
    private static boolean isFound(Parameter p) {
        return p.unit().equals("×") || p.unit().equals("cents") || p.id().startsWith("noise.");
    }

    private List<Recipe> noises(Recipe recipe) {
        List<Recipe> out = new ArrayList<>();
        boolean there =
                recipe.settings().stream().anyMatch(s -> s.parameter().id().equals("noise.t60"));
        if (!there || !ids.containsAll(List.of("noise.t60", "noise.low", "noise.high", "noise.level"))) {
            return out;
        }
        for (double t60 : NOISE_T60_MS) {
            for (double low : NOISE_LOW_HZ) {
                for (double width : NOISE_WIDTHS) {
                    double high = Math.min(18_000, low * width);
                    for (double louder : new double[] {-8, 4}) {
                        out.add(recipe.with("noise.t60", t60)
                                .with("noise.low", low)
                                .with("noise.high", high)
                                .with("noise.level", Math.max(-40, recipe.value("noise.level")) + louder));
                    }
                }
            }
        }
        return out;
    }

    private static void add(List<Recipe> to, Recipe recipe, String id, double value) {
        try {
            to.add(recipe.with(id, value));
        } catch (IllegalArgumentException touches) {
            // a band that would change places with its neighbour has nowhere to leap to
        }
    }

    /** A recipe with what another has changed against a third. */
    private static Recipe with(Recipe recipe, Recipe before, Recipe changed) {
        Recipe r = recipe;
        for (Recipe.Setting s : changed.settings()) {
            String id = s.parameter().id();
            if (before.value(id) != s.value()) {
                try {
                    r = r.with(id, s.value());
                } catch (IllegalArgumentException touches) {
                    return recipe;
                }
            }
        }
        return r;
    }
}
