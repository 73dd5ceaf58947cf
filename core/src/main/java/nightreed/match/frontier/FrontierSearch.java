package nightreed.match.frontier;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.DoubleFunction;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.fit.Budget;
import nightreed.match.fit.FitOptions;
import nightreed.match.fit.JointFit;
import nightreed.match.fit.JointFit.Note;
import nightreed.match.fit.OneNote;
import nightreed.match.fit.PerceptualResiduals;
import nightreed.match.fit.RenderedLeastSquares;
import nightreed.match.fit.RenderedLeastSquares.Candidate;
import nightreed.match.fit.ResidualFunction;
import nightreed.match.fit.SeveralNotes;
import nightreed.match.frontier.Simplifications.Step;
import nightreed.match.hearing.Aspect;
import nightreed.match.method.Methods;
import nightreed.match.sound.AnalysedSound;
import nightreed.match.start.Anchor;
import nightreed.recipe.Recipe;
import nightreed.recipe.size.EqualValues;
import nightreed.recipe.size.FreeValue;
import nightreed.recipe.size.FreeValues;
import nightreed.recipe.size.PatchSize;
import nightreed.sound.Clip;
import nightreed.work.Progress;

/**
 * Makes a recipe simpler and simpler: in each round all single steps are heard, those that lose least for what they save are taken
 * together, and the values that are left are polished.
 */
final class FrontierSearch {
    /** Seconds after the onset that are listened to: a search's own, and for the many steps less. */
    private static final double HEARD_SECONDS = 7;

    private static final double BRIEFLY_SECONDS = 1.5;

    /** What a render of a dear method may take, by which it is heard shorter, as {@link OneNote#cost} counts. */
    private static final double DEAR = 20; // a twentieth of a second

    private static final double LEAST_SECONDS = 0.8;

    /** What rounded values may lose [JND]. */
    private static final double ROUNDED_JND = 0.03;

    /** Share of the values that a round leaves: at the least where renders are dear, at the most where they are cheap. */
    private static final double LEAST_LEFT = 0.55;

    private static final double MOST_LEFT = 0.85;

    /** What may be spent, as {@link OneNote#cost} counts: some 15 s of one core. */
    private static final double AMOUNT = 6000;

    /** Looks that a round takes for each value: brief ones at the steps, whole ones for the polish. */
    private static final double BRIEF_LOOKS = 1.5;

    private static final double WHOLE_LOOKS = 2;

    /** A round that loses more than so many times what its steps lose singly is made with half of them. */
    private static final double TOO_MUCH = 1.6;

    /** Beyond this nothing is an imitation any more [JND]. */
    private static final double MOST_JND = 7;

    private static final int FEWEST = 3;

    /** As much of a note as a comparison hears [s]. */
    private static final double ALL_SECONDS = 8;

    /** What a swell has to bring by the quick ear [JND]. */
    private static final double CLEARLY_JND = 0.05;

    /** Patches that are measured at the most, which takes a second or two each for a long note. */
    private static final int MOST_MEASURED = 8;

    /** What the quick ear may be wrong by [JND]: one that it puts so little further than a simpler one may be nearer. */
    private static final double UNSURE_JND = 0.3;

    /** Rounds in a row that may make nothing simpler, since steps that save something by themselves need not do so together. */
    private static final int PATIENCE = 2;

    /** Rounds of a polish of many values, which is done again when some of them are gone, and of few. */
    private static final int ROUNDS_OF_MANY = 1;

    private static final int ROUNDS_OF_FEW = 3;
    private static final int MANY = 24;

    private final FitOptions plan;
    private final Recipe nearest;
    private final Progress progress;
    private final Swing swing;
    private final RenderedLeastSquares whole;
    private final RenderedLeastSquares brief;
    private final Budget budget;
    private final AnalysedSound recording;
    private final DoubleFunction<ResidualFunction> ears;
    private final Function<Recipe, List<String>> maps;

    /** A patch that was met. */
    record Met(int size, Candidate heard) {}

    private record Tried(Step step, int saved, double lost) {
        double price() {
            return lost / saved;
        }
    }

    /** Against one recording. @param nearest what is made simpler */
    FrontierSearch(AnalysedSound recording, Recipe nearest, FitOptions plan, Progress progress) {
        this(
                recording,
                nearest,
                plan,
                seconds -> OneNote.within(plan.with(nearest), new PerceptualResiduals(recording, seconds)),
                r -> List.of(),
                HEARD_SECONDS,
                progress);
    }

    /** Against several notes of an instrument. @param reference the one whose key is the recipe's */
    FrontierSearch(List<Note> notes, Note reference, Recipe nearest, FitOptions plan, Progress progress) {
        this(
                reference.recording(),
                nearest,
                plan,
                seconds -> new SeveralNotes(notes, reference, seconds, plan.around()),
                r -> JointFit.told(r, notes),
                JointFit.HEARD_SECONDS,
                progress);
    }

