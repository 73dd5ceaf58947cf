package nightreed.desktop.stage.build;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.CancellationException;
import java.util.function.Consumer;
import javafx.animation.KeyFrame;
import javafx.animation.Timeline;
import javafx.util.Duration;
import nightreed.desktop.reedbed.Axis;
import nightreed.desktop.reedbed.BedModel;
import nightreed.desktop.stage.BackgroundTask;
import nightreed.desktop.stage.Notes;
import nightreed.desktop.workspace.WorkspaceState;
import nightreed.match.compare.Comparison;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.compare.PartialDifference;
import nightreed.match.compare.PerceptualComparator;
import nightreed.match.sound.AnalysedSound;
import nightreed.measure.partial.Partial;
import nightreed.recipe.Patch;
import nightreed.recipe.Recipe;
import nightreed.recipe.part.Parameter;
import nightreed.sound.UnusableSound;

/**
 * Shows on the reeds what a value does: it goes down and up its ruler and back while the reflection follows, each step rendered
 * and compared. The recipe itself stays as it is.
 */
final class WhatItDoes {
    /** How far it goes either way, as a share of its ruler. */
    private static final double REACH = 0.12;

    private static final int STEPS = 4; // either way
    private static final double STEP_MILLIS = 170;
    private static final int TOLD = 3;

    private final Consumer<BedModel> bed;
    private final Runnable changed;
    private Timeline running;
    private Recipe of;
    private volatile Object turn; // read beside the window, to see whether it is still wanted
    private String title;
    private String now;
    private List<String> words = List.of();

    /** @param changed told when its notes say something else */
    WhatItDoes(Consumer<BedModel> bed, Runnable changed) {
        this.bed = bed;
        this.changed = changed;
    }

    /** One place on the ruler. */
    private record Step(double value, Comparison comparison, BedModel bed) {}

    void begin(WorkspaceState s, Parameter p) {
        stop();
        if (s.recipe() == null || s.recording() == null) {
            return;
        }
        Recipe recipe = s.recipe();
        Object mine = new Object();
        of = recipe;
        turn = mine;
        title = "What " + p.name() + " does";
        now = "Trying it up and down …";
        words = List.of();
        changed.run();
        BackgroundTask.work(
                () -> steps(mine, s.recording(), s.snapshot().shaped(), p),
                steps -> {
                    if (turn == mine) {
                        play(p, steps);
                    }
                },
                this::stop);
    }

    private List<Step> steps(Object mine, AnalysedSound recording, Patch patch, Parameter whole) {
        Recipe recipe = patch.first();
        Parameter p = whole.around(recipe.value(whole.id()));
        double at = p.position(recipe.value(p.id()));
        List<Step> out = new ArrayList<>();
        for (int i = -STEPS; i <= STEPS; i++) {
            if (turn != mine) {
                throw new CancellationException();
            }
            Step step = step(recording, patch, p, p.at(Math.max(0, Math.min(1, at + REACH * i / STEPS))));
            if (step != null) {
                out.add(step);
            }
        }
        return out;
    }

    /** Null where a value leaves nothing to hear, or touches another. */
    private static Step step(AnalysedSound recording, Patch patch, Parameter p, double value) {
        try {
            Patch moved = patch.withFirst(patch.first().with(p.id(), value));
            Comparison c = PerceptualComparator.compare(recording, ImitationRenderer.imitation(recording, moved));
            return new Step(value, c, BedModel.of(recording.measurement(), c, Axis.Kind.RATIO));
        } catch (UnusableSound | IllegalArgumentException notThere) {
            return null;
        }
    }

