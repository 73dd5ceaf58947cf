package nightreed.desktop.stage.build;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.ColumnConstraints;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import nightreed.desktop.ruler.Ruler;
import nightreed.desktop.stage.NodeFactory;
import nightreed.desktop.workspace.Workspace;
import nightreed.desktop.workspace.WorkspaceState;
import nightreed.match.advice.Tolerances;
import nightreed.measure.partial.Partial;
import nightreed.recipe.Recipe;
import nightreed.recipe.ResonatorRecipe;
import nightreed.recipe.part.Parameter.Group;

/** The strike of a bank of modes, and those values of its modes that move the match most, or belong to the selected partial. */
final class ModeRulers extends VBox {
    /** Values of modes that are shown at once, in each column; the rest are a page away. */
    private static final int ROWS = 4;

    /** Values of the strike that have room; those beyond stand with the body's. */
    private static final int STRIKE_ROWS = 5;

    private static final int MODE_COLUMNS = 2;

    private final Workspace bench;
    private final Runnable changed;
    private final GridPane rulers = new GridPane();
    private final ToggleButton selectedOnly = new ToggleButton("selected partial");
    private final ToggleButton strongest = new ToggleButton("what moves the match");
    private final Button next = new Button("more ›");
    private final Map<String, Ruler> shownRulers = new LinkedHashMap<>();
    private List<String> shownIds = List.of();
    private int page;

    /** @param changed called when others are to be shown */
    ModeRulers(Workspace bench, Runnable changed) {
        super(8);
        this.bench = bench;
        this.changed = changed;
        rulers.setHgap(22);
        rulers.setVgap(4);
        for (int c = 0; c < MODE_COLUMNS + 1; c++) {
            ColumnConstraints third = new ColumnConstraints();
            third.setPercentWidth(100.0 / (MODE_COLUMNS + 1));
            rulers.getColumnConstraints().add(third);
        }
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
                turnTo(0);
            }
        });
        next.getStyleClass().add("link");
        next.setId("more-values");
        next.setOnAction(e -> turnTo(page + 1));
        HBox choice = new HBox(6, NodeFactory.heading("Body"), strongest, selectedOnly, next);
        choice.setAlignment(Pos.CENTER_LEFT);
        GridPane heads = new GridPane();
        heads.setHgap(22);
        heads.getColumnConstraints().addAll(rulers.getColumnConstraints());
        heads.add(NodeFactory.heading("Strike"), 0, 0);
        heads.add(choice, 1, 0, MODE_COLUMNS, 1);
        getChildren().addAll(heads, rulers);
        bench.selectedProperty().addListener((o, a, p) -> {
            if (selectedOnly.isSelected()) {
                turnTo(0);
            }
        });
    }

    private void turnTo(int other) {
        page = other;
        changed.run();
    }

    void clear() {
        rulers.getChildren().clear();
        shownIds = List.of();
    }

    void fill(WorkspaceState s, ResonatorRecipe recipe) {
        List<Recipe.Setting> exciter = s.recipe().settings().stream()
                .filter(v -> v.parameter().group() == Group.EXCITER)
                .toList();
        List<Recipe.Setting> strike = exciter.subList(0, Math.min(STRIKE_ROWS, exciter.size()));
        List<Recipe.Setting> body = new ArrayList<>(bodyChoice(s, recipe));
        body.addAll(0, exciter.subList(strike.size(), exciter.size()));
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
                        WorkspaceRulers.fitted(s, v.parameter()),
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

    /** Which mode values stand on rulers now. */
    private List<Recipe.Setting> bodyChoice(WorkspaceState s, ResonatorRecipe recipe) {
        List<Recipe.Setting> body = s.recipe().settings().stream()
                .filter(v -> v.parameter().group() == Group.BODY)
                .toList();
        if (selectedOnly.isSelected() && bench.selectedProperty().get() != null) {
            int mode = nearest(recipe, bench.selectedProperty().get()) + 1;
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

    /** Index of the mode that is nearest to a partial. */
    static int nearest(ResonatorRecipe recipe, Partial p) {
        int best = 0;
        for (int i = 1; i < recipe.modes().size(); i++) {
            double now = Math.abs(recipe.modes().get(i).ratio() * recipe.f0Hz() - p.frequencyHz());
            double then = Math.abs(recipe.modes().get(best).ratio() * recipe.f0Hz() - p.frequencyHz());
            best = now < then ? i : best;
        }
        return best;
    }
}