    /**
     * @param ears what listens to so many seconds after the onset
     * @param maps what follows key and strength in a recipe and can be told, by id; moved, though it does not count as a value
     */
    private FrontierSearch(
            AnalysedSound recording,
            Recipe nearest,
            FitOptions plan,
            DoubleFunction<ResidualFunction> ears,
            Function<Recipe, List<String>> maps,
            double seconds,
            Progress progress) {
        this.recording = recording;
        this.nearest = nearest;
        this.progress = progress;
        this.swing = new Swing(recording);
        this.plan = plan;
        this.ears = ears;
        this.maps = maps;
        this.budget = new Budget(AMOUNT, progress);
        double cost = ears.apply(seconds).cost(nearest);
        double share = Math.min(1, DEAR / cost);
        this.whole = listening(Math.max(LEAST_SECONDS, share * seconds), progress);
        this.brief = listening(Math.max(LEAST_SECONDS, share * Math.min(seconds, BRIEFLY_SECONDS)), progress);
    }

    private RenderedLeastSquares listening(double seconds, Progress progress) {
        return new RenderedLeastSquares(ears.apply(seconds), budget, progress, plan.machine());
    }

    /** What is worth a measurement of what was met on the way down: some sizes, well apart. */
    List<Met> found() {
        List<Met> all = new ArrayList<>(met());
        all.sort(Comparator.comparingInt(Met::size).thenComparingDouble(m -> m.heard.total()));
        List<Met> out = new ArrayList<>();
        double least = Double.POSITIVE_INFINITY;
        for (Met m : all) {
            if (m.heard.total() < least + UNSURE_JND && (out.isEmpty() || m.size > out.get(out.size() - 1).size)) {
                out.add(m);
                least = Math.min(least, m.heard.total());
            }
        }
        while (out.size() > MOST_MEASURED) {
            int close = 1;
            for (int i = 2; i + 1 < out.size(); i++) {
                close = room(out, i) < room(out, close) ? i : close;
            }
            out.remove(close);
        }
        return out;
    }

    /** How much simpler the one before a patch is than the one behind it. */
    private static double room(List<Met> all, int at) {
        return (double) all.get(at + 1).size / all.get(at - 1).size;
    }

    /**
     * Patches with a slow swell beside what they are, where that brings them clearly nearer. The whole note is heard, which takes
     * too long for anything but a few values of a few patches.
     */
    List<Recipe> swelling(List<Recipe> patches) {
        RenderedLeastSquares all = listening(ALL_SECONDS, progress);
        List<Recipe> out = new ArrayList<>();
        for (Recipe r : patches) {
            if (budget.late()) {
                break;
            }
            Clip imitation = ImitationRenderer.render(plan.with(r), recording);
            Candidate was = all.at(r);
            Candidate best = was;
            for (Candidate c : all.at(Drift.added(recording, r, imitation))) {
                best = c.total() < best.total() ? c : best;
            }
            if (best != was) {
                List<FreeValue> swell = FreeValues.of(best.recipe()).stream()
                        .filter(v -> v.id().startsWith("movement.")
                                || v.id().startsWith("route.") && v.id().endsWith(".depth"))
                        .toList();
                Candidate p = all.runTogether(best, Map.of(), swell, ROUNDS_OF_FEW);
                if (p.total() < was.total() - CLEARLY_JND) {
                    out.add(p.recipe());
                }
            }
        }
        return out;
    }

    /** What was met on the way down, the nearest first. */
    private List<Met> met() {
        List<Met> out = new ArrayList<>();
        Candidate now = whole.at(Methods.of(nearest).settable(nearest));
        int size = PatchSize.of(now.recipe());
        out.add(new Met(size, now));
        int stalled = 0;
        while (size > FEWEST && now.total() < MOST_JND && stalled < PATIENCE && !budget.late()) {
            Candidate simpler = simpler(now, Math.min(size - 1, (int) Math.floor(left(now.recipe(), size) * size)));
            if (simpler == null) {
                break;
            }
            now = readable(polished(simpler));
            int values = PatchSize.of(now.recipe());
            stalled = values < size ? 0 : stalled + 1;
            size = values;
            out.add(new Met(size, now));
        }
        return out;
    }

    /** Share of the values that a round may leave, so that what is left to spend is enough down to the simplest. */
    private double left(Recipe recipe, int size) {
        double polish = size > MANY ? brief.cost(recipe) : WHOLE_LOOKS * whole.cost(recipe);
        double round = size * (BRIEF_LOOKS * brief.cost(recipe) + polish);
        double rest = Math.max(1, (1 - budget.share()) * AMOUNT);
        return Math.max(LEAST_LEFT, Math.min(MOST_LEFT, 1 - round / rest)); // rounds get smaller by that share
    }

