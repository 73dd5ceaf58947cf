package nightreed.match.fit;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.UnaryOperator;
import nightreed.match.fit.RenderedLeastSquares.Candidate;
import nightreed.match.method.Methods;
import nightreed.match.sound.AnalysedSound;
import nightreed.recipe.Recipe;
import nightreed.recipe.part.Parameter;

/**
 * A search from many starts on the first part of the note only, where a render costs little. The best starts get a short local search
 * and are combined; the best third of these is searched on; then single values are restarted elsewhere for as long as that pays.
 */
final class MultiStartSearch {
    /** Starts that are walked from, as many as this share of what may be spent is enough for; a third of them goes on. */
    private static final double SCOUTS_SHARE = 0.15;

    private static final int FEWEST = 4;
    private static final int MOST = 24;
    private static final int THIRD = 3;
    private static final int ROUNDS = 2;

    /** Share of what may be spent that is bred for, and how often at the most. */
    private static final double BRED_SHARE = 0.2;

    private static final int MOST_GENERATIONS = 40;

    /** Share of what may be spent from which on nothing new is looked for. */
    private static final double LOOKS_UNTIL = 0.7;

    /** What is left over of a distance by a change that is worth to be followed. */
    private static final double WORTH = 0.97;

    /** Starts are the same if no value is further away on its ruler. */
    private static final double NEAR = 0.04;

    private final List<Recipe> starts;
    private final FitOptions plan;
    private final Budget budget;
    private final RenderedLeastSquares polish;
    private final boolean held;

    /**
     * @param starts of one method, at least one
     * @param polish that listens to the beginning of the recording
     */
    MultiStartSearch(
            List<Recipe> starts, FitOptions plan, Budget budget, AnalysedSound recording, RenderedLeastSquares polish) {
        this.starts = starts;
        this.plan = plan;
        this.budget = budget;
        this.polish = polish;
        this.held = recording.measurement().held() != null;
    }

    /** The nearest first, and at least one; after them what was left on the way. */
    List<Candidate> found() {
        List<Candidate> out = walked(first(affordable(), apart(sorted(polish.at(starts)))));
        out = bred(out);
        out = first(Math.max(2, out.size() / THIRD), out);
        return leapt(walked(out.parallelStream().map(this::noisy).toList()));
    }

    private int affordable() {
        int renders = ROUNDS * (plan.main(starts.get(0)).size() + 5); // one per value for its slope, and some steps
        double affordable = SCOUTS_SHARE * budget.amount() / (renders * polish.cost(starts.get(0)));
        double fewest = Math.ceil(FEWEST * Math.min(1, plan.effort()));
        return (int) Math.max(fewest, Math.min(MOST, affordable));
    }

    /** Children of points that do not come nearer by walking. */
    private List<Candidate> bred(List<Candidate> points) {
        return bred(polish, points, starts.get(0), plan, budget);
    }

    /** @param like what the children are like, for what they cost */
    static List<Candidate> bred(
            RenderedLeastSquares polish, List<Candidate> points, Recipe like, FitOptions plan, Budget budget) {
        int generations = (int) (BRED_SHARE * budget.amount() / GeneticSearch.cost(polish, like));
        // who fits on from a recipe has chosen its waves and kinds
        return new GeneticSearch(polish, plan.locked(), !plan.onward())
                .of(points, Math.min(MOST_GENERATIONS, generations));
    }

    /** Noise that is short beside the partials is not always measured, and slopes do not tell where it is. */
    private Candidate noisy(Candidate p) {
        return held ? p : new CoordinateRestarts(polish, plan.main(p.recipe())).noisy(p);
    }

    /** The nearest brought nearer by leaps for as long as one is worth it; what was left after it. */
    private List<Candidate> leapt(List<Candidate> points) {
        return nearer(points, p -> new CoordinateRestarts(polish, plan.main(p.recipe())).from(p));
    }

    private List<Candidate> nearer(List<Candidate> points, UnaryOperator<Candidate> step) {
        List<Candidate> out = new ArrayList<>(points);
        boolean nearer = true;
        while (nearer && budget.share() < LOOKS_UNTIL && !budget.late()) {
            Candidate best = out.get(0);
            Candidate next = step.apply(best);
            nearer = next.total() < WORTH * best.total();
            if (nearer) {
                out.add(0, walked(List.of(next)).get(0));
            } else if (next.total() < best.total()) {
                out.add(0, next);
            }
        }
        return out;
    }

    /** Each walked from a little way; the nearest first. */
    private List<Candidate> walked(List<Candidate> points) {
        return walked(polish, points, plan, ROUNDS);
    }

    /** Each walked from so many rounds; the nearest first. */
    static List<Candidate> walked(RenderedLeastSquares polish, List<Candidate> points, FitOptions plan, int rounds) {
        return sorted(points.parallelStream()
                .map(p -> polish.patient()
                        .run(p, Methods.of(p.recipe()).anchors(p.recipe()), plan.main(p.recipe()), rounds))
                .toList());
    }

    static List<Candidate> sorted(List<Candidate> points) {
        return points.stream()
                .sorted(Comparator.comparingDouble(Candidate::total))
                .toList();
    }

    static <T> List<T> first(int most, List<T> points) {
        return points.subList(0, Math.min(most, points.size()));
    }

    /** Without those that are much like one before them. */
    private List<Candidate> apart(List<Candidate> points) {
        List<Candidate> out = new ArrayList<>();
        for (Candidate p : points) {
            List<String> ids = plan.main(p.recipe());
            if (out.stream().noneMatch(o -> near(o.recipe(), p.recipe(), ids))) {
                out.add(p);
            }
        }
        return out;
    }

    private static boolean near(Recipe a, Recipe b, List<String> ids) {
        Map<String, Double> rest = new HashMap<>();
        b.settings().forEach(s -> rest.put(s.parameter().id(), s.value()));
        for (Recipe.Setting s : a.settings()) {
            Parameter p = s.parameter();
            Double other = rest.remove(p.id());
            boolean far = other == null || Math.abs(p.position(s.value()) - p.position(other)) > NEAR;
            if (far && ids.contains(p.id())) {
                return false;
            }
        }
        return rest.keySet().stream().noneMatch(ids::contains);
    }
}
