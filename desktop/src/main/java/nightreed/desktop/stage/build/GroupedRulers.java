package nightreed.desktop.stage.build;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Supplier;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.MenuItem;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.ColumnConstraints;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import nightreed.desktop.ruler.Ruler;
import nightreed.desktop.stage.LateMenu;
import nightreed.desktop.stage.NodeFactory;
import nightreed.desktop.workspace.Workspace;
import nightreed.desktop.workspace.WorkspaceState;
import nightreed.recipe.FmRecipe;
import nightreed.recipe.ListChange;
import nightreed.recipe.MacroValues;
import nightreed.recipe.Recipe;
import nightreed.recipe.RingRecipe;
import nightreed.recipe.StringRecipe;
import nightreed.recipe.part.Common;
import nightreed.recipe.part.Filter;
import nightreed.recipe.part.Macro;
import nightreed.recipe.part.Parameter;
import nightreed.recipe.part.Parameter.Group;
import nightreed.recipe.part.ParameterAccess;
import nightreed.recipe.size.FreeValue;
import nightreed.recipe.size.FreeValues;
import nightreed.recipe.size.ListLaws;
import nightreed.voice.EvenMacro;
import nightreed.voice.explain.Arithmetic;
import nightreed.voice.explain.Table;

/** Every value of a recipe, a group at a time in the order the sound travels; or the arithmetic behind it. */
final class GroupedRulers extends VBox {
    private static final int COLUMNS = 3;
    private static final int ROWS = 5;
    private static final int DRAWN_ROWS = 3;
    private static final int TABLE_ROWS = 9;

    /** More pages than any group has: 64 modes of three values. */
    private static final int MOST_PAGES = 30;

    private final Workspace bench;
    private final ToggleGroup choice = new ToggleGroup();
    private final Map<Group, ToggleButton> groups = new EnumMap<>(Group.class);
    private final ToggleButton arithmetic = new ToggleButton("arithmetic");
    private final Button next = new Button("more ›");
    private final LateMenu add = new LateMenu("add", "add-part", this::addable);
    private final LateMenu takeOut = new LateMenu("take out", "take-out-part", this::removable);
    private final GridPane rulers = new GridPane();
    private final VBox numbers = new VBox(4);
    private final DrawnParts drawn;
    private final ElementStrip elements;
    private final RatioMap ratios;
    private final ToggleButton ofRatios = new ToggleButton("ratio × index");
    private final ToggleButton ofLayer = new ToggleButton("Layer");
    private final ToggleButton ofFree = new ToggleButton("what sets it");
    private final Map<String, Ruler> shown = new LinkedHashMap<>();
    private List<String> shownIds = List.of();
    private int page;

    GroupedRulers(Workspace bench) {
        super(8);
        this.bench = bench;
        this.drawn = new DrawnParts(bench, () -> fill(bench.state()));
        HBox row = new HBox(4);
        row.setAlignment(Pos.CENTER_LEFT);
        for (Group g : Group.values()) {
            if (g != Group.INHERITED) {
                ToggleButton b = toggle(new ToggleButton(g.title()));
                b.setId("group-" + g.name().toLowerCase(Locale.ROOT));
                groups.put(g, b);
                row.getChildren().add(b);
            }
        }
        elements = new ElementStrip(bench, () -> {
            page = 0;
            fill(bench.state());
        });
        ratios = new RatioMap(bench);
        VBox.setVgrow(ratios, Priority.ALWAYS);
        ofRatios.setId("group-ratios");
        ofLayer.setId("group-layer");
        ofFree.setId("group-free");
        ofFree.setTooltip(
                new Tooltip("The fewest values that give this patch: laws, values that stay alike, single ones."));
        arithmetic.setId("arithmetic");
        next.setId("more-of-group");
        next.getStyleClass().add("link");
        next.setOnAction(e -> {
            page++;
            fill(bench.state());
        });
        row.getChildren()
                .addAll(
                        toggle(ofRatios),
                        toggle(ofLayer),
                        toggle(ofFree),
                        toggle(arithmetic),
                        next,
                        NodeFactory.gap(),
                        add,
                        takeOut);
        rulers.setHgap(22);
        rulers.setVgap(4);
        for (int c = 0; c < COLUMNS; c++) {
            ColumnConstraints third = new ColumnConstraints();
            third.setPercentWidth(100.0 / COLUMNS);
            rulers.getColumnConstraints().add(third);
        }
        getChildren().addAll(row, elements, drawn, ratios, rulers, numbers);
        choice.selectedToggleProperty().addListener((o, was, is) -> {
            if (is == null) {
                was.setSelected(true);
            } else {
                page = 0;
                fill(bench.state());
            }
        });
    }

