package nightreed.match.fit;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.concurrent.atomic.AtomicReference;
import nightreed.match.Comparison;
import nightreed.match.Hearing;
import nightreed.match.Listener;
import nightreed.match.Matcher;
import nightreed.match.Side;
import nightreed.match.fit.Polish.Point;
import nightreed.match.start.Starts;
import nightreed.measure.Progress;
import nightreed.music.Pitch;
import nightreed.recipe.FmPair;
import nightreed.recipe.FmRecipe;
import nightreed.recipe.FormantRecipe;
import nightreed.recipe.Recipe;
import nightreed.recipe.ResonatorRecipe;
import nightreed.sound.Clip;
import nightreed.sound.UnusableSound;
import nightreed.voice.fm.Sidebands;

/** Fits any method to a recording: starting values, a search from several of them, and a polish of all values at once. */
public final class Fits {
    /** Sound that a search may render [s of the plainest method]. */
    private static final double SOUND_SECONDS = 1600;

    /** Renders of a search, also of the shortest sounds: listening takes its time as well. */
    private static final int MOST_RENDERS = 700;

    /** Seconds after the onset that are listened to. */
    private static final double HEARD_SECONDS = 4;

    /** The same as long as a search looks far around: what comes later is much like it, and costs as much again. */
    private static final double BRIEFLY_SECONDS = 1.5;

    /** Starting values of which a search goes on. */
    private static final int TRIED = 3;

    /** What the quick ear finds so little further may be as near when it is measured. */
    private static final double AS_NEAR = 1.1;

    /** Of the time for a fit, what its last listening is given [s], [share]. */
    private static final double MOST_FOR_LAST = 0.9;

    private static final double SHARE_FOR_LAST = 0.4;

    private Fits() {}

    /**
     * @param method one of {@link Starts#METHODS}
     * @throws UnusableSound if the recording gives nothing to build on
     */
    public static Fitted of(String method, Side recording, Plan plan, Progress progress) throws UnusableSound {
        long start = System.nanoTime();
        List<Recipe> starts = starts(method, recording, plan, progress);
        double gone = (System.nanoTime() - start) / 1e9;
        Judged found = search(starts, recording, plan.within(plan.seconds() - gone), progress);
        Clip imitation = Matcher.render(found.recipe, recording);
        Comparison comparison = found.comparison != null
                ? found.comparison
                : Listener.compare(recording, Matcher.rendered(imitation)); // says what is wrong with it
        return new Fitted(found.recipe, imitation, comparison, (System.nanoTime() - start) / 1e9);
    }

    /**
     * Several methods, the most promising first. One that cannot be begun with, or not played on the plan's machine, is left
     * out.
     *
     * @param methods names; may be in any order
     * @throws UnusableSound if none of them can be
     */
    public static List<Fitted> of(Collection<String> methods, Side recording, Plan plan, Progress progress)
            throws UnusableSound {
        long start = System.nanoTime();
        List<String> order = Adviser.before(recording.measurement()).stream()
                .map(Adviser.Advice::method)
                .filter(methods::contains)
                .filter(plan.machine()::can)
                .toList();
        if (order.isEmpty()) {
            throw new UnusableSound("'" + plan.machine().name() + "' can play none of these methods: "
                    + String.join(", ", methods) + ". Choose another method, or give it what it needs.");
        }
        List<Fitted> out = new ArrayList<>();
        UnusableSound first = null;
        for (int i = 0; i < order.size(); i++) {
            double left = plan.seconds() - (System.nanoTime() - start) / 1e9;
            String method = order.get(i);
            Progress part = progress.part((double) i / order.size(), (i + 1.0) / order.size());
            try {
                out.add(of(
                        method,
                        recording,
                        plan.within(left / (order.size() - i)),
                        (f, doing) -> part.report(f, method + ": " + doing)));
            } catch (UnusableSound e) {
                first = first == null ? e : first;
            }
        }
        if (out.isEmpty() && first != null) {
            throw first;
        }
        return out;
    }

    private static List<Recipe> starts(String method, Side recording, Plan plan, Progress progress)
            throws UnusableSound {
        progress.report(0, "starting values");
        if (plan.onward() && plan.recipe().method().equals(method)) {
            return List.of(plan.recipe());
        }
        return Starts.several(method, recording).stream()
                .map(plan::kept)
                .map(plan.machine()::limited)
                .toList();
    }

