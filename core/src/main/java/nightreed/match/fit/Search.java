package nightreed.match.fit;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.atomic.AtomicReference;
import java.util.stream.Stream;
import nightreed.match.Side;
import nightreed.match.fit.Polish.Point;
import nightreed.match.start.Starts;
import nightreed.measure.Progress;
import nightreed.recipe.FmRecipe;
import nightreed.recipe.FormantRecipe;
import nightreed.recipe.Layer;
import nightreed.recipe.Recipe;
import nightreed.recipe.ResonatorRecipe;
import nightreed.recipe.part.Parameter;

/**
 * From starting values to what cannot be made nearer for what a search may spend. Of methods with few values that are hardly
 * known, many starts are walked a little way with an ear for the beginning of the note only, which costs little; the nearest
 * of them go on with a longer ear, and one of them to the end. Resonators and bands begin so near that all is listened to from
 * the first.
 */
final class Search {
    /** Sound that a search may render [s of the plainest method]. */
    private static final double SOUND_SECONDS = 1250;

    /** Renders of a search, also of the shortest sounds: listening takes its time as well. */
    private static final int MOST_RENDERS = 1400;

    /** Seconds after the onset that are listened to. */
    private static final double HEARD_SECONDS = 4;

    /** The same for what has been chosen out of many. */
    private static final double BRIEFLY_SECONDS = 1.5;

    /** The same for the many, of struck notes. */
    private static final double MOMENT_SECONDS = 0.5;

    /** Part of a render's cost that a shorter one has as well. */
    private static final double LEAST_COST = 0.15;

    /** Starts that are walked from, as many as this share of what may be spent is enough for; a third of them goes on. */
    private static final double SCOUTS_SHARE = 0.15;

    /** Share of what may be spent that is bred for, and how often at the most. */
    private static final double BRED_SHARE = 0.2;

    private static final int MOST_GENERATIONS = 40;

    private static final int FEWEST_SCOUTS = 4;
    private static final int MOST_SCOUTS = 24;
    private static final int THIRD = 3;
    private static final int SCOUT_ROUNDS = 2;

    /** Of them, how many are kept in case the ears do not agree about the one that is followed. */
    private static final int MOST_OTHERS = 3;

    /** Starts are the same if no value is further away on its ruler. */
    private static final double NEAR = 0.04;

    /** Share of what may be spent from which on nothing new is looked for. */
    private static final double LEAPS_UNTIL = 0.55;

    /** Starting values that a search walks from where it listens to the whole note from the first. */
    private static final int TRIED = 3;

    /** Of the time for a fit, what its last listening is given [s], [share]. */
    private static final double MOST_FOR_LAST = 0.9;

    private static final double SHARE_FOR_LAST = 0.4;

    private final List<Recipe> starts;
    private final Plan plan;
    private final Side recording;
    private final OneNote note;
    private final List<Recipe> others = new ArrayList<>(); // that came far and were left
    private final Budget budget;
    private final Polish whole;
    private final Polish brief;
    private final Polish moment;

    /** @param starts the likeliest first, all of one method */
    Search(Side recording, Plan plan, List<Recipe> starts, Progress progress) {
        this.recording = recording;
        this.starts = starts;
        this.plan = plan;
        QuickEar ear = new QuickEar(recording, HEARD_SECONDS);
        double fs = recording.measurement().sampleRateHz();
        double cost =
                starts.stream().mapToDouble(r -> RenderCost.of(r, fs)).max().orElse(1);
        double affordable = Math.min(MOST_RENDERS, SOUND_SECONDS / ear.seconds() / cost);
        AtomicReference<Budget> shared = new AtomicReference<>();
        budget = new Budget(
                (int) Math.max(60, plan.effort() * affordable),
                plan.seconds() - Math.min(MOST_FOR_LAST, plan.seconds() * SHARE_FOR_LAST),
                () -> progress.report(shared.get() == null ? 0 : shared.get().share(), "trying values"));
        shared.set(budget);
        note = beside(ear, 1);
        whole = new Polish(note, budget, progress, plan.machine());
        if (isOpen()) {
            double least = LEAST_COST * affordable / MOST_RENDERS;
            brief = listening(BRIEFLY_SECONDS, least, progress);
            moment = listening(MOMENT_SECONDS, least, progress);
        } else {
            brief = whole;
            moment = whole;
        }
    }

    private Polish listening(double seconds, double leastCost, Progress progress) {
        QuickEar ear = new QuickEar(recording, seconds);
        double cost = Math.max(leastCost, ear.seconds() / note.seconds());
        return new Polish(beside(ear, cost), budget, progress, plan.machine());
    }

    private OneNote beside(QuickEar ear, double cost) {
        return OneNote.beside(plan.under() == null ? List.of() : List.of(Layer.of(plan.under())), ear, cost);
    }

    /** What it listens with to the whole note. */
    OneNote note() {
        return note;
    }

    /** Whether its values are so few, and so little known, that it is worth to look far around. */
    private boolean isOpen() {
        Recipe recipe = starts.get(0);
        return !(recipe instanceof ResonatorRecipe || recipe instanceof FormantRecipe);
    }

    /** Its beginning says little of a held note. */
    private boolean isHeld() {
        return recording.measurement().held() != null;
    }