    private ToggleButton toggle(ToggleButton b) {
        b.getStyleClass().add("plain-toggle");
        b.setToggleGroup(choice);
        b.setMinWidth(Region.USE_PREF_SIZE);
        return b;
    }

    void fill(WorkspaceState s) {
        Recipe r = s.recipe();
        if (r == null) {
            return;
        }
        List<Recipe.Setting> all = r.settings();
        for (Map.Entry<Group, ToggleButton> e : groups.entrySet()) {
            boolean there = all.stream().anyMatch(v -> v.parameter().group() == e.getKey());
            e.getValue().setVisible(there);
            e.getValue().setManaged(there);
        }
        ofRatios.setVisible(r instanceof FmRecipe);
        ofRatios.setManaged(ofRatios.isVisible());
        if (choice.getSelectedToggle() == null
                || choice.getSelectedToggle() instanceof ToggleButton b && !b.isManaged()) {
            groups.values().stream().filter(Region::isManaged).findFirst().ifPresent(b -> b.setSelected(true));
        }
        boolean table = arithmetic.isSelected();
        boolean layer = ofLayer.isSelected();
        boolean free = ofFree.isSelected();
        boolean map = ofRatios.isSelected() && r instanceof FmRecipe;
        ratios.setVisible(map);
        ratios.setManaged(map);
        elements.fill(r, table || layer || free ? null : map ? Group.SOURCE : selected());
        rulers.setVisible(!table && !map);
        rulers.setManaged(!table && !map);
        numbers.setVisible(table);
        numbers.setManaged(table);
        if (table) {
            drawn.setVisible(false);
            drawn.setManaged(false);
            tables(r);
        } else if (map) {
            drawn.setVisible(false);
            drawn.setManaged(false);
            pages(1, 1);
            ratios.show((FmRecipe) r, elements.element());
        } else if (layer || free) {
            drawn.setVisible(false);
            drawn.setManaged(false);
            if (layer) {
                layer(s);
            } else {
                free(r);
            }
        } else {
            drawn.fill(s, selected(), elements::shows);
            rulers(s, all);
        }
    }

    /** Turns to the group and the page of a value, and puts the keyboard on its ruler. */
    void reveal(String parameterId) {
        Recipe r = bench.state().recipe();
        if (r == null) {
            return;
        }
        for (Recipe.Setting v : r.settings()) {
            if (v.parameter().id().equals(parameterId)) {
                elements.choose(parameterId);
                page = 0;
                groups.get(v.parameter().group()).setSelected(true);
                fill(bench.state());
                for (int i = 0; i < MOST_PAGES && !shown.containsKey(parameterId); i++) {
                    page++;
                    fill(bench.state());
                }
                if (shown.containsKey(parameterId)) {
                    shown.get(parameterId).requestFocus();
                }
            }
        }
    }

    /** The group that is shown; null if something else is. */
    private Group selected() {
        return groups.entrySet().stream()
                .filter(e -> e.getValue().isSelected())
                .map(Map.Entry::getKey)
                .findFirst()
                .orElse(null);
    }

    /** Where the layer that is shaped stands among the others. */
    private void layer(WorkspaceState s) {
        List<ParameterAccess.Reading> values = LayerRulers.of(s);
        List<String> ids = values.stream().map(v -> v.parameter().id()).toList();
        if (!ids.equals(shownIds)) {
            rulers.getChildren().clear();
            shown.clear();
            for (int i = 0; i < values.size(); i++) {
                Ruler ruler = LayerRulers.ruler(values.get(i).parameter(), bench);
                shown.put(ids.get(i), ruler);
                rulers.add(ruler, i / ROWS, i % ROWS);
            }
            shownIds = ids;
        }
        pages(values.size(), COLUMNS * ROWS);
        values.forEach(v -> shown.get(v.parameter().id()).show(v.value(), null, null));
    }

