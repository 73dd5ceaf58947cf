package nightreed.desktop.stage.compare;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.Slider;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import nightreed.desktop.reedbed.Axis;
import nightreed.desktop.reedbed.BedModel;
import nightreed.desktop.reedbed.Reedbed;
import nightreed.desktop.reedbed.Strip;
import nightreed.desktop.settings.PreferenceStore;
import nightreed.desktop.stage.NodeFactory;
import nightreed.desktop.stage.Notes;
import nightreed.desktop.stage.SimplerPanel;
import nightreed.desktop.stage.StageView;
import nightreed.desktop.workspace.Workspace;
import nightreed.desktop.workspace.WorkspaceState;
import nightreed.match.advice.Move;
import nightreed.match.advice.ResidualExplanation;
import nightreed.match.compare.Comparison;
import nightreed.match.hearing.AspectWeights;
import nightreed.project.Take;
import nightreed.recipe.Patch;
import nightreed.recipe.size.PatchSize;

/** Compare: recording against imitation, what would be heard, and what to do next. */
public final class CompareView implements StageView {
    private final Workspace bench;
    private final VBox centre = new VBox(6);
    private final Notes margin = new Notes(8);
    private final Reedbed bed;
    private final Strip strip;
    private final VBox pictures = new VBox(8);
    private final VBox heard = new VBox(6);
    private final HBox axes = new HBox(4);
    private final Label about = NodeFactory.quiet("Recording above, imitation mirrored below");
    private final ToggleButton blindTest = new ToggleButton("blind test");
    private final BlindTestPanel blindPanel;
    private final Slider time = new Slider(0, 1, 0);
    private final Label timeText = NodeFactory.figures("strike");
    private final Label verdict = NodeFactory.body("");
    private final TakeLine history = new TakeLine();
    private final AspectRow aspects;
    private final SimplerPanel simpler;
    private final VBox walk = new VBox(); // gone with the pictures, whatever the panel has to show
    private final ToggleButton effects = new ToggleButton("with effects");
    private final ToggleButton twoTakes = new ToggleButton("two takes");
    private final TwoTakes takes;
    private Axis.Kind kind;
    private Comparison shown;
    private List<Move> shownMoves;
    private final List<Node> cards = new ArrayList<>();

    public CompareView(Workspace bench, PreferenceStore preferences) {
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
        blindPanel = new BlindTestPanel(bench, System::nanoTime);
        pictures.getChildren().addAll(bed, stripHead(), strip, timeline());
        VBox.setVgrow(pictures, Priority.ALWAYS);
        aspects = new AspectRow(bench);
        takes = new TwoTakes(bench);
        simpler = new SimplerPanel(bench, "compare-simpler");
        walk.getChildren().add(simpler);
        heard.getChildren().addAll(aspectHead(), aspects);
        centre.getChildren().addAll(head(), pictures, blindPanel, takes, heard, verdictLine(), walk);
        instead(null);
    }

    /** The pictures, or what stands in their place; in a blind test nothing on the screen tells which is which. */
    private void instead(Node panel) {
        for (Node n : List.of(pictures, blindPanel, takes)) {
            boolean on = n == (panel == null ? pictures : panel);
            n.setVisible(on);
            n.setManaged(on);
        }
        axes.setVisible(panel == null);
        about.setVisible(panel == null);
        walk.setVisible(panel == null);
        walk.setManaged(panel == null);
        heard.setVisible(panel != takes);
        heard.setManaged(panel != takes);
        blindTest.setSelected(panel == blindPanel);
        twoTakes.setSelected(panel == takes);
        if (panel == blindPanel) {
            blindPanel.begin();
        }
        if (panel == takes) {
            takes.show(bench.state());
        }
    }

    private HBox head() {
        ToggleGroup group = new ToggleGroup();
        HBox row = new HBox(4, about, NodeFactory.gap());
        for (Axis.Kind k : Axis.Kind.values()) {
            axes.getChildren().add(choice(k.title(), group, k == kind, () -> {
                kind = k;
                shown = null;
                show(bench.state());
            }));
        }
        blindTest.getStyleClass().add("plain-toggle");
        blindTest.setId("blind-test");
        blindTest.setTooltip(new Tooltip("Can it be heard which is which? Twelve trials at equal loudness."));
        blindTest.setOnAction(e -> instead(blindTest.isSelected() ? blindPanel : null));
        twoTakes.getStyleClass().add("plain-toggle");
        twoTakes.setId("two-takes-toggle");
        twoTakes.setTooltip(new Tooltip("Two takes side by side: distances, values, sound."));
        twoTakes.setOnAction(e -> instead(twoTakes.isSelected() ? takes : null));
        effects.getStyleClass().add("plain-toggle");
        effects.setId("effects-judged");
        effects.setTooltip(new Tooltip("On: effects are part of what is compared and told on the sheet."));
        effects.selectedProperty().bindBidirectional(bench.effectsJudgedProperty());
        row.getChildren().addAll(effects, twoTakes, blindTest, axes);
        row.setAlignment(Pos.CENTER_LEFT);
        return row;
    }

