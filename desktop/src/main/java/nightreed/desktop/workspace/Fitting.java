package nightreed.desktop.workspace;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Executor;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import nightreed.machine.Machine;
import nightreed.match.advice.Adviser;
import nightreed.match.advice.Adviser.Ranked;
import nightreed.match.advice.LimitCosts;
import nightreed.match.advice.LimitCosts.Price;
import nightreed.match.compare.Comparison;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.compare.PerceptualComparator;
import nightreed.match.fit.FitOptions;
import nightreed.match.fit.Fits;
import nightreed.match.fit.Fitted;
import nightreed.match.fit.JointFit;
import nightreed.match.fit.JointFit.Note;
import nightreed.match.fit.JointFit.Result;
import nightreed.match.fit.Layers;
import nightreed.match.fit.Layers.Layered;
import nightreed.match.frontier.Frontier;
import nightreed.match.frontier.Frontier.Point;
import nightreed.match.frontier.JointPatches;
import nightreed.match.frontier.Patches;
import nightreed.match.frontier.Patches.Found;
import nightreed.match.frontier.Wanted;
import nightreed.match.method.Starts;
import nightreed.match.sound.AnalysedSound;
import nightreed.match.start.Start;
import nightreed.measure.Measurement;
import nightreed.music.Pitch;
import nightreed.project.Snapshot;
import nightreed.recipe.Patch;
import nightreed.recipe.Recipe;
import nightreed.recipe.ResonatorRecipe;
import nightreed.sound.Clip;

/** Fits to the recording on the bench. Called on the UI thread; what is found comes on the bench when it is there. */
public final class Fitting {
    private final Workspace bench;
    private final Executor ui;
    private final ReadOnlyObjectWrapper<Start> started = new ReadOnlyObjectWrapper<>();
    private final ReadOnlyObjectWrapper<List<Ranked>> ranking = new ReadOnlyObjectWrapper<>();
    private final ReadOnlyObjectWrapper<List<Price>> prices = new ReadOnlyObjectWrapper<>();
    private final ReadOnlyObjectWrapper<Machine> machine = new ReadOnlyObjectWrapper<>(Machine.ANY);
    private final ReadOnlyObjectWrapper<Joint> together = new ReadOnlyObjectWrapper<>();
    private final ReadOnlyObjectWrapper<Layered> layered = new ReadOnlyObjectWrapper<>();
    private double effort = 1;

    Fitting(Workspace bench, Executor ui) {
        this.bench = bench;
        this.ui = ui;
        bench.stateProperty().addListener((o, was, is) -> forget(was, is));
    }

    /** What was found is of one recording; prices are of one method, too. */
    private void forget(WorkspaceState was, WorkspaceState is) {
        boolean other = was.recording() == null
                || is.recording() == null
                || was.recording().clip() != is.recording().clip();
        if (other) {
            ranking.set(null);
            started.set(null);
            together.set(null);
            layered.set(null);
        }
        if (other
                || was.recipe() == null
                || is.recipe() == null
                || !was.recipe().method().equals(is.recipe().method())) {
            prices.set(null);
        }
    }

    /** Machine that has to play what is found; {@link Machine#ANY} for none in particular. */
    public ReadOnlyObjectProperty<Machine> machineProperty() {
        return machine.getReadOnlyProperty();
    }

    public void on(Machine other) {
        machine.set(other);
        prices.set(null);
        ranking.set(null);
    }

    /** Has searches take another share of their usual number of renders from now on. */
    public void trying(double share) {
        effort = share;
    }

    private FitOptions usual() {
        return FitOptions.USUAL.on(machine.get()).trying(effort);
    }

    /** Fits the method in use to the recording, from the measurement; resonators if there is none yet. */
    public void fit() {
        WorkspaceState at = bench.state();
        fit(at.recipe() == null ? "resonators" : at.recipe().method(), false);
    }

    /** Goes on from the recipe as it is, without what is locked. */
    public void fitFromHere() {
        WorkspaceState at = bench.state();
        if (at.recipe() != null) {
            if (at.snapshot().isLayerLocked()) {
                bench.say("This layer is locked: choose another one to fit, or set it free.");
                return;
            }
            fit(at.recipe().method(), true);
        }
    }

    private void fit(String method, boolean fromHere) {
        WorkspaceState at = bench.state();
        if (at.recording() == null) {
            bench.say("There is no recording to fit yet: bring one in on the Brief stage.");
            return;
        }
        FitOptions plan =
                fromHere ? usual().from(at.snapshot().shaped(), at.snapshot().locked()) : afresh(at, method);
        if (!plan.machine().can(method)) {
            bench.say("'" + plan.machine().name() + "' cannot play this method: choose another method, or no limits.");
            return;
        }
        String label = (fromHere ? "fit from here, " : "fit ") + method;
        Wanted wanted = wanted();
        bench.search("fitting " + method, progress -> {
            if (fromHere) {
                keep(at, label, Fits.of(method, at.recording(), plan, progress), true);
                return;
            }
            Found found = Patches.of(method, at.recording(), plan, progress);
            bench.simpler().keep(at, List.of(found));
            keep(at, label, found.fitted(wanted.of(found.frontier()), at.recording()), false);
        });
    }