    /** The fewest values that give the recipe. */
    private void free(Recipe r) {
        List<FreeValue> values =
                FreeValues.of(r).stream().filter(FreeValue::isNumber).toList();
        int slots = COLUMNS * ROWS;
        pages(values.size(), slots);
        List<FreeValue> visible =
                values.subList(Math.min(values.size(), page * slots), Math.min(values.size(), (page + 1) * slots));
        List<String> ids = visible.stream().map(v -> v.id() + " " + v.ids()).toList();
        if (!ids.equals(shownIds)) {
            rulers.getChildren().clear();
            shown.clear();
            for (int i = 0; i < visible.size(); i++) {
                Ruler ruler = FreeRuler.of(visible.get(i), bench);
                shown.put(ids.get(i), ruler);
                rulers.add(ruler, i / ROWS, i % ROWS);
            }
            shownIds = ids;
        }
        for (int i = 0; i < visible.size(); i++) {
            shown.get(ids.get(i)).show(visible.get(i).value(r), null, null);
        }
    }

    /** Parts that the recipe may have, and has not. */
    private void addable() {
        Recipe r = bench.state().recipe();
        for (ParameterAccess.Absent a : r.absent()) {
            if (ofAnother(a.id())) {
                continue;
            }
            MenuItem item = new MenuItem(a.name());
            item.setOnAction(e -> bench.shaping().addPart(a.id(), a.name()));
            add.getItems().add(item);
        }
        ListLaws.puts(r).stream()
                .filter(ListLaws.Put::whole)
                .forEach(p -> add.getItems()
                        .add(item(
                                "law: " + p.title(),
                                "law-" + p.title().replace(' ', '-'),
                                !p.on().apply(r).equals(r),
                                () -> bench.shaping()
                                        .use(p.on().apply(bench.state().recipe()), p.title()))));
        Common c = r.common();
        add.getItems()
                .add(item(
                        "route: something moves something",
                        "add-route",
                        c.routes().size() < Common.MOST_ROUTES,
                        () -> bench.shaping().change(ListChange.add(r, "route"))));
        Recipe fitted = bench.state().snapshot().fitted();
        Macro macro = fitted == null || !fitted.method().equals(r.method())
                ? null
                : Macro.between("macro " + (c.macros().size() + 1), (Record) fitted, (Record) r);
        add.getItems()
                .add(item(
                        "macro: from the values at first to those now",
                        "add-macro",
                        macro != null && c.macros().size() < Common.MOST_MACROS,
                        () -> bench.shaping().use(r.withCommon(c.withMacros(plus(c.macros(), macro))), "add macro")));
        if (r instanceof RingRecipe ring) {
            boolean filters = !ParameterAccess.parts(ring, Filter.class).isEmpty();
            add.getItems()
                    .add(item(
                            "low Q of all filters: an even sound",
                            "low-q",
                            filters,
                            () -> bench.shaping().use(ring.withQ(RingRecipe.EVEN_Q), "low Q")));
            add.getItems()
                    .add(item(
                            "high Q of all filters: partials stand out",
                            "high-q",
                            filters,
                            () -> bench.shaping().use(ring.withQ(RingRecipe.STANDING_OUT_Q), "high Q")));
        }
        if (r instanceof StringRecipe string) {
            add.getItems().add(way(c, "pluck to bow", string::pluckToBow));
            add.getItems().add(way(c, "soft to hard", string::softToHard));
        }
    }

    /** Parts that it has, and could do without. */
    private void removable() {
        Recipe r = bench.state().recipe();
        for (ParameterAccess.Absent a : ParameterAccess.optional((Record) r)) {
            if (ofAnother(a.id())) {
                continue;
            }
            MenuItem item = new MenuItem(a.name());
            item.setOnAction(e -> bench.shaping().removePart(a.id(), a.name()));
            takeOut.getItems().add(item);
        }
    }

    /** A macro that ships, equally loud along its way. */
    private MenuItem way(Common c, String name, Supplier<Recipe> with) {
        boolean possible = c.macros().size() < Common.MOST_MACROS
                && c.macros().stream().noneMatch(m -> m.name().equals(name));
        return item(
                "macro: from " + name,
                "add-" + name.replace(' ', '-'),
                possible,
                () -> bench.shaping()
                        .make(
                                "add macro " + name,
                                r -> EvenMacro.of(
                                        with.get(), r.common().macros().size() + 1)));
    }

    /** Whether a part lies in an element of a list that is not the one chosen. */
    private boolean ofAnother(String id) {
        return id.matches("(mode|pair|band|osc)\\.\\d+\\..*") && (elements.isAll() || !elements.shows(id + "."));
    }

