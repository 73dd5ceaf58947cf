package nightreed.desktop.stage.build;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Consumer;
import javafx.scene.control.Button;
import javafx.scene.layout.HBox;
import nightreed.desktop.stage.NodeFactory;
import nightreed.desktop.stage.Notes;
import nightreed.desktop.workspace.Fitting;
import nightreed.desktop.workspace.MethodNames;
import nightreed.desktop.workspace.Workspace;
import nightreed.desktop.workspace.WorkspaceState;
import nightreed.match.advice.Adviser;
import nightreed.match.fit.JointFit;
import nightreed.match.method.MethodAdvice;
import nightreed.match.start.Start;
import nightreed.measure.partial.Partial;
import nightreed.music.Pitch;
import nightreed.project.Take;
import nightreed.recipe.FmRecipe;
import nightreed.recipe.PatchCheck;
import nightreed.recipe.Recipe;
import nightreed.recipe.ResonatorRecipe;
import nightreed.recipe.size.PatchSize;

/** What stands in the margin of the Build stage: why this method, where its values come from, what was tried. */
final class BuildNotes {
    private static final Map<String, String> ABOUT = Map.of(
            "resonators",
            "A bank of decaying modes, struck together, each with its own level and decay.",
            "fm",
            "A modulator bends a carrier: lines stand at carrier plus and minus whole numbers of modulators, and the index"
                    + " says how many. Bells, brass, metallic plucks.",
            "ring",
            "Two waves multiplied give sums and differences of their partials. Drift makes them beat. Gongs and bells.",
            "formant",
            "A wave and noise through bands, each with its own mix and course. Bodies, vowels, wooden hits.",
            "string",
            "A delay loop tuned to the key; a filter in it lets each partial die at its pace. Plucked and bowed strings.",
            "subtractive",
            "Rich waves through a filter that opens and closes. Brass, reeds, flutes.");

    /** Findings that are shown; the next come when these are gone. */
    private static final int MOST_FINDINGS = 4;

    private final Workspace bench;
    private final Consumer<String> reveal;
    private final List<HBox> ways = new ArrayList<>();
    private final Notes margin;
    private final MachineMenu machine;
    private final LayerNotes layers;
    private final LendNotes lent;
    private final FeedNotes feeds;
    private final PairWords pairs = new PairWords();

    /**
     * @param changed called when the notes are to be shown anew
     * @param reveal  brings the ruler of a value into view
     */
    BuildNotes(Workspace bench, Notes margin, MachineMenu machine, Runnable changed, Consumer<String> reveal) {
        this.reveal = reveal;
        this.bench = bench;
        this.margin = margin;
        this.machine = machine;
        this.lent = new LendNotes(bench, changed);
        this.feeds = new FeedNotes(bench);
        this.layers = new LayerNotes(bench, lent.menu(), feeds.menu());
    }

    /** Where there is no recipe yet. */
    void nothing(WorkspaceState s) {
        margin.add(Notes.heading("Nothing built yet"));
        margin.add(Notes.body(
                s.recording() == null
                        ? "Bring in a recording on the Brief stage, or choose a method here and build by hand: each begins with a"
                                + " plain sound."
                        : "Choose a method, or let all six be tried: each is fitted until no single value helps,"
                                + " and the nearest stays."));
        if (s.recording() != null) {
            promising(s);
        }
    }

    /** Methods by what the measurement promises. */
    private void promising(WorkspaceState s) {
        margin.add(Notes.space(4), Notes.heading("What the recording asks for"));
        List<MethodAdvice> advice = MethodAdvice.of(s.recording().measurement());
        for (MethodAdvice a : advice.subList(0, 3)) {
            margin.add(Notes.body(MethodNames.of(a.method()) + ". " + a.why()));
        }
    }

    /** Of a bank of modes, when the values that matter most are shown. */
    void modes(WorkspaceState s, ResonatorRecipe r) {
        joint(s);
        layers.notes(s, margin);
        lent.notes(s, margin);
        feeds.notes(s, margin);
        ranking();
        machine.notes(s, margin);
        margin.add(Notes.heading("Why resonators"));
        margin.add(Notes.body(String.format(
                Locale.ROOT,
                "%d partials each die at their own pace. %d modes, struck together, do the same; no envelope is"
                        + " shared.",
                s.recording().measurement().reliablePartials().size(),
                r.modes().size())));
        Partial p = bench.selectedProperty().get();
        if (p != null) {
            int i = ModeRulers.nearest(r, p);
            var m = r.modes().get(i);
            margin.add(Notes.space(6), Notes.heading("Mode " + (i + 1)));
            margin.add(
                    Notes.pair("frequency", String.format(Locale.ROOT, "%.2f Hz", m.ratio() * r.f0Hz())),
                    Notes.pair("level", String.format(Locale.ROOT, "%.1f dB", m.levelDb())),
                    Notes.pair("T60", String.format(Locale.ROOT, "%.3f s", m.t60Seconds())),
                    Notes.pair(
                            "rings like Q",
                            String.format(Locale.ROOT, "%.0f", m.t60Seconds() * m.ratio() * r.f0Hz() / 2.199)));
            if (p.t60Seconds() != null && Math.abs(Math.log(m.t60Seconds() / p.t60Seconds())) > 0.1) {
                margin.add(Notes.quiet(
                        String.format(Locale.ROOT, "The recording's partial there rings for %.3f s.", p.t60Seconds())));
            }
        }
        check(s);
        List<Take> takes = s.takes();
        if (!takes.isEmpty()) {
            margin.add(Notes.space(6), Notes.heading("Takes"));
            for (int i = takes.size() - 1; i >= Math.max(0, takes.size() - 5); i--) {
                Take t = takes.get(i);
                margin.add(Notes.pair(t.name(), t.distance()));
            }
        }
        margin.add(
                Notes.space(6),
                Notes.quiet("Green: how far a value may move before anyone hears it. Amber tick: the fitted"
                        + " value, a double click goes back to it. The bar at the end: how strongly the value"
                        + " moves the match."));
    }

