package nightreed.desktop.stage;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ProgressBar;
import javafx.scene.control.Slider;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import nightreed.desktop.bench.Bench;
import nightreed.desktop.bench.BenchState;
import nightreed.desktop.reedbed.Axis;
import nightreed.desktop.reedbed.BedModel;
import nightreed.desktop.reedbed.Reedbed;
import nightreed.desktop.reedbed.Strip;
import nightreed.desktop.settings.PreferenceStore;
import nightreed.match.Aspect;
import nightreed.match.Comparison;
import nightreed.match.Matcher;
import nightreed.match.Move;
import nightreed.project.Take;

/** Compare: recording against imitation, what would be heard, and what to do next. */
public final class CompareView implements StageView {
    private final Bench bench;
    private final VBox centre = new VBox(6);
    private final Notes margin = new Notes(8);
    private final Reedbed bed;
    private final Strip strip;
    private final Slider time = new Slider(0, 1, 0);
    private final Label timeText = Parts.figures("strike");
    private final Label verdict = Parts.body("");
    private final TakeLine history = new TakeLine();
    private final Map<Aspect, Label> values = new EnumMap<>(Aspect.class);
    private final Map<Aspect, ProgressBar> bars = new EnumMap<>(Aspect.class);
    private Axis.Kind kind;
    private Comparison shown;
    private List<Move> shownMoves;
    private final List<Node> cards = new ArrayList<>();

    public CompareView(Bench bench, PreferenceStore preferences) {
        this.bench = bench;
        this.kind = preferences.get().axis();
        bed = new Reedbed(bench.selectedProperty());
        strip = new Strip(bench.selectedProperty());
        bed.setId("compare-bed");
        bed.setEmptyText("Nothing to compare yet: bring in a recording and fit an imitation.");
        bed.setOnAxis(strip::setAxis);
        VBox.setVgrow(bed, Priority.ALWAYS);
        bed.setMinHeight(200);
        strip.setMinHeight(96);
        strip.setPrefHeight(96);
        centre.getChildren().addAll(head(), bed, stripHead(), strip, timeline(), aspects(), verdictLine());
    }

    private HBox head() {
        ToggleGroup group = new ToggleGroup();
        HBox row = new HBox(4, Parts.quiet("Recording above, imitation mirrored below"), Parts.gap());
        for (Axis.Kind k : Axis.Kind.values()) {
            row.getChildren().add(choice(k.title(), group, k == kind, () -> {
                kind = k;
                shown = null;
                show(bench.state());
            }));
        }
        row.setAlignment(Pos.CENTER_LEFT);
        return row;
    }

    private HBox stripHead() {
        ToggleGroup group = new ToggleGroup();
        HBox row = new HBox(4, Parts.quiet("Exactly, with the span of one JND shaded:"));
        for (Strip.Shows s : Strip.Shows.values()) {
            row.getChildren().add(choice(s.title(), group, s == Strip.Shows.T60, () -> strip.show(s)));
        }
        row.setAlignment(Pos.CENTER_LEFT);
        return row;
    }

    private static ToggleButton choice(String title, ToggleGroup group, boolean on, Runnable chosen) {
        ToggleButton b = new ToggleButton(title);
        b.getStyleClass().add("plain-toggle");
        b.setToggleGroup(group);
        b.setSelected(on);
        b.setOnAction(e -> {
            b.setSelected(true);
            chosen.run();
        });
        return b;
    }

    private HBox timeline() {
        time.setId("time-slider");
        time.setAccessibleText("Time after the strike");
        time.valueProperty().addListener((o, a, v) -> {
            double t = seconds(v.doubleValue());
            timeText.setText(t < 0.005 ? "strike" : String.format(Locale.ROOT, "%.2f s", t));
            bed.setTime(t < 0.005 ? 0 : t);
        });
        HBox.setHgrow(time, Priority.ALWAYS);
        timeText.setMinWidth(56);
        HBox row = new HBox(10, Parts.quiet("time"), time, timeText);
        row.setAlignment(Pos.CENTER_LEFT);
        return row;
    }

    /** More room for the start, where most happens. */
    private static double seconds(double position) {
        return 4 * position * position;
    }

    private VBox aspects() {
        HBox row = new HBox(10);
        for (Aspect a : Aspect.values()) {
            Label name = Parts.quiet(a.id());
            name.setWrapText(false);
            name.setMinWidth(Region.USE_PREF_SIZE);
            Label v = Parts.figures("");
            v.setId("aspect-" + a.id());
            ProgressBar bar = new ProgressBar(0);
            bar.setMaxWidth(Double.MAX_VALUE);
            bar.setAccessibleText(a.title() + " difference");
            values.put(a, v);
            bars.put(a, bar);
            HBox top = new HBox(2, name, Parts.gap(), v);
            top.setAlignment(Pos.BASELINE_LEFT);
            VBox cell = new VBox(3, top, bar);
            HBox.setHgrow(cell, Priority.ALWAYS);
            cell.setPrefWidth(110);
            row.getChildren().add(cell);
        }
        return new VBox(6, Parts.heading("What a listener would notice, in just-noticeable differences"), row);
    }

    private HBox verdictLine() {
        verdict.setWrapText(false);
        HBox row = new HBox(16, verdict, Parts.gap(), history);
        row.setAlignment(Pos.CENTER_LEFT);
        return row;
    }

