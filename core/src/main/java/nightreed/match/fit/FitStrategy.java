package nightreed.match.fit;

import static nightreed.match.fit.MultiStartSearch.bred;
import static nightreed.match.fit.MultiStartSearch.first;
import static nightreed.match.fit.MultiStartSearch.sorted;
import static nightreed.match.fit.MultiStartSearch.walked;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import nightreed.match.fit.RenderedLeastSquares.Candidate;
import nightreed.match.method.Methods;
import nightreed.match.method.Starts;
import nightreed.match.sound.AnalysedSound;
import nightreed.match.start.Method;
import nightreed.recipe.Recipe;
import nightreed.work.Progress;

/**
 * The plan of one search within a budget. Methods with few, uncertain values begin with {@link MultiStartSearch} on the beginning of the
 * note; its best candidates go on with longer renders, one of them to the end. Methods that start near hear the whole note from the
 * first.
 */
final class FitStrategy {
    /** Renders of the whole note that are enough for any of them; of short ones the amount would be more. */
    private static final double MOST_RENDERS = 1400;

    private static final double LEAST_RENDERS = 60;

    /** Seconds after the onset that are listened to. */
    static final double HEARD_SECONDS = 4;

    /** The same for what has been chosen out of many. */
    private static final double BRIEFLY_SECONDS = 1.5;

    /** The same for the many, of struck notes. */
    private static final double MOMENT_SECONDS = 0.5;

    /** Of what scouts found, how many are kept in case the ears do not agree about the one that is followed. */
    private static final int MOST_OTHERS = 3;

    /** Share of what may be spent on the walk of the nearest with the brief ear. */
    private static final double ROUNDS_SHARE = 0.1;

    /** Starting values that a search walks from where it listens to the whole note from the first. */
    private static final int TRIED = 3;

    /** Computed starts whose tones are tried to begin otherwise. */
    private static final int BEGUN = 2;

    /** A start as near as this is not looked around from [JND]. */
    private static final double NEAR_JND = 2.5;

    private static final int APPROACH_ROUNDS = 3;

    private final Method method;
    private final List<Recipe> starts;
    private FitOptions plan; // by what has been found
    private final AnalysedSound recording;
    private final OneNote note;
    private final List<Recipe> others = new ArrayList<>(); // that came far and were left
    private Recipe rival; // found on another way and measured beside the best; null if there is none
    private final Budget budget;
    private final RenderedLeastSquares whole;
    private final RenderedLeastSquares brief;
    private final RenderedLeastSquares moment;

    /**
     * @param starts the likeliest first, all of one method
     * @param ear    for the whole note
     * @param best   offered every recipe that is heard in full
     */
    FitStrategy(FitOptions plan, List<Recipe> starts, PerceptualResiduals ear, BestSoFar best, Progress progress) {
        this.recording = ear.recording();
        this.method = Methods.of(starts.get(0));
        this.plan = plan;
        this.starts = method.triesStrikeNoise() && !plan.onward() ? withNoise(starts) : starts;
        note = beside(ear);
        double render = this.starts.stream().mapToDouble(note::cost).max().orElse(1);
        double enough = Math.min(MOST_RENDERS * render, method.amount(isHeld()));
        budget = new Budget(Math.max(LEAST_RENDERS * render, plan.effort() * enough), progress);
        whole = new RenderedLeastSquares(note, budget, progress, plan.machine(), best);
        if (isOpen()) {
            brief = listening(new PerceptualResiduals(recording, BRIEFLY_SECONDS), progress);
            moment = listening(
                    new PerceptualResiduals(recording, isHeld() ? BRIEFLY_SECONDS : MOMENT_SECONDS), progress);
        } else {
            brief = whole;
            moment = whole;
        }
    }

    /** Each again with the noise that its tones leave; what is locked stays. */
    private List<Recipe> withNoise(List<Recipe> all) {
        boolean locked = plan.locked().stream().anyMatch(id -> id.startsWith("noise."));
        if (locked || !plan.isLevelFree()) {
            return all;
        }
        List<Recipe> fitted = all.parallelStream()
                .map(r -> plan.machine().limited(StrikeNoiseFit.of(asLoud(r), recording)))
                .toList();
        return Stream.of(fitted, all).flatMap(List::stream).distinct().toList();
    }

    private RenderedLeastSquares listening(PerceptualResiduals ear, Progress progress) {
        return new RenderedLeastSquares(beside(ear), budget, progress, plan.machine());
    }

    private OneNote beside(PerceptualResiduals ear) {
        return OneNote.within(plan.with(starts.get(0)), ear);
    }

    /** Listens in full to the likeliest starts, so that there is something to return. */
    void hear() {
        starts.stream().limit(TRIED).forEach(r -> whole.at(asLoud(r)));
    }

    /** What it listens with to the whole note. */
    OneNote note() {
        return note;
    }

    private boolean isOpen() {
        return method.isOpen();
    }

    /** Its beginning says little of a held note. */
    private boolean isHeld() {
        return recording.measurement().held() != null;
    }