    /** With as few digits as make no difference. */
    private Candidate readable(Candidate p) {
        for (int digits = 2; digits <= 3; digits++) {
            Candidate round = whole.at(RoundValues.rounded(p.recipe(), digits, plan.locked()));
            if (round.total() <= p.total() + ROUNDED_JND) {
                return round;
            }
        }
        return p;
    }

    private Candidate polished(Candidate p) {
        if (budget.spent()) {
            return p;
        }
        List<String> told = maps.apply(p.recipe());
        List<FreeValue> free = Stream.concat(
                        FreeValues.of(p.recipe()).stream(),
                        p.recipe().settings().stream()
                                .map(Recipe.Setting::parameter)
                                .filter(of -> told.contains(of.id()))
                                .map(EqualValues::one))
                .filter(v -> v.ids().stream().noneMatch(plan.locked()::contains))
                .toList();
        if (free.size() <= MANY) {
            return whole.runTogether(p, anchors(p.recipe()), free, ROUNDS_OF_FEW);
        }
        Candidate briefly = brief.runTogether(brief.at(p.recipe()), anchors(p.recipe()), free, ROUNDS_OF_MANY);
        Candidate polished = whole.at(briefly.recipe());
        return polished.total() < p.total() ? polished : p;
    }

    /** What is believed of single values; what a law says is looser. */
    private static Map<String, Anchor> anchors(Recipe recipe) {
        Set<String> single = FreeValues.of(recipe).stream()
                .filter(v -> v.ids().size() == 1)
                .map(FreeValue::id)
                .collect(Collectors.toSet());
        return Methods.of(recipe).anchors(recipe).entrySet().stream()
                .filter(e -> single.contains(e.getKey()))
                .collect(Collectors.toMap(Map.Entry::getKey, Map.Entry::getValue, (a, b) -> a, LinkedHashMap::new));
    }

    /** With at most so many values; null if no step makes it simpler. */
    private Candidate simpler(Candidate now, int target) {
        List<Tried> tried = tried(now);
        if (tried.isEmpty()) {
            return null;
        }
        int many = tried.size();
        Candidate best = null;
        while (many >= 1) {
            List<Tried> taken = taken(tried.subList(0, many), now.recipe(), target);
            Candidate after = whole.at(applied(now.recipe(), taken));
            double expected = now.total() * now.total()
                    + taken.stream().mapToDouble(t -> Math.max(0, t.lost)).sum();
            best = after;
            if (taken.size() <= 1 || after.total() * after.total() <= TOO_MUCH * TOO_MUCH * expected) {
                return after;
            }
            many = taken.size() / 2;
        }
        return best;
    }

    /** All steps, the cheapest first. */
    private List<Tried> tried(Candidate now) {
        Recipe recipe = now.recipe();
        int size = PatchSize.of(recipe);
        List<Step> steps = Simplifications.of(recipe, plan.locked());
        Candidate briefly = brief.at(recipe);
        double swung = swing.differenceJnd(recipe);
        Tried[] out = new Tried[steps.size()];
        IntStream.range(0, out.length).parallel().filter(i -> !budget.late()).forEach(i -> {
            Recipe r = steps.get(i).apply(recipe);
            int saved = size - PatchSize.of(r);
            if (saved > 0) {
                Candidate heard = brief.at(r);
                double lost = heard.total() * heard.total() - briefly.total() * briefly.total();
                double swings = swing.differenceJnd(r);
                double less = (swings * swings - swung * swung) / Aspect.values().length;
                out[i] = new Tried(steps.get(i), saved, lost + less);
            }
        });
        return Arrays.stream(out)
                .filter(t -> t != null)
                .sorted(Comparator.comparingDouble(Tried::price))
                .toList();
    }

    /** The cheapest that together come to a size, none that is about what another does away with. */
    private static List<Tried> taken(List<Tried> tried, Recipe recipe, int target) {
        List<Tried> out = new ArrayList<>();
        Set<String> gone = new HashSet<>();
        int size = PatchSize.of(recipe);
        for (Tried t : tried) {
            if (size <= target && !out.isEmpty()) {
                break;
            }
            String what = t.step.what();
            if (gone.stream().anyMatch(g -> what.equals(g) || what.startsWith(g + ".") || g.startsWith(what + "."))) {
                continue;
            }
            gone.add(what);
            out.add(t);
            size -= t.saved;
        }
        return out;
    }

    /** Elements are taken out last and from behind, so that numbers hold. */
    private static Recipe applied(Recipe recipe, List<Tried> taken) {
        List<Step> order = new ArrayList<>(
                taken.stream().map(Tried::step).filter(s -> !s.removes()).toList());
        taken.stream()
                .map(Tried::step)
                .filter(Step::removes)
                .sorted(Comparator.comparingInt(s -> -s.element()))
                .forEach(order::add);
        Recipe r = recipe;
        for (Step s : order) {
            r = s.apply(r);
        }
        return r;
    }
}