    /** Has formant bands take their courses from the recording: an effect, and nothing that a hand could set. */
    public void follow() {
        WorkspaceState at = bench.state();
        if (at.recording() == null) {
            bench.say("There is no recording to follow yet: bring one in on the Brief stage.");
            return;
        }
        FitOptions plan = usual().following();
        bench.search("following the recording", progress -> {
            Fitted fitted = Fits.of("formant", at.recording(), plan, progress);
            keep(at, "follow the recording", fitted, false);
        });
    }

    private Wanted wanted() {
        return new Wanted(bench.simpler().useProperty().get(), null, null);
    }

    /** From the measurement, but with what is locked in a recipe of that method. */
    private FitOptions afresh(WorkspaceState at, String method) {
        boolean keeps = at.recipe() != null
                && at.recipe().method().equals(method)
                && !at.snapshot().locked().isEmpty();
        return keeps ? usual().keeping(at.recipe(), at.snapshot().locked()) : usual();
    }

    /**
     * Tries every method, the most promising first; the nearest comes on the bench, and each becomes a take.
     *
     * @param seconds that it may take together; infinite for as long as it needs
     */
    public void matchAll(double seconds) {
        WorkspaceState at = bench.state();
        if (at.recording() == null) {
            bench.say("There is no recording to match yet: bring one in on the Brief stage.");
            return;
        }
        Wanted wanted = wanted();
        bench.search("trying all methods", progress -> {
            List<Found> found = Patches.of(Starts.METHODS, at.recording(), usual().within(seconds), progress);
            bench.simpler().keep(at, found);
            List<Fitted> each = new ArrayList<>();
            for (Found f : found) {
                each.add(f.fitted(wanted.of(f.frontier()), at.recording()));
            }
            List<Ranked> ranked = Adviser.after(each);
            ui.execute(() -> ranking.set(ranked));
            Point best =
                    wanted.of(Frontier.over(found.stream().map(Found::frontier).toList()));
            for (int i = ranked.size() - 1; i >= 0; i--) {
                Fitted f = ranked.get(i).fitted();
                if (!f.method().equals(best.method())) {
                    bench.change(project ->
                            project.addTake(at.current(), "match, " + f.method(), "", f.comparison(), f.recipe()));
                }
            }
            for (Found f : found) {
                if (f.method().equals(best.method())) {
                    keep(at, "match, " + best.method(), f.fitted(best, at.recording()), false);
                }
            }
        });
    }

    /** What the last try of all methods found, the nearest first; null before there was one. */
    public ReadOnlyObjectProperty<List<Ranked>> rankingProperty() {
        return ranking.getReadOnlyProperty();
    }

    /** Works out what each limit of the machine costs in the method on the bench. */
    public void price() {
        WorkspaceState at = bench.state();
        FitOptions plan = usual();
        if (at.recording() == null || at.recipe() == null || plan.machine().equals(Machine.ANY)) {
            bench.say("Prices need a recording, an imitation of it, and the limits of a machine.");
            return;
        }
        if (!plan.machine().can(at.recipe().method())) {
            bench.say("'" + plan.machine().name() + "' cannot play this method at all: choose another one first.");
            return;
        }
        bench.run("pricing what '" + plan.machine().name() + "' lacks", progress -> {
            Fitted within = Fits.of(at.recipe().method(), at.recording(), plan, progress.part(0, 0.3));
            List<Price> found = LimitCosts.of(at.recording(), within, plan, progress.part(0.3, 1));
            ui.execute(() -> prices.set(found));
        });
    }

    /** What each limit of the machine costs, the dearest first; null before it was worked out. */
    public ReadOnlyObjectProperty<List<Price>> pricesProperty() {
        return prices.getReadOnlyProperty();
    }

    /** Fits the method in use to all notes that are kept together with the one on the bench. */
    public void fitTogether() {
        WorkspaceState at = bench.state();
        if (at.recording() == null || at.recording().measurement().f0Hz() == null) {
            bench.say("Fitting notes together needs a recording with a pitch on the bench.");
            return;
        }
        bench.ask(project -> Family.of(project, at.current()), family -> together(at, family.others()));
    }

