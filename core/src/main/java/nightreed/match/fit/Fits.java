package nightreed.match.fit;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import nightreed.match.Comparison;
import nightreed.match.Hearing;
import nightreed.match.Listener;
import nightreed.match.Matcher;
import nightreed.match.Side;
import nightreed.match.start.Starts;
import nightreed.measure.Progress;
import nightreed.recipe.Recipe;
import nightreed.sound.Clip;
import nightreed.sound.UnusableSound;

/** Fits any method to a recording: starting values, a search from several of them, and a polish of all values at once. */
public final class Fits {
    /** Measured distance over that of the quick ear up to which the two agree. */
    private static final double AGREED = 1.3;

    /** Recipes that are measured at the most: that of a long, rich note takes seconds. */
    private static final int MOST_JUDGED = 4;

    /** A fit that may take less begins with what is computed at once [s]. */
    static final double BRIEF_SECONDS = 5;

    private Fits() {}

    /**
     * @param method one of {@link Starts#METHODS}
     * @throws UnusableSound if the recording gives nothing to build on
     */
    public static Fitted of(String method, Side recording, Plan plan, Progress progress) throws UnusableSound {
        long start = System.nanoTime();
        List<Recipe> starts = starts(method, recording, plan, progress);
        double gone = (System.nanoTime() - start) / 1e9;
        Search search = new Search(recording, plan.within(plan.seconds() - gone), starts, progress.part(0.05, 0.9));
        List<Recipe> met = search.found();
        progress.report(0.9, "listening");
        boolean soon = plan.isLimited() || progress.isEnough();
        Judged found = nearest(List.copyOf(new LinkedHashSet<>(met)), search.note(), plan, soon);
        Clip imitation = Matcher.render(plan.with(found.recipe), recording);
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
        for (int i = 0; i < order.size() && (out.isEmpty() || !progress.isEnough()); i++) {
            double left = plan.seconds() - (System.nanoTime() - start) / 1e9;
            String method = order.get(i);
            Progress part = progress.part((double) i / order.size(), (i + 1.0) / order.size());
            try {
                out.add(of(method, recording, plan.within(left / (order.size() - i)), part.named(method)));
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
            return List.of(plan.machine().limited(plan.recipe()));
        }
        return Starts.several(method, recording, plan.seconds() < BRIEF_SECONDS).stream()
                .map(plan::kept)
                .map(plan.machine()::limited)
                .toList();
    }

    /**
     * Of several recipes the one that a fresh measurement finds nearest; what the quick ear says counts as much. None that is
     * measured to be further than the first. More than two are measured only where the ears do not agree about the second.
     */
    private static Judged nearest(List<Recipe> recipes, OneNote note, Plan plan, boolean soon) {
        List<Judged> judged = new ArrayList<>(judged(recipes.subList(0, Math.min(2, recipes.size())), note, plan));
        Judged last = judged.get(judged.size() - 1);
        if (last.measured() > Math.max(1, AGREED * last.quick) && !soon) {
            judged.addAll(judged(recipes.subList(judged.size(), Math.min(MOST_JUDGED, recipes.size())), note, plan));
        }
        double first = judged.get(0).measured();
        return judged.stream()
                .filter(j -> j.measured() <= first)
                .min(Comparator.comparingDouble(j -> j.measured() + j.quick))
                .orElseThrow();
    }

    private static List<Judged> judged(List<Recipe> recipes, OneNote note, Plan plan) {
        return recipes.parallelStream().map(r -> judged(r, note, plan)).toList();
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

    private static Judged judged(Recipe found, OneNote note, Plan plan) {
        Side recording = note.recording();
        Recipe r = plan.isLevelFree() ? Matcher.asLoud(found, recording) : found;
        double quick = QuickEar.total(note.differences(r));
        try {
            Side imitation = Matcher.rendered(Matcher.render(plan.with(r), recording));
            return new Judged(r, Listener.compare(recording, imitation), quick);
        } catch (UnusableSound silent) {
            return new Judged(r, null, quick);
        }
    }
}