    private void play(Parameter p, List<Step> steps) {
        if (steps.size() < 2) {
            stop();
            changed.run();
            return;
        }
        words = words(p, steps.get(0), steps.get(steps.size() - 1));
        List<Step> round = new ArrayList<>(steps.subList(steps.size() / 2, steps.size()));
        for (int i = steps.size() - 2; i >= 0; i--) {
            round.add(steps.get(i));
        }
        round.addAll(steps.subList(1, steps.size() / 2 + 1));
        running = new Timeline();
        for (int i = 0; i < round.size(); i++) {
            Step step = round.get(i);
            running.getKeyFrames().add(new KeyFrame(Duration.millis(STEP_MILLIS * (i + 1)), e -> {
                bed.accept(step.bed);
                now = String.format(
                        Locale.ROOT,
                        "%s: %.2f JND all together",
                        p.formatWithUnit(step.value),
                        step.comparison.totalJnd());
                changed.run();
            }));
        }
        running.setCycleCount(2);
        running.setOnFinished(e -> {
            now = "It goes back to where it was: nothing has been changed.";
            running = null;
            changed.run();
        });
        running.play();
    }

    /** Ends when another recipe comes on the bench. */
    void follow(WorkspaceState s) {
        if (of != null && s.recipe() != of) {
            stop();
        }
    }

    /** Whether the reeds are its own now. */
    boolean moving() {
        return running != null;
    }

    void stop() {
        if (running != null) {
            running.stop();
            running = null;
        }
        of = null;
        turn = null;
        title = null;
        now = null;
        words = List.of();
    }

    void notes(Notes margin) {
        if (title == null) {
            return;
        }
        margin.add(Notes.heading(title), Notes.body(now));
        words.forEach(w -> margin.add(Notes.body(w)));
        margin.add(Notes.space(6));
    }

    /** What changes most between both ends. */
    static List<String> words(List<PartialDifference> low, List<PartialDifference> high, String span) {
        record Change(double size, String words) {}
        List<Change> all = new ArrayList<>();
        for (PartialDifference a : low) {
            for (PartialDifference b : high) {
                if (a.recording() == null
                        || b.recording() == null
                        || !a.recording().equals(b.recording())) {
                    continue;
                }
                Partial x = a.imitation();
                Partial y = b.imitation();
                String where = String.format(
                        Locale.ROOT, "the partial at %.0f Hz", a.recording().frequencyHz());
                if (x == null || y == null) {
                    if (x != y) {
                        all.add(new Change(20, where + (y == null ? " goes" : " comes")));
                    }
                    continue;
                }
                double db = 20 * Math.log10(y.amplitude() / x.amplitude());
                double cents = 1200 * Math.log(y.frequencyHz() / x.frequencyHz()) / Math.log(2);
                if (Math.abs(db) > 0.3) {
                    all.add(new Change(Math.abs(db), String.format(Locale.ROOT, "%s by %+.1f dB", where, db)));
                }
                if (Math.abs(cents) > 1) {
                    all.add(new Change(
                            Math.abs(cents) / 3, String.format(Locale.ROOT, "%s by %+.0f cents", where, cents)));
                }
                if (x.t60Seconds() != null && y.t60Seconds() != null) {
                    double times = y.t60Seconds() / x.t60Seconds();
                    if (Math.abs(Math.log(times)) > 0.05) {
                        all.add(new Change(
                                12 * Math.abs(Math.log(times)),
                                String.format(Locale.ROOT, "%s rings %.2f times as long", where, times)));
                    }
                }
            }
        }
        if (all.isEmpty()) {
            return List.of(span + ", no partial changes by what could be heard.");
        }
        all.sort(Comparator.comparingDouble(c -> -c.size));
        List<String> most = all.stream().limit(TOLD).map(Change::words).toList();
        String rest = all.size() > TOLD ? "; " + (all.size() - TOLD) + " smaller changes" : "";
        return List.of(span + ": " + String.join("; ", most) + rest + ".");
    }

    private static List<String> words(Parameter p, Step low, Step high) {
        return words(
                low.comparison.partials(),
                high.comparison.partials(),
                "From " + p.formatWithUnit(low.value) + " to " + p.formatWithUnit(high.value));
    }
}
