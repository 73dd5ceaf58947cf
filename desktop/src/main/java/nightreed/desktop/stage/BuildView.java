package nightreed.desktop.stage;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.ColumnConstraints;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import nightreed.desktop.bench.Bench;
import nightreed.desktop.bench.BenchState;
import nightreed.desktop.reedbed.Axis;
import nightreed.desktop.reedbed.BedModel;
import nightreed.desktop.reedbed.Reedbed;
import nightreed.desktop.ruler.Ruler;
import nightreed.match.Comparison;
import nightreed.match.Side;
import nightreed.match.Tolerances;
import nightreed.measure.Partial;
import nightreed.project.Take;
import nightreed.recipe.Parameter;
import nightreed.recipe.Parameter.Group;
import nightreed.recipe.Recipe;
import nightreed.recipe.ResonatorRecipe;

/** Build: the recipe on rulers, under the picture of what it makes. */
public final class BuildView implements StageView {
    /** Values of modes that are shown at once, those that move the match most; the rest are a page away. */
    private static final int ROWS = 4;

    private static final int MODE_COLUMNS = 2;

    private final Bench bench;
    private Side shownRecording;
    private Comparison shownComparison;
    private final VBox centre = new VBox(8);
    private final Notes margin = new Notes(6);
    private final Reedbed bed;
    private final GridPane rulers = new GridPane();
    private final Label total = Parts.figures("");
    private final Label source = Parts.heading("Body");
    private final Button fit = new Button("Fit");
    private final ToggleButton selectedOnly = new ToggleButton("selected partial");
    private final ToggleButton strongest = new ToggleButton("what moves the match");
    private final Button next = new Button("more ›");
    private final Map<String, Ruler> shownRulers = new LinkedHashMap<>();
    private List<String> shownIds = List.of();
    private int page;

    public BuildView(Bench bench) {
        this.bench = bench;
        this.bed = new Reedbed(bench.selectedProperty());
        bed.setEmptyText("No recording yet: bring one in on the Brief stage.");
        bed.setId("build-bed");
        bed.setMinHeight(170);
        bed.setPrefHeight(250);
        VBox.setVgrow(bed, Priority.ALWAYS);
        rulers.setHgap(22);
        rulers.setVgap(4);
        for (int c = 0; c < MODE_COLUMNS + 1; c++) {
            ColumnConstraints third = new ColumnConstraints();
            third.setPercentWidth(100.0 / (MODE_COLUMNS + 1));
            rulers.getColumnConstraints().add(third);
        }
        fit.setId("fit");
        fit.getStyleClass().add("accent-button");
        fit.setOnAction(e -> bench.fit());
        fit.setMinWidth(javafx.scene.layout.Region.USE_PREF_SIZE);
        strongest.getStyleClass().add("plain-toggle");
        selectedOnly.getStyleClass().add("plain-toggle");
        javafx.scene.control.ToggleGroup which = new javafx.scene.control.ToggleGroup();
        strongest.setToggleGroup(which);
        selectedOnly.setToggleGroup(which);
        strongest.setSelected(true);
        which.selectedToggleProperty().addListener((o, was, is) -> {
            if (is == null) {
                was.setSelected(true);
            } else {
                page = 0;
                show(bench.state());
            }
        });
        next.getStyleClass().add("link");
        next.setId("more-values");
        next.setOnAction(e -> {
            page++;
            show(bench.state());
        });
        HBox method = new HBox(10, Parts.styled("Resonators", "method-chosen"), total, Parts.gap(), fit);
        method.setAlignment(Pos.CENTER_LEFT);
        HBox choice = new HBox(6, source, strongest, selectedOnly, next);
        choice.setAlignment(Pos.CENTER_LEFT);
        GridPane heads = new GridPane();
        heads.setHgap(22);
        heads.getColumnConstraints().addAll(rulers.getColumnConstraints());
        heads.add(Parts.heading("Strike"), 0, 0);
        heads.add(choice, 1, 0, MODE_COLUMNS, 1);
        centre.getChildren().addAll(method, bed, heads, rulers);
        bench.selectedProperty().addListener((o, a, p) -> {
            if (selectedOnly.isSelected()) {
                page = 0;
                show(bench.state());
            }
        });
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
        fit.setDisable(s.recording() == null);
        fit.setText(s.recipe() == null ? "Fit an imitation" : "Fit anew");
        total.setText(
                s.comparison() == null
                        ? ""
                        : String.format(Locale.ROOT, "%.2f JND", s.comparison().totalJnd()));
        if (s.recording() != shownRecording || s.comparison() != shownComparison) {
            shownRecording = s.recording();
            shownComparison = s.comparison();
            bed.setModel(
                    s.recording() == null
                            ? BedModel.EMPTY
                            : BedModel.of(s.recording().measurement(), s.comparison(), Axis.Kind.RATIO));
        }
        if (s.recipe() == null) {
            rulers.getChildren().clear();
            shownIds = List.of();
            margin.add(Notes.heading("Nothing built yet"));
            margin.add(Notes.body(
                    s.recording() == null
                            ? "Bring in a recording on the Brief stage first."
                            : "Fit an imitation: every partial becomes a mode with its own level and decay, and"
                                    + " the strike is polished until it sounds right."));
            return;
        }
        rulers(s);
        notes(s);
    }

