package nightreed.desktop.stage.build;

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
import javafx.scene.control.Menu;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.SplitMenuButton;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.ColumnConstraints;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import nightreed.desktop.reedbed.Axis;
import nightreed.desktop.reedbed.BedModel;
import nightreed.desktop.reedbed.Reedbed;
import nightreed.desktop.ruler.Ruler;
import nightreed.desktop.stage.NodeFactory;
import nightreed.desktop.stage.Notes;
import nightreed.desktop.stage.StageView;
import nightreed.desktop.workspace.Fitting;
import nightreed.desktop.workspace.MethodNames;
import nightreed.desktop.workspace.Workspace;
import nightreed.desktop.workspace.WorkspaceState;
import nightreed.match.advice.Adviser;
import nightreed.match.advice.Tolerances;
import nightreed.match.compare.Comparison;
import nightreed.match.fit.JointFit;
import nightreed.match.method.MethodAdvice;
import nightreed.match.method.Starts;
import nightreed.match.sound.AnalysedSound;
import nightreed.match.start.Start;
import nightreed.measure.partial.Partial;
import nightreed.music.Pitch;
import nightreed.project.Take;
import nightreed.recipe.AuditionMode;
import nightreed.recipe.PatchCheck;
import nightreed.recipe.Recipe;
import nightreed.recipe.ResonatorRecipe;
import nightreed.recipe.part.Parameter;
import nightreed.recipe.part.Parameter.Group;

/** Build: the recipe on rulers, under the picture of what it makes. */
public final class BuildView implements StageView {
    /** Values of modes that are shown at once, those that move the match most; the rest are a page away. */
    private static final int ROWS = 4;

    private static final int MODE_COLUMNS = 2;

    private static final double QUICK_SECONDS = 15;

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

    private final Workspace bench;
    private final ToggleGroup methods = new ToggleGroup();
    private final ToggleButton allValues = new ToggleButton("all values");
    private final MenuButton listen = new MenuButton();
    private final VBox plain = new VBox(8);
    private final GroupedRulers grouped;
    private Recipe shownRecipe;
    private AnalysedSound shownRecording;
    private Comparison shownComparison;
    private final VBox centre = new VBox(8);
    private final Notes margin = new Notes(6);
    private final MachineMenu machine;
    private final LayerNotes layers;
    private final WhatItDoes does;
    private final Reedbed bed;
    private final GridPane rulers = new GridPane();
    private final Label total = NodeFactory.figures("");
    private final Label source = NodeFactory.heading("Body");
    private final SplitMenuButton fit = new SplitMenuButton();
    private final MenuItem fromHere = new MenuItem("Fit on from here");
    private final MenuItem matchAll = new MenuItem("Try all six methods");
    private final MenuItem quickly = new MenuItem("Try all six methods in 15 seconds");
    private final MenuItem together = new MenuItem("Fit all notes kept together");
    private final MenuItem under = new MenuItem("Look for a second layer under it");
    private final MenuItem asMeasured = new MenuItem("Starting values, as measured");
    private final ToggleButton selectedOnly = new ToggleButton("selected partial");
    private final ToggleButton strongest = new ToggleButton("what moves the match");
    private final Button next = new Button("more ›");
    private final Map<String, Ruler> shownRulers = new LinkedHashMap<>();
    private List<String> shownIds = List.of();
    private int page;