    /** The first start, what was found, and what was met on the way to it. */
    List<Recipe> found() {
        List<Recipe> met = new ArrayList<>();
        hear();
        boolean anew = isOpen() && !plan.onward();
        Candidate best = anew ? whole.at(asLoud(afresh())) : nearest();
        for (List<String> stage : plan.stages(best.recipe())) {
            if (isOpen() && !anew && !budget.spent()) {
                Candidate leapt = whole.at(new CoordinateRestarts(brief, plan.main(best.recipe()))
                        .from(brief.at(best.recipe()))
                        .recipe());
                best = leapt.total() < best.total() ? leapt : best;
            }
            Candidate before = best;
            best = whole.run(best, Methods.of(best.recipe()).anchors(best.recipe()), stage, 12);
            met.add(before.recipe());
        }
        met.addAll(others);
        if (rival != null) {
            met.add(0, rival);
        }
        met.add(0, best.recipe());
        met.add(0, starts.get(0));
        return met;
    }

    /** Of starts that were computed, whether that is so well that nothing further off has to be looked for. */
    private boolean isNear(List<Candidate> computed) {
        Candidate nearest = sorted(brief.at(
                        first(TRIED, computed).stream().map(Candidate::recipe).toList()))
                .get(0);
        return nearest.total() < NEAR_JND;
    }

    /** From the nearest of computed starts where they are near, otherwise from whatever scouts find. */
    private Recipe afresh() {
        if (!method.computesStarts(isHeld())) {
            return scouted(starts);
        }
        List<Candidate> begun = begun(sorted(moment.at(starts)));
        if (isNear(begun)) {
            budget.forgo(method.savedByNearStart());
            if (method.keepsFrequencies(isHeld())) {
                plan = plan.keepingBeats(begun.get(0).recipe());
            }
            Recipe near = approached(begun);
            return method.hasDearStarts() ? near : nearOrScouted(near);
        }
        Stream<Recipe> nearest = first(TRIED, begun).stream().map(Candidate::recipe);
        return scouted(Stream.concat(nearest, starts.stream()).distinct().toList());
    }

    /**
     * What rough starts lead to, or what a search from many starts finds, whichever the residuals put nearer. The other is measured at
     * the end as well, as the residuals tell little of how a held note begins.
     */
    private Recipe nearOrScouted(Recipe near) {
        Recipe far = scouted(starts);
        if (whole.at(asLoud(near)).total() <= whole.at(asLoud(far)).total()) {
            return near;
        }
        rival = asLoud(near);
        return far;
    }

    /** The nearest few of computed starts walked from, the nearest of those with a longer ear. */
    private Recipe approached(List<Candidate> computed) {
        List<Candidate> near = walked(moment, first(TRIED, computed), plan, APPROACH_ROUNDS);
        first(MOST_OTHERS, near).forEach(p -> others.add(asLoud(p.recipe())));
        whole.at(asLoud(near.get(0).recipe()));
        List<Candidate> briefly =
                first(2, near).stream().map(p -> brief.at(p.recipe())).toList();
        return walked(brief, briefly, plan, APPROACH_ROUNDS).get(0).recipe();
    }

    /** The nearest few also with tones that begin otherwise, and noise that leaves to them what is theirs. */
    private List<Candidate> begun(List<Candidate> points) {
        List<Recipe> others = first(BEGUN, points).stream()
                .flatMap(p -> OnsetVariants.of(p.recipe()).stream())
                .map(plan::kept)
                .toList();
        List<Candidate> all = new ArrayList<>(points);
        all.addAll(moment.at(withNoise(others)));
        return sorted(all);
    }

    /** Of the nearest few of the starts, each walked from a little way. */
    private Candidate nearest() {
        List<Candidate> tried = new ArrayList<>(first(TRIED, sorted(brief.at(starts))).parallelStream()
                .map(p -> levelled(whole.at(asLoud(p.recipe()))))
                .toList());
        tried.replaceAll(p -> whole.run(p, Methods.of(p.recipe()).anchors(p.recipe()), plan.main(p.recipe()), 4));
        if (!isOpen()) {
            return RenderedLeastSquares.best(tried);
        }
        List<Candidate> briefly = tried.stream().map(p -> brief.at(p.recipe())).toList();
        tried.add(whole.at(
                bred(brief, briefly, starts.get(0), plan, budget).get(0).recipe()));
        return RenderedLeastSquares.best(tried);
    }

    /** What no walk along slopes finds. */
    private Candidate levelled(Candidate p) {
        return BandLevelFit.levelled(whole, note, p);
    }

    /** Of many starts, the nearest by the brief ear after walks from the likeliest of them. */
    private Recipe scouted(List<Recipe> from) {
        List<Candidate> near = new MultiStartSearch(from, plan, budget, recording, moment).found();
        first(MOST_OTHERS, near).forEach(p -> others.add(asLoud(p.recipe())));
        whole.at(asLoud(near.get(0).recipe()));
        List<Candidate> briefly =
                first(2, near).stream().map(p -> brief.at(p.recipe())).toList();
        return walked(brief, briefly, plan, rounds(near.get(0).recipe())).get(0).recipe();
    }

    /** Rounds of a walk that a share of what may be spent is enough for, one to four. */
    private int rounds(Recipe recipe) {
        double round = brief.cost(recipe) * (plan.main(recipe).size() + 8);
        return (int) Math.max(1, Math.min(4, ROUNDS_SHARE * budget.amount() / round));
    }

    private Recipe asLoud(Recipe recipe) {
        return plan.isLevelFree() ? Starts.levelled(recipe, recording) : recipe;
    }
}