    /** Where the values come from, and what is forgotten. */
    void method(WorkspaceState s) {
        Recipe r = s.recipe();
        joint(s);
        layers.notes(s, margin);
        lent.notes(s, margin);
        feeds.notes(s, margin);
        margin.add(Notes.heading(MethodNames.of(r.method())));
        margin.add(Notes.body(ABOUT.get(r.method())));
        if (r instanceof FmRecipe fm) {
            for (int i = 0; i < fm.pairs().size(); i++) {
                margin.add(Notes.quiet("Pair " + (i + 1) + ": " + pairs.of(fm, i + 1) + "."));
            }
        }
        ranking();
        machine.notes(s, margin);
        Start start = bench.fitting().startedProperty().get();
        if (start != null && start.recipe().method().equals(r.method())) {
            boolean moved = !start.recipe().equals(r);
            margin.add(
                    Notes.space(4),
                    Notes.heading(moved ? "Where the first values came from" : "Where values come from"));
            if (moved) {
                margin.add(Notes.quiet("A fit or a hand has moved values since."));
            }
            for (Start.Origin o :
                    start.origins().subList(0, Math.min(7, start.origins().size()))) {
                margin.add(Notes.quiet(named(r, o.parameterId()) + ": " + o.why()));
            }
        }
        check(s);
    }

    /** What is forgotten or amiss in the layer that is shaped, with ways to it and out of it. */
    private void check(WorkspaceState s) {
        List<PatchCheck.Finding> findings = new ArrayList<>(s.findings());
        findings.addAll(PatchCheck.of(s.recipe()));
        if (findings.isEmpty()) {
            return;
        }
        margin.add(Notes.space(4), Notes.heading("Check"));
        for (int i = 0; i < Math.min(MOST_FINDINGS, findings.size()); i++) {
            PatchCheck.Finding f = findings.get(i);
            margin.add(Notes.body(f.text()));
            HBox row = ways(i);
            boolean there = s.recipe().settings().stream()
                    .anyMatch(v -> v.parameter().id().equals(f.parameterId()));
            Button show = (Button) row.getChildren().get(0);
            Button mend = (Button) row.getChildren().get(1);
            shown(show, there, () -> reveal.accept(f.parameterId()));
            shown(mend, f.mended() != null, () -> bench.shaping().use(f.mended(), "mend"));
            if (there || f.mended() != null) {
                margin.add(Notes.of(row));
            }
        }
    }

    /** The two links under a finding, which are used again for the next that stands there. */
    private HBox ways(int i) {
        while (ways.size() <= i) {
            int number = ways.size() + 1;
            ways.add(new HBox(
                    14,
                    NodeFactory.link("check-show-" + number, "Show", () -> {}),
                    NodeFactory.link("check-mend-" + number, "Mend", () -> {})));
        }
        return ways.get(i);
    }

    private static void shown(Button b, boolean is, Runnable action) {
        b.setVisible(is);
        b.setManaged(is);
        b.setOnAction(e -> action.run());
    }

    /** What came of trying all methods. */
    private void ranking() {
        List<Adviser.Ranked> ranking = bench.fitting().rankingProperty().get();
        if (ranking == null) {
            return;
        }
        margin.add(Notes.space(4), Notes.heading("All methods, the nearest first"));
        for (Adviser.Ranked r : ranking) {
            margin.add(Notes.pair(
                    MethodNames.of(r.fitted().method()),
                    String.format(
                            Locale.ROOT,
                            "%d values, %.2f JND",
                            PatchSize.of(r.fitted().recipe()),
                            r.fitted().comparison().totalJnd())));
        }
        margin.add(Notes.quiet(MethodNames.of(ranking.get(0).fitted().method()) + ": "
                + ranking.get(0).why() + "."));
    }

    /** What came of fitting several notes at once, as long as its recipe is on the bench. */
    private void joint(WorkspaceState s) {
        Fitting.Joint joint = bench.fitting().togetherProperty().get();
        if (joint == null || s.snapshot().fitted() != joint.result().recipe()) {
            return;
        }
        margin.add(Notes.heading("Notes fitted together"));
        for (int i = 0; i < joint.names().size(); i++) {
            JointFit.Heard h = joint.result().notes().get(i);
            margin.add(Notes.pair(
                    joint.names().get(i),
                    String.format(Locale.ROOT, "%.2f JND", h.comparison().totalJnd())));
            margin.add(Notes.quiet(String.format(
                    Locale.ROOT,
                    "%s, strength taken as %.2f",
                    Pitch.name(h.note().key()),
                    h.note().velocity())));
        }
        margin.add(Notes.quiet("Strengths are taken from the loudness of notes on one key, or as usual."));
        margin.add(Notes.space(4), Notes.heading("What these notes tell"));
        joint.result()
                .maps()
                .forEach((id, value) -> margin.add(Notes.pair(
                        named(s.recipe(), id),
                        s.recipe().setting(id).parameter().formatWithUnit(value))));
        margin.add(Notes.space(4));
    }

    /** Name of a value, or of the first of several. */
    private static String named(Recipe r, String id) {
        for (Recipe.Setting v : r.settings()) {
            if (v.parameter().id().equals(id)) {
                return v.parameter().name();
            }
        }
        return id.replace('.', ' ');
    }
}