    private static Judged search(List<Recipe> starts, Side recording, Plan plan, Progress progress) {
        QuickEar ear = new QuickEar(recording, HEARD_SECONDS);
        double fs = recording.measurement().sampleRateHz();
        double cost = starts.stream().mapToDouble(r -> cost(r, fs)).max().orElse(1);
        double affordable = Math.min(MOST_RENDERS, SOUND_SECONDS / ear.seconds() / cost);
        int renders = (int) Math.max(60, plan.effort() * affordable);
        AtomicReference<Budget> shared = new AtomicReference<>();
        Progress search = progress.part(0.05, 0.9);
        Budget budget = new Budget(
                renders,
                plan.seconds() - Math.min(MOST_FOR_LAST, plan.seconds() * SHARE_FOR_LAST),
                () -> search.report(shared.get() == null ? 0 : shared.get().share(), "trying values"));
        shared.set(budget);
        OneNote note = new OneNote(ear);
        Polish fine = new Polish(note, budget, search, plan.machine());
        Polish rough = fine;
        if (isOpen(starts.get(0))) {
            QuickEar brief = new QuickEar(recording, BRIEFLY_SECONDS);
            double share = Math.max(brief.seconds() / ear.seconds(), affordable / MOST_RENDERS);
            rough = new Polish(new OneNote(brief, null, share), budget, search, plan.machine());
        }
        List<Point> points = new ArrayList<>(rough.at(starts));
        Recipe first = points.get(0).recipe();
        points.sort(Comparator.comparingDouble(Point::total));
        List<Point> tried = new ArrayList<>(points.subList(0, Math.min(TRIED, points.size())).parallelStream()
                .map(p -> prepared(fine, note, p.recipe(), plan))
                .toList());
        List<Recipe> met = new ArrayList<>(List.of(first));
        tried.replaceAll(p ->
                fine.run(p, Moves.anchors(p.recipe()), stages(p.recipe(), plan).get(0), 4));
        Point best = Polish.best(tried);
        List<List<String>> stages = stages(best.recipe(), plan);
        Leaps leaps = new Leaps(rough, stages.get(0));
        for (List<String> stage : stages) {
            if (isOpen(best.recipe()) && !budget.spent()) {
                Point leapt = fine.at(leaps.from(rough.at(best.recipe())).recipe());
                best = leapt.total() < best.total() ? leapt : best;
            }
            Point before = best;
            best = fine.run(best, Moves.anchors(best.recipe()), stage, 12);
            if (before.total() < AS_NEAR * best.total() && !budget.late()) {
                met.add(before.recipe());
            }
        }
        met.add(best.recipe());
        progress.report(0.9, "listening");
        return nearest(new LinkedHashSet<>(met), note, plan);
    }

    /** Whether its values are so few, and so little known, that leaps are worth their renders. */
    private static boolean isOpen(Recipe recipe) {
        return !(recipe instanceof ResonatorRecipe || recipe instanceof FormantRecipe);
    }

    /** What no walk along slopes finds, tried out, and as loud as the recording. */
    private static Point prepared(Polish polish, OneNote note, Recipe recipe, Plan plan) {
        Point loud = polish.at(asLoud(recipe, note.recording(), plan));
        if (loud.recipe() instanceof FormantRecipe f) {
            return Bands.levelled(polish, note, loud, f);
        }
        return loud.recipe() instanceof FmRecipe r ? FmPhases.turned(polish, loud, r, plan.locked()) : loud;
    }

    private static Recipe asLoud(Recipe recipe, Side recording, Plan plan) {
        return plan.locked().contains("level") ? recipe : Starts.levelled(recipe, recording);
    }

    private static List<List<String>> stages(Recipe recipe, Plan plan) {
        return Moves.stages(recipe).stream()
                .map(s -> s.stream().filter(id -> !plan.locked().contains(id)).toList())
                .toList();
    }

    /**
     * Of several recipes the one that a fresh measurement finds nearest; what the quick ear says counts as much. None that is
     * measured to be further than the first.
     */
    private static Judged nearest(Collection<Recipe> recipes, OneNote note, Plan plan) {
        List<Judged> judged =
                recipes.parallelStream().map(r -> judged(r, note, plan)).toList();
        double first = judged.get(0).measured();
        return judged.stream()
                .filter(j -> j.measured() <= first)
                .min(Comparator.comparingDouble(j -> j.measured() + j.quick))
                .orElseThrow();
    }

    /**
     * A recipe as loud as the recording, and its distance by both ears [JND].
     *
     * @param comparison from a fresh measurement; null if there is nothing to be measured
     */
    private record Judged(Recipe recipe, Comparison comparison, double quick) {
        double measured() {
            return comparison == null ? Hearing.MOST : comparison.totalJnd();
        }
    }

    private static Judged judged(Recipe r, OneNote note, Plan plan) {
        double quick = QuickEar.total(note.differences(r));
        try {
            Comparison c = Listener.compare(note.recording(), Matcher.rendered(Matcher.render(r, note.recording())));
            double by = plan.locked().contains("level") ? 0 : Math.max(-24, Math.min(24, c.gainDb()));
            Recipe levelled = r.with("level", r.levelDb() + by);
            return new Judged(levelled, c.louder(levelled.levelDb() - r.levelDb()), quick);
        } catch (UnusableSound silent) {
            return new Judged(r, null, quick);
        }
    }

    /**
     * Time that a second of a method takes to render, against that of the plainest; for resonators, which begin so near that
     * more renders gain little, what keeps their search as short as it was.
     */
    private static double cost(Recipe recipe, double fs) {
        return switch (recipe.method()) {
            case "formant" -> 6;
            case "ring" -> 1.4;
            case "resonators" -> 2;
            case "fm" -> cost((FmRecipe) recipe, fs);
            default -> 1;
        };
    }

    /** A pair whose sidebands reach far is computed at a multiple of the rate. */
    private static double cost(FmRecipe recipe, double fs) {
        double f0 = Pitch.hz(recipe.key());
        double top = 0;
        for (FmPair p : recipe.pairs()) {
            top = Math.max(top, Sidebands.topHz(f0 * p.carrierRatio(), f0 * p.modulatorRatio(), p.index()));
        }
        double times = Math.min(8, Math.pow(2, Math.ceil(Math.max(0, Math.log(top / 0.45 / fs) / Math.log(2)))));
        return 0.6 + 0.26 * times * recipe.pairs().size();
    }
}