    /** @param editMachine shows what the machine can do, to change it */
    public BuildView(Workspace bench, Runnable editMachine) {
        this.bench = bench;
        this.bed = new Reedbed(bench.selectedProperty());
        this.grouped = new GroupedRulers(bench);
        this.machine = new MachineMenu(bench, editMachine);
        this.layers = new LayerNotes(bench);
        this.does = new WhatItDoes(bed::setModel, () -> show(bench.state()));
        bench.askedProperty().addListener((o, was, p) -> {
            if (p != null) {
                bench.askedProperty().set(null);
                does.begin(bench.state(), p);
            }
        });
        bed.setEmptyText("No recording yet: bring one in on the Brief stage.");
        bed.setId("build-bed");
        bed.setMinHeight(150);
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
        fit.setOnAction(e -> bench.fitting().fit());
        fromHere.setId("fit-from-here");
        fromHere.setOnAction(e -> bench.fitting().fitFromHere());
        matchAll.setId("match-all");
        matchAll.setOnAction(e -> bench.fitting().matchAll(Double.POSITIVE_INFINITY));
        quickly.setId("match-quickly");
        quickly.setOnAction(e -> bench.fitting().matchAll(QUICK_SECONDS));
        asMeasured.setId("as-measured");
        asMeasured.setOnAction(
                e -> bench.fitting().startMethod(bench.state().recipe().method()));
        together.setId("fit-together");
        together.setOnAction(e -> bench.fitting().fitTogether());
        under.setId("fit-under");
        under.setOnAction(e -> bench.fitting().fitUnder());
        fit.getItems().addAll(fromHere, under, matchAll, quickly, together, asMeasured, machine.menu());
        bench.fitting().togetherProperty().addListener((o, was, is) -> show(bench.state()));
        bench.fitting().pricesProperty().addListener((o, was, is) -> show(bench.state()));
        bench.fitting().machineProperty().addListener((o, was, is) -> show(bench.state()));
        bench.fitting().rankingProperty().addListener((o, was, is) -> show(bench.state()));
        fit.setMinWidth(javafx.scene.layout.Region.USE_PREF_SIZE);
        strongest.getStyleClass().add("plain-toggle");
        selectedOnly.getStyleClass().add("plain-toggle");
        ToggleGroup which = new ToggleGroup();
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
        allValues.getStyleClass().add("plain-toggle");
        allValues.setId("all-values");
        allValues.setOnAction(e -> show(bench.state()));
        HBox method = new HBox(2);
        for (String m : Starts.METHODS) {
            ToggleButton b = new ToggleButton(MethodNames.of(m));
            b.getStyleClass().add("plain-toggle");
            b.setId("method-" + m);
            b.setToggleGroup(methods);
            b.setUserData(m);
            b.setMinWidth(javafx.scene.layout.Region.USE_PREF_SIZE);
            b.setTooltip(new Tooltip("Starting values of this method, computed from the measurement."));
            b.setOnAction(e -> choose(m));
            method.getChildren().add(b);
        }
        listen.getStyleClass().add("link-menu");
        listen.setId("listen-to");
        listen.setMinWidth(javafx.scene.layout.Region.USE_PREF_SIZE);
        bench.shaping().emphasisedProperty().addListener((o, was, is) -> listenText());
        method.getChildren().addAll(NodeFactory.gap(), total, listen, allValues, fit);
        method.setAlignment(Pos.CENTER_LEFT);
        HBox choice = new HBox(6, source, strongest, selectedOnly, next);
        choice.setAlignment(Pos.CENTER_LEFT);
        GridPane heads = new GridPane();
        heads.setHgap(22);
        heads.getColumnConstraints().addAll(rulers.getColumnConstraints());
        heads.add(NodeFactory.heading("Strike"), 0, 0);
        heads.add(choice, 1, 0, MODE_COLUMNS, 1);
        plain.getChildren().addAll(heads, rulers);
        centre.getChildren().addAll(method, bed, plain, grouped);
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
    public void fill(WorkspaceState s) {
        fit.setDisable(s.recording() == null);
        boolean resonators = s.recipe() == null || s.recipe() instanceof ResonatorRecipe;
        fit.setText(s.recipe() == null ? "Fit an imitation" : "Fit anew");
        fromHere.setDisable(s.recipe() == null);
        under.setDisable(s.recipe() == null);
        asMeasured.setDisable(s.recipe() == null);
        methods.getToggles()
                .forEach(t ->
                        t.setSelected(s.recipe() != null && s.recipe().method().equals(t.getUserData())));
        if (s.recipe() != shownRecipe) {
            shownRecipe = s.recipe();
            listenMenu(s);
        }
        boolean all = !resonators || allValues.isSelected();
        allValues.setVisible(s.recipe() != null && resonators);
        allValues.setManaged(allValues.isVisible());
        plain.setVisible(!all);
        plain.setManaged(!all);
        grouped.setVisible(all && s.recipe() != null);
        grouped.setManaged(all && s.recipe() != null);
        total.setText(
                s.comparison() == null
                        ? ""
                        : String.format(Locale.ROOT, "%.2f JND", s.comparison().totalJnd()));
        boolean moved = does.moving();
        does.follow(s);
        does.notes(margin);
        if (does.moving()) {
            shownComparison = null; // the reeds are shown as they are again when it ends
        } else if (moved || s.recording() != shownRecording || s.comparison() != shownComparison) {
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
                            : "Choose a method, or let all six be tried: each is fitted until no single value helps,"
                                    + " and the nearest stays."));
            if (s.recording() != null) {
                promising(s);
            }
            return;
        }
        if (s.recipe() instanceof ResonatorRecipe r && !allValues.isSelected()) {
            rulers(s, r);
            notes(s, r);
        } else {
            grouped.fill(s);
            methodNotes(s);
        }
    }

    private void listenText() {
        AuditionMode e = bench.shaping().emphasisedProperty().get();
        listen.setText(e == null ? "all heard" : e.title());
    }

    /** Every element, without it, by itself, or more of it. */
    private void listenMenu(WorkspaceState s) {
        listen.setVisible(s.recipe() != null);
        listenText();
        listen.getItems().clear();
        if (s.recipe() == null) {
            return;
        }
        MenuItem all = new MenuItem("everything as it is");
        all.setOnAction(e -> bench.shaping().listen(null));
        listen.getItems().add(all);
        for (AuditionMode.Way way : AuditionMode.Way.values()) {
            Menu menu = new Menu(way.title() + " …");
            for (AuditionMode.Element element : AuditionMode.elements(s.recipe())) {
                MenuItem item = new MenuItem(element.name());
                item.setOnAction(e -> bench.shaping().listen(new AuditionMode(element, way)));
                menu.getItems().add(item);
            }
            listen.getItems().add(menu);
        }
    }

    private void choose(String method) {
        Recipe now = bench.state().recipe();
        if (now != null && now.method().equals(method)) {
            show(bench.state()); // the toggle must not go off
        } else {
            bench.fitting().startMethod(method);
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
                            Locale.ROOT, "%.2f JND", r.fitted().comparison().totalJnd())));
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

    /** Where the values come from, and what is forgotten. */
    private void methodNotes(WorkspaceState s) {
        Recipe r = s.recipe();
        joint(s);
        layers.notes(s, margin);
        margin.add(Notes.heading(MethodNames.of(r.method())));
        margin.add(Notes.body(ABOUT.get(r.method())));
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
        List<PatchCheck.Finding> findings = PatchCheck.of(r);
        if (!findings.isEmpty()) {
            margin.add(Notes.space(4), Notes.heading("Check"));
            for (PatchCheck.Finding f : findings.subList(0, Math.min(5, findings.size()))) {
                margin.add(Notes.body(f.text()));
            }
        }
    }

    /** Which mode values stand on rulers now. */
    private List<Recipe.Setting> bodyChoice(WorkspaceState s, ResonatorRecipe recipe) {
        List<Recipe.Setting> body = s.recipe().settings().stream()
                .filter(v -> v.parameter().group() == Group.BODY)
                .toList();
        if (selectedOnly.isSelected() && bench.selectedProperty().get() != null) {
            int mode = nearestMode(recipe, bench.selectedProperty().get()) + 1;
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

    private static double effect(WorkspaceState s, Recipe.Setting v) {
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

    /** Name of a value, or of the first of several. */
    private static String named(Recipe r, String id) {
        for (Recipe.Setting v : r.settings()) {
            if (v.parameter().id().equals(id)) {
                return v.parameter().name();
            }
        }
        return id.replace('.', ' ');
    }

    private void rulers(WorkspaceState s, ResonatorRecipe recipe) {
        List<Recipe.Setting> strike = s.recipe().settings().stream()
                .filter(v -> v.parameter().group() == Group.EXCITER)
                .toList();
        List<Recipe.Setting> body = bodyChoice(s, recipe);
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
        Ruler r = WorkspaceRulers.ruler(v.parameter(), bench, true);
        shownRulers.put(v.parameter().id(), r);
        return r;
    }

    public static Double fitted(WorkspaceState s, Parameter p) {
        Recipe f = s.snapshot().fitted();
        if (f == null || !f.method().equals(s.recipe().method())) {
            return null;
        }
        if (f instanceof ResonatorRecipe was
                && s.recipe() instanceof ResonatorRecipe is
                && p.id().startsWith("mode.")
                && was.modes().size() != is.modes().size()) {
            return null;
        }
        for (Recipe.Setting v : f.settings()) {
            if (v.parameter().id().equals(p.id())) {
                return v.value();
            }
        }
        return null;
    }

    private void notes(WorkspaceState s, ResonatorRecipe r) {
        joint(s);
        layers.notes(s, margin);
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