    /** The first start, what was found, and what was met on the way to it. */
    List<Recipe> found() {
        List<Recipe> met = new ArrayList<>();
        boolean scouts = isOpen() && !plan.onward() && !isHeld();
        Point best = scouts ? whole.at(asLoud(scouted())) : nearest();
        for (List<String> stage : stages(best.recipe())) {
            if (isOpen() && !scouts && !budget.spent()) {
                Point leapt = whole.at(new Leaps(brief, main(best.recipe()))
                        .from(brief.at(best.recipe()))
                        .recipe());
                best = leapt.total() < best.total() ? leapt : best;
            }
            Point before = best;
            best = whole.run(best, Moves.anchors(best.recipe()), stage, 12);
            met.add(before.recipe());
        }
        met.addAll(others);
        met.add(0, best.recipe());
        met.add(0, starts.get(0));
        return met;
    }

    /** Of the nearest few of the starts, each walked from a little way. */
    private Point nearest() {
        List<Point> tried = new ArrayList<>(first(TRIED, sorted(brief.at(starts))).parallelStream()
                .map(p -> levelled(whole.at(asLoud(p.recipe()))))
                .toList());
        tried.replaceAll(p -> whole.run(p, Moves.anchors(p.recipe()), main(p.recipe()), 4));
        if (!isOpen()) {
            return Polish.best(tried);
        }
        List<Point> briefly = tried.stream().map(p -> brief.at(p.recipe())).toList();
        tried.add(whole.at(bred(brief, briefly).get(0).recipe()));
        return Polish.best(tried);
    }

    /** What no walk along slopes finds. */
    private Point levelled(Point p) {
        return p.recipe() instanceof FormantRecipe f ? Bands.levelled(whole, note, p, f) : p;
    }

    /** Of many starts, the nearest by the brief ear after walks from the likeliest of them. */
    private Recipe scouted() {
        List<Point> out = first(scouts(), apart(sorted(moment.at(starts))));
        out = bred(moment, walked(moment, out, SCOUT_ROUNDS));
        out = first(Math.max(2, out.size() / THIRD), out);
        out = walked(moment, out.parallelStream().map(this::turned).toList(), SCOUT_ROUNDS);
        first(MOST_OTHERS, out).forEach(p -> others.add(asLoud(p.recipe())));
        Point near = walked(
                        brief,
                        first(2, out).stream().map(p -> brief.at(p.recipe())).toList(),
                        4)
                .get(0);
        while (budget.share() < LEAPS_UNTIL && !budget.late()) {
            Point leapt = new Leaps(brief, main(near.recipe())).from(near);
            leapt = brief.run(leapt, Moves.anchors(leapt.recipe()), main(leapt.recipe()), 4);
            boolean worthIt = leapt.total() < 0.97 * near.total();
            near = leapt.total() < near.total() ? leapt : near;
            if (!worthIt) {
                break;
            }
        }
        return near.recipe();
    }

    /** Children of points that do not come nearer by walking. */
    private List<Point> bred(Polish polish, List<Point> points) {
        int generations = (int) (BRED_SHARE * budget.renders() / Offspring.cost(polish, 1));
        // who fits on from a recipe has chosen its waves and kinds
        return new Offspring(polish, plan.locked(), !plan.onward()).of(points, Math.min(MOST_GENERATIONS, generations));
    }

    private int scouts() {
        int renders = SCOUT_ROUNDS * (main(starts.get(0)).size() + 5); // one per value for its slope, and some steps
        double affordable = SCOUTS_SHARE * budget.renders() / (renders * moment.cost());
        return (int) Math.max(FEWEST_SCOUTS, Math.min(MOST_SCOUTS, affordable));
    }

    private static List<Point> first(int most, List<Point> points) {
        return points.subList(0, Math.min(most, points.size()));
    }

    private Point turned(Point p) {
        return p.recipe() instanceof FmRecipe r ? FmPhases.turned(moment, p, r, plan.locked()) : p;
    }

    /** Each walked from so many rounds; the nearest first. */
    private List<Point> walked(Polish polish, List<Point> points, int rounds) {
        return sorted(points.parallelStream()
                .map(p -> polish.patient().run(p, Moves.anchors(p.recipe()), main(p.recipe()), rounds))
                .toList());
    }

    private static List<Point> sorted(List<Point> points) {
        return points.stream().sorted(Comparator.comparingDouble(Point::total)).toList();
    }

    /** Without those that are much like one before them. */
    private List<Point> apart(List<Point> points) {
        List<Point> out = new ArrayList<>();
        for (Point p : points) {
            List<String> ids = main(p.recipe());
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

    private Recipe asLoud(Recipe recipe) {
        return plan.isLevelFree() ? Starts.levelled(recipe, recording) : recipe;
    }

    private List<String> main(Recipe recipe) {
        return stages(recipe).get(0);
    }

    private List<List<String>> stages(Recipe recipe) {
        List<String> mix = plan.under() == null ? List.of() : List.of("level");
        return Moves.stages(recipe).stream()
                .map(s -> Stream.concat(s.stream(), mix.stream())
                        .filter(id -> !plan.locked().contains(id))
                        .toList())
                .toList();
    }
}