    @Override
    public Node centre() {
        return centre;
    }

    @Override
    public Notes margin() {
        return margin;
    }

    @Override
    public void fill(BenchState s) {
        if (s.comparison() == null) {
            shown = null;
            bed.setModel(
                    s.recording() == null
                            ? BedModel.EMPTY
                            : BedModel.of(s.recording().measurement(), null, kind));
            strip.setComparison(null);
            verdict.setText("");
            values.values().forEach(v -> v.setText(""));
            bars.values().forEach(b -> b.setProgress(0));
            margin.add(Notes.heading("Next moves"));
            margin.add(Notes.body(
                    s.recipe() != null
                            ? "Listening …"
                            : s.recording() == null
                                    ? "Bring in a recording on the Brief stage first."
                                    : "Fit an imitation on the Build stage first."));
            return;
        }
        Comparison c = s.comparison();
        if (c != shown) {
            shown = c;
            bed.setModel(BedModel.of(s.recording().measurement(), c, kind));
            strip.setComparison(c);
            for (Aspect a : Aspect.values()) {
                double jnd = c.jnd(a);
                values.get(a).setText(String.format(Locale.ROOT, "%.1f", jnd));
                bars.get(a).setProgress(Math.min(1, jnd / 4));
                values.get(a).getStyleClass().removeAll("audible", "within");
                values.get(a).getStyleClass().add(jnd > 1 ? "audible" : "within");
                bars.get(a).getStyleClass().removeAll("audible", "within");
                bars.get(a).getStyleClass().add(jnd > 1 ? "audible" : "within");
            }
        }
        verdict.setText(verdict(c, s.takes()));
        history.show(s.takes(), c.totalJnd());
        moves(s);
    }

    private static String verdict(Comparison c, List<Take> takes) {
        String all = String.format(Locale.ROOT, "All together %.2f JND", c.totalJnd());
        String first = c.withinHearing()
                ? ": within hearing, no aspect would be noticed."
                : ": heard first in the " + c.worst().title() + ".";
        String before = takes.isEmpty()
                ? ""
                : String.format(
                        Locale.ROOT,
                        "  The take before: %.2f (%s).",
                        takes.get(takes.size() - 1).totalJnd(),
                        takes.get(takes.size() - 1).name());
        return all + first + before;
    }

    private void moves(BenchState s) {
        margin.add(Notes.heading("Next moves"));
        if (s.moves() == null) {
            margin.add(Notes.quiet("Trying what would help most …"));
            return;
        }
        if (!Matcher.isPlain(s.recipe())) {
            margin.add(Notes.body(
                    "Next moves are known for plain resonators so far. Shape this recipe by hand on the Build"
                            + " stage: the worst aspect below says where to begin."));
        } else if (s.moves().isEmpty()) {
            margin.add(Notes.body("No single value brings it closer: what is left is within what these modes and this"
                    + " noise can do."));
        }
        if (s.moves() != shownMoves) {
            shownMoves = s.moves();
            cards.clear();
            for (int i = 0; i < shownMoves.size(); i++) {
                cards.add(card(shownMoves.get(i), i));
            }
        }
        for (int i = 0; i < s.moves().size(); i++) {
            margin.add(Notes.of(cards.get(i)));
        }
        margin.add(Notes.space(4), Notes.heading("What is left"), Notes.body(left(s)));
    }

    private static String left(BenchState s) {
        Comparison c = s.comparison();
        long missing = c.partials().stream()
                .filter(d -> d.imitation() == null && d.weight() > 0.1)
                .count();
        if (!Matcher.isPlain(s.recipe())) {
            return missing == 0
                    ? "Every partial of the recording that would be missed has one beside it."
                    : missing + " partials of the recording that would be missed have none beside them.";
        }
        if (s.moves().isEmpty() && c.jnd(Aspect.NOISE) > 1 && c.worst() == Aspect.NOISE) {
            return "One burst of noise with one decay stands for the whole strike; the recording's is more uneven.";
        }
        if (missing > 0) {
            return String.format(
                    Locale.ROOT,
                    "%d weak partials of the recording have no mode; the ear would hardly miss them.",
                    missing);
        }
        return c.withinHearing()
                ? "Nothing that a listener would notice."
                : "The difference lies in values that can be moved: see above, or go to Build.";
    }

    private Node card(Move m, int index) {
        Label title = Parts.heading(m.parameter().name());
        Label values = Parts.figures(
                m.parameter().format(m.from()) + " → " + m.parameter().formatWithUnit(m.to()));
        Label gain = Parts.figures(String.format(Locale.ROOT, "-%.2f JND", m.gainJnd()));
        gain.getStyleClass().add("within");
        values.setMinWidth(Region.USE_PREF_SIZE);
        gain.setMinWidth(Region.USE_PREF_SIZE);
        FlowPane line = new FlowPane(12, 2, values, gain); // in a narrow margin the gain goes below
        Button apply = new Button(index == 0 ? "Apply (Ctrl+Enter)" : "Apply");
        apply.setId("apply-move-" + index);
        apply.getStyleClass().add("link");
        apply.setOnAction(e -> bench.apply(m));
        VBox card = new VBox(3, title, line, Parts.quiet(m.why()), apply);
        card.getStyleClass().addAll("card", index == 0 ? "card-first" : "card-other");
        return card;
    }
}