    private static <T> List<T> plus(List<T> list, T more) {
        List<T> out = new ArrayList<>(list);
        out.add(more);
        return out;
    }

    private static MenuItem item(String title, String id, boolean possible, Runnable action) {
        MenuItem item = NodeFactory.item(id, title, action);
        item.setDisable(!possible);
        return item;
    }

    private void rulers(WorkspaceState s, List<Recipe.Setting> values) {
        List<Recipe.Setting> all = new ArrayList<>(values);
        if (elements.macro() > 0) {
            all.addAll(MacroValues.of(s.recipe(), elements.macro()));
        }
        List<Recipe.Setting> chosen = all.stream()
                .filter(v -> groups.get(v.parameter().group()).isSelected())
                .filter(v -> elements.shows(v.parameter().id()))
                .sorted(Comparator.comparing(
                        v -> !v.parameter().id().startsWith(drawn.drawn()))) // what is drawn comes first
                .toList();
        int lineRow = bench.simpler().line() == null ? 0 : 1; // the line from simpler to nearer takes the room of one
        int rows = (drawn.isManaged() ? DRAWN_ROWS : ROWS) - lineRow; // a drawing takes the room of the others
        int slots = COLUMNS * rows;
        int pages = pages(chosen.size(), slots);
        List<Recipe.Setting> visible = chosen.subList(page * slots, Math.min(chosen.size(), (page + 1) * slots));
        int deep = Math.min(rows, (visible.size() + COLUMNS - 1) / COLUMNS); // few stand side by side
        List<String> ids = visible.stream()
                .map(v -> v.parameter().id() + v.parameter().most() + deep)
                .toList();
        if (!ids.equals(shownIds)) {
            rulers.getChildren().clear();
            shown.clear();
            for (int i = 0; i < visible.size(); i++) {
                Parameter p = visible.get(i).parameter();
                Ruler ruler =
                        p.id().contains(".aim.") ? BoundRuler.ofMacro(p, bench) : WorkspaceRulers.ruler(p, bench, true);
                shown.put(visible.get(i).parameter().id(), ruler);
                rulers.add(ruler, i / deep, i % deep);
            }
            shownIds = ids;
        }
        next.setVisible(pages > 1);
        for (Recipe.Setting v : visible) {
            shown.get(v.parameter().id())
                    .show(
                            v.value(),
                            WorkspaceRulers.fitted(s, v.parameter()),
                            s.tolerances().get(v.parameter().id()));
        }
    }

    private int pages(int count, int slots) {
        int pages = Math.max(1, (count + slots - 1) / slots);
        page %= pages;
        next.setVisible(pages > 1);
        next.setText(String.format(Locale.ROOT, "more (%d of %d) ›", page + 1, pages));
        return pages;
    }

    private void tables(Recipe r) {
        List<Table> parts = new ArrayList<>();
        for (Table t : Arithmetic.of(r, r.key())) { // long tables take several pages
            for (int from = 0; from == 0 || from < t.rows().size(); from += TABLE_ROWS) {
                parts.add(new Table(
                        t.title(),
                        t.columns(),
                        t.rows().subList(from, Math.min(t.rows().size(), from + TABLE_ROWS)),
                        t.remarks()));
            }
        }
        pages(parts.size(), 1);
        Table t = parts.get(page);
        GridPane grid = new GridPane();
        grid.setHgap(18);
        grid.setVgap(1);
        for (int c = 0; c < t.columns().size(); c++) {
            Table.Column column = t.columns().get(c);
            Label head = NodeFactory.quiet(
                    column.unit().isEmpty() ? column.name() : column.name() + " [" + column.unit() + "]");
            head.setWrapText(true);
            head.setMaxWidth(110);
            grid.add(head, c, 0);
            for (int i = 0; i < t.rows().size(); i++) {
                Double v = t.rows().get(i).get(c);
                Label cell = NodeFactory.figures(
                        v == null ? "–" : String.format(Locale.ROOT, "%." + column.decimals() + "f", v));
                cell.setMinWidth(Region.USE_PREF_SIZE);
                grid.add(cell, c, i + 1);
            }
        }
        numbers.getChildren().setAll(NodeFactory.heading(t.title()), grid);
        t.remarks().forEach(text -> numbers.getChildren().add(NodeFactory.quiet(text)));
    }
}