    /** Which mode values stand on rulers now. */
    private List<Recipe.Setting> bodyChoice(BenchState s) {
        List<Recipe.Setting> body = s.recipe().settings().stream()
                .filter(v -> v.parameter().group() == Group.SOURCE)
                .toList();
        if (selectedOnly.isSelected() && bench.selectedProperty().get() != null) {
            int mode = nearestMode(s.recipe(), bench.selectedProperty().get()) + 1;
            return body.stream()
                    .filter(v -> v.parameter().id().startsWith("mode." + mode + "."))
                    .toList();
        }
        if (s.tolerances().isEmpty()) {
            return body;
        }
        return body.stream()
                .sorted(Comparator.comparingDouble((Recipe.Setting v) -> -effect(s, v)))
                .toList();
    }

    private static double effect(BenchState s, Recipe.Setting v) {
        Tolerances.Span span = s.tolerances().get(v.parameter().id());
        return span == null ? 0 : span.effect();
    }

    private static int nearestMode(ResonatorRecipe recipe, Partial p) {
        int best = 0;
        for (int i = 1; i < recipe.modes().size(); i++) {
            double now = Math.abs(recipe.modes().get(i).ratio() * recipe.f0Hz() - p.frequencyHz());
            double then = Math.abs(recipe.modes().get(best).ratio() * recipe.f0Hz() - p.frequencyHz());
            best = now < then ? i : best;
        }
        return best;
    }

    private void rulers(BenchState s) {
        List<Recipe.Setting> strike = s.recipe().settings().stream()
                .filter(v -> v.parameter().group() == Group.EXCITER)
                .toList();
        List<Recipe.Setting> body = bodyChoice(s);
        int rows = Math.max(ROWS, strike.size());
        int slots = rows * MODE_COLUMNS;
        int pages = Math.max(1, (body.size() + slots - 1) / slots);
        page %= pages;
        next.setVisible(pages > 1);
        next.setText(String.format(Locale.ROOT, "more (%d of %d) ›", page + 1, pages));
        List<Recipe.Setting> visible = new ArrayList<>(strike);
        boolean dragged = rulers.getChildren().stream().anyMatch(n -> n.isPressed() || n.isHover() && n.isFocused());
        List<Recipe.Setting> bodyPage = body.subList(page * slots, Math.min(body.size(), (page + 1) * slots));
        visible.addAll(bodyPage);
        List<String> ids = visible.stream().map(v -> v.parameter().id()).toList();
        // the order follows what matters, but never moves under the hand that is shaping
        boolean sameSet = !shownIds.isEmpty() && dragged
                || ids.size() == shownIds.size() && ids.containsAll(shownIds) && shownIds.containsAll(ids);
        if (!sameSet) {
            place(strike, bodyPage, rows);
            shownIds = ids;
        }
        for (Recipe.Setting v : s.recipe().settings()) {
            Ruler r = shownRulers.get(v.parameter().id());
            if (r != null) {
                r.show(
                        v.value(),
                        fitted(s, v.parameter()),
                        s.tolerances().get(v.parameter().id()));
            }
        }
    }

    private void place(List<Recipe.Setting> strike, List<Recipe.Setting> body, int rows) {
        rulers.getChildren().clear();
        shownRulers.clear();
        for (int i = 0; i < strike.size(); i++) {
            rulers.add(ruler(strike.get(i)), 0, i);
        }
        for (int i = 0; i < body.size(); i++) {
            rulers.add(ruler(body.get(i)), 1 + i / rows, i % rows);
        }
    }

    private Ruler ruler(Recipe.Setting v) {
        Ruler r = new Ruler(v.parameter(), bench::set);
        shownRulers.put(v.parameter().id(), r);
        return r;
    }

    static Double fitted(BenchState s, Parameter p) {
        ResonatorRecipe f = s.snapshot().fitted();
        if (f == null
                || p.id().startsWith("mode.")
                        && f.modes().size() != s.recipe().modes().size()) {
            return null;
        }
        return f.value(p.id());
    }

    private void notes(BenchState s) {
        ResonatorRecipe r = s.recipe();
        margin.add(Notes.heading("Why resonators"));
        margin.add(Notes.body(String.format(
                Locale.ROOT,
                "%d partials each die at their own pace. %d modes, struck together, do the same; no envelope is"
                        + " shared.",
                s.recording().measurement().reliablePartials().size(),
                r.modes().size())));
        Partial p = bench.selectedProperty().get();
        if (p != null) {
            int i = nearestMode(r, p);
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
        List<Take> takes = s.takes();
        if (!takes.isEmpty()) {
            margin.add(Notes.space(6), Notes.heading("Takes"));
            for (int i = takes.size() - 1; i >= Math.max(0, takes.size() - 5); i--) {
                Take t = takes.get(i);
                margin.add(Notes.pair(t.name(), String.format(Locale.ROOT, "%.2f", t.totalJnd())));
            }
        }
        margin.add(
                Notes.space(6),
                Notes.quiet("Green: how far a value may move before anyone hears it. Amber tick: the fitted"
                        + " value, a double click goes back to it. The bar at the end: how strongly the value"
                        + " moves the match."));
    }
}