    private HBox stripHead() {
        ToggleGroup group = new ToggleGroup();
        HBox row = new HBox(4, NodeFactory.quiet("Exactly, with the span of one JND shaded:"));
        for (Strip.Shows s : Strip.Shows.values()) {
            ToggleButton b = choice(s.title(), group, s == Strip.Shows.T60, () -> strip.show(s));
            b.setId("compare-strip-" + s.name().toLowerCase(Locale.ROOT));
            b.setTooltip(new Tooltip(s.help()));
            row.getChildren().add(b);
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
        HBox row = new HBox(10, NodeFactory.quiet("time"), time, timeText);
        row.setAlignment(Pos.CENTER_LEFT);
        return row;
    }

    /** More room for the start, where most happens. */
    private static double seconds(double position) {
        return 4 * position * position;
    }

    private static HBox aspectHead() {
        HBox row = new HBox(
                12,
                NodeFactory.heading("What a listener would notice, in just-noticeable differences"),
                NodeFactory.quiet("click one that your ear hears otherwise"));
        row.setAlignment(Pos.BASELINE_LEFT);
        return row;
    }

    private HBox verdictLine() {
        verdict.setWrapText(false);
        HBox row = new HBox(16, verdict, NodeFactory.gap(), history);
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
    public void fill(WorkspaceState s) {
        simpler.fill(s);
        blindTest.setDisable(s.comparison() == null || s.imitation() == null);
        twoTakes.setDisable(s.recording() == null);
        effects.setVisible(s.snapshot().patch() != null && s.snapshot().patch().hasEffects());
        effects.setManaged(effects.isVisible());
        if (takes.isVisible()) {
            takes.show(s);
        }
        if (s.comparison() == null) {
            if (blindPanel.isVisible()) {
                instead(null);
            }
            shown = null;
            bed.setModel(
                    s.recording() == null
                            ? BedModel.by(s.imitation(), s.snapshot().patch())
                            : BedModel.of(s.recording().measurement(), null, kind));
            strip.setSounds(null, null, null);
            verdict.setText("");
            aspects.show(null, s.snapshot().marks());
            margin.add(Notes.heading("Next moves"));
            margin.add(Notes.body(
                    s.recipe() != null && s.recording() == null
                            ? "There is no recording to compare with. Bring one in on the Brief stage, and this recipe is"
                                    + " held against it."
                            : s.recipe() != null
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
            strip.setSounds(s.recording(), s.imitation(), c);
        }
        aspects.show(c, s.snapshot().marks());
        verdict.setText(verdict(c, s));
        history.show(s.takes(), c.totalJnd());
        if (s.isTypical()) {
            margin.add(Notes.quiet(
                    "The target is typical, not recorded: only what its family has in common is asked for."));
        }
        moves(s);
    }

    private static String verdict(Comparison c, WorkspaceState s) {
        Patch patch = s.snapshot().patch();
        List<Take> takes = s.takes();
        String size = PatchSize.followsRecording(patch) ? "following the recording" : PatchSize.of(patch) + " values";
        String all = String.format(Locale.ROOT, "All together %.2f JND, %s", c.totalJnd(), size);
        String first = c.withinHearing()
                ? ": within hearing, no aspect would be noticed."
                : ": heard first in the " + c.worst().title() + ".";
        String before = takes.isEmpty() || !takes.get(takes.size() - 1).isCompared()
                ? ""
                : String.format(
                        Locale.ROOT,
                        "  The take before: %.2f (%s).",
                        takes.get(takes.size() - 1).totalJnd(),
                        takes.get(takes.size() - 1).name());
        return all + first + before;
    }

    private void moves(WorkspaceState s) {
        margin.add(Notes.heading("Next moves"));
        if (s.moves() == null) {
            margin.add(Notes.quiet("Trying what would help most …"));
            return;
        }
        if (s.moves().isEmpty()) {
            margin.add(Notes.body("No single value brings it closer."));
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
        marks(s.snapshot().marks());
        margin.add(Notes.space(4), Notes.heading(s.moves().isEmpty() ? "Why it comes no closer" : "What is left"));
        for (String reason : ResidualExplanation.of(s.recipe(), s.comparison())) {
            margin.add(Notes.body(reason));
        }
    }

    private void marks(AspectWeights marks) {
        if (marks.weights().isEmpty()) {
            return;
        }
        margin.add(Notes.space(4), Notes.heading("Overruled by ear"));
        marks.weights()
                .forEach((aspect, w) ->
                        margin.add(Notes.pair(aspect.title(), String.format(Locale.ROOT, "counts %.2f", w))));
    }

    private Node card(Move m, int index) {
        Label title = NodeFactory.heading(m.parameter().name());
        Label values = NodeFactory.figures(
                m.parameter().format(m.from()) + " → " + m.parameter().formatWithUnit(m.to()));
        Label gain = NodeFactory.figures(String.format(Locale.ROOT, "-%.2f JND", m.gainJnd()));
        gain.getStyleClass().add("within");
        values.setMinWidth(Region.USE_PREF_SIZE);
        gain.setMinWidth(Region.USE_PREF_SIZE);
        FlowPane line = new FlowPane(12, 2, values, gain); // in a narrow margin the gain goes below
        Button apply = new Button(index == 0 ? "Apply (Ctrl+Enter)" : "Apply");
        apply.setId("apply-move-" + index);
        apply.getStyleClass().add("link");
        apply.setOnAction(e -> bench.shaping().apply(m));
        VBox card = new VBox(3, title, line, NodeFactory.quiet(m.why()), apply);
        card.getStyleClass().addAll("card", index == 0 ? "card-first" : "card-other");
        return card;
    }
}