    private void together(WorkspaceState at, List<Family.Kept> others) {
        List<AnalysedSound> sides = new ArrayList<>(List.of(at.recording()));
        List<String> names = new ArrayList<>(List.of(at.current().name()));
        for (Family.Kept k : others) {
            Measurement m = k.measurement();
            if (m.f0Hz() != null) {
                sides.add(new AnalysedSound(k.clip(), m)
                        .byHand(k.hand())
                        .heardBy(at.recording().listener()));
                names.add(k.name());
            }
        }
        if (sides.size() < 2) {
            bench.say("No other notes of this instrument are kept together with this one: add them under notes, on the"
                    + " Measure stage.");
            return;
        }
        String method = at.recipe() == null ? "resonators" : at.recipe().method();
        boolean layered = at.recipe() != null && !at.snapshot().patch().isOne();
        FitOptions plan =
                layered ? usual().from(at.snapshot().shaped(), at.snapshot().locked()) : afresh(at, method);
        Wanted wanted = wanted();
        bench.search("fitting " + sides.size() + " notes together", progress -> {
            List<Integer> keys = sides.stream()
                    .map(s -> Pitch.nearestKey(s.measurement().f0Hz()))
                    .toList();
            List<Double> strengths = JointFit.strengths(sides, keys);
            List<Note> notes = IntStream.range(0, sides.size())
                    .mapToObj(i -> new Note(sides.get(i), keys.get(i), strengths.get(i), false))
                    .toList();
            JointPatches.Found all = JointPatches.of(method, notes, notes.get(0), plan, progress);
            Result found = all.result(wanted.of(all.frontier()));
            ui.execute(() -> together.set(new Joint(names, found)));
            Snapshot next = layered
                    ? at.snapshot().withFitHere(found.recipe())
                    : at.snapshot().withFit(found.recipe());
            bench.arrive(
                    at,
                    "fit " + sides.size() + " notes together",
                    next,
                    project -> project.addTake(
                            at.current(),
                            "fit of " + sides.size() + " notes together",
                            Adviser.cost(found.recipe()),
                            found.notes().get(0).comparison(),
                            next.patch()));
        });
    }

    /** A fit of several notes. @param names of the imitations they belong to, in the order of its notes */
    public record Joint(List<String> names, Result result) {}

    /** What the last fit of several notes together found, null before there was one. */
    public ReadOnlyObjectProperty<Joint> togetherProperty() {
        return together.getReadOnlyProperty();
    }

    /** @param here whether it comes in the place of what was shaped, beside the other layers */
    private void keep(WorkspaceState at, String label, Fitted fitted, boolean here) {
        Snapshot next = here
                ? at.snapshot().withFitHere(fitted.recipe())
                : at.snapshot().withFit(fitted.recipe());
        Patch patch = next.patch();
        Comparison shown = ImitationRenderer.isPlain(at.recording(), patch) // as the bench will show it
                ? ImitationRenderer.predict(at.recording(), (ResonatorRecipe) fitted.recipe())
                : fitted.comparison();
        bench.arrive(at, label, next, project -> project.addTake(at.current(), label, cost(patch), shown, patch));
    }

    private static String cost(Patch patch) {
        return patch.layers().stream().map(l -> Adviser.cost(l.recipe())).collect(Collectors.joining("; with it "));
    }

    /** Looks for a second recipe under the one on the bench, for what that leaves over. */
    public void fitUnder() {
        WorkspaceState at = bench.state();
        if (at.recording() == null || at.recipe() == null) {
            bench.say("A second layer needs an imitation to be put under: fit one first.");
            return;
        }
        if (at.snapshot().patch().layers().size() > 1) {
            bench.say("There are layers already: take all but one out to have another looked for.");
            return;
        }
        FitOptions plan = usual().from(at.recipe(), at.snapshot().locked());
        bench.search("looking for a layer under it", progress -> {
            Clip alone = ImitationRenderer.render(at.recipe(), at.recording());
            Comparison now = PerceptualComparator.compare(at.recording(), ImitationRenderer.rendered(alone));
            Layered found = Layers.of(at.recording(), new Fitted(at.recipe(), alone, now, true, 0), plan, progress);
            Patch patch = found.patch();
            if (patch.layers().size() < 2) {
                bench.say("One layer is enough: none under it was found that brings the imitation clearly nearer.");
                return;
            }
            Recipe under = patch.layers().get(1).recipe();
            ui.execute(() -> layered.set(found));
            bench.arrive(
                    at,
                    under.method() + " under it",
                    at.snapshot().with(b -> b.patch(patch)),
                    project -> project.addTake(
                            at.current(),
                            at.recipe().method() + " over " + under.method(),
                            cost(patch),
                            found.comparison(),
                            patch));
        });
    }

    /** What the last search for a second layer found, null before there was one. */
    public ReadOnlyObjectProperty<Layered> layeredProperty() {
        return layered.getReadOnlyProperty();
    }

    /** Changes to another method, with the values that it takes from the measurement. */
    public void startMethod(String method) {
        WorkspaceState at = bench.state();
        if (at.recording() == null) {
            bench.say("There is no recording to compute values from yet: bring one in on the Brief stage.");
            return;
        }
        bench.run("starting values for " + method, progress -> {
            Start start = Starts.of(method, at.recording());
            ui.execute(() -> started.set(start));
            boolean layered = at.recipe() != null && !at.snapshot().patch().isOne();
            Snapshot next = layered
                    ? at.snapshot().withFitHere(start.recipe())
                    : at.snapshot().withFit(start.recipe());
            bench.arrive(at, "start " + method, next, project -> {});
        });
    }

    /** The last starting values, with where each came from; null before there were any. */
    public ReadOnlyObjectProperty<Start> startedProperty() {
        return started.getReadOnlyProperty();
    }
}
