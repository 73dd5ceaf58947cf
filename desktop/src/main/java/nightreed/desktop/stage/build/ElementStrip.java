package nightreed.desktop.stage.build;

import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.Consumer;
import java.util.function.Supplier;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.CustomMenuItem;
import javafx.scene.control.Label;
import javafx.scene.control.Menu;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import nightreed.desktop.stage.NodeFactory;
import nightreed.desktop.workspace.Workspace;
import nightreed.recipe.BandSpacing;
import nightreed.recipe.FormantRecipe;
import nightreed.recipe.ListChange;
import nightreed.recipe.MacroValues;
import nightreed.recipe.NamedModes;
import nightreed.recipe.Recipe;
import nightreed.recipe.ResonatorRecipe;
import nightreed.recipe.part.Macro;
import nightreed.recipe.part.Parameter;
import nightreed.recipe.part.Parameter.Group;
import nightreed.recipe.part.Structure.Listed;
import nightreed.voice.EvenMacro;

/** The elements of the lists in a group, such as its modes: one is chosen to be shaped, doubled, moved or taken out. */
final class ElementStrip extends VBox {
    /** Elements that stand side by side; of longer lists so many at a time, or they would push all else out of the window. */
    private static final int SHOWN = 20;

    private final Workspace bench;
    private final Runnable changed;
    private final Map<String, Integer> turned = new HashMap<>(); // element from which each list is shown
    private String list = "";
    private int element; // from 1; 0 for all
    private Recipe shown;
    private Group shownGroup;

    /** @param changed called when the values of another element are to be shown */
    ElementStrip(Workspace bench, Runnable changed) {
        super(2);
        this.bench = bench;
        this.changed = changed;
    }

    /** @param group whose lists are shown; null for none */
    void fill(Recipe recipe, Group group) {
        if (recipe == shown && group == shownGroup) {
            return;
        }
        shown = recipe;
        shownGroup = group;
        List<Listed> lists =
                recipe.lists().stream().filter(l -> l.group() == group).toList();
        boolean there = lists.stream().anyMatch(l -> l.id().equals(list) && element <= l.size());
        if (!there) {
            list = "";
            element = 0;
        }
        getChildren().clear();
        for (Listed l : lists) {
            getChildren().add(row(recipe, l));
        }
        setVisible(!lists.isEmpty());
        setManaged(!lists.isEmpty());
    }

    /** Whether a value is to be shown: it belongs to the element that is chosen, or none is. */
    boolean shows(String id) {
        return element == 0 || id.startsWith(list + "." + element + ".");
    }

    /** Number of the element that is chosen, from 1; 0 for none. */
    int element() {
        return element;
    }

    /** Whether no element is chosen. */
    boolean isAll() {
        return element == 0;
    }

    private HBox row(Recipe recipe, Listed l) {
        Label name = NodeFactory.quiet(l.size() == 1 ? l.name() : l.name() + "s");
        name.setMinWidth(USE_PREF_SIZE);
        ToggleGroup which = new ToggleGroup();
        FlowPane numbers = new FlowPane(0, 0);
        if (l.size() > 1) {
            numbers.getChildren().add(number(which, l, 0));
        }
        int from = first(l);
        int to = Math.min(l.size(), from + SHOWN - 1);
        if (from > 1) {
            numbers.getChildren().add(turn(l, "‹", l.id() + "-before", from - SHOWN));
        }
        for (int i = from; i <= to; i++) {
            numbers.getChildren().add(number(which, l, i));
        }
        if (to < l.size()) {
            numbers.getChildren().add(turn(l, "› of " + l.size(), l.id() + "-after", to + 1));
        }
        HBox.setHgrow(numbers, Priority.ALWAYS);
        HBox row = new HBox(8, name, numbers);
        row.setAlignment(Pos.CENTER_LEFT);
        int at = list.equals(l.id()) ? element : 0;
        int last = l.size();
        row.getChildren().add(link(l, "add", l.hasRoom(), () -> change(ListChange.add(recipe, l.id()), last + 1)));
        if (at > 0) {
            row.getChildren()
                    .addAll(
                            link(l, "double", l.hasRoom(), () -> change(ListChange.twice(l.id(), at), at + 1)),
                            link(l, "take out", l.canLose(), () -> change(ListChange.remove(l.id(), at), 0)),
                            link(l, "‹ move", at > 1, () -> change(ListChange.move(l.id(), at, at - 1), at - 1)),
                            link(l, "move ›", at < last, () -> change(ListChange.move(l.id(), at, at + 1), at + 1)));
        }
        if (l.id().equals("macro") && at > 0) {
            row.getChildren().add(targets(recipe, at));
        }
        if (recipe instanceof ResonatorRecipe r && l.id().equals("mode")) {
            row.getChildren().add(series(r));
        } else if (recipe instanceof FormantRecipe r && l.id().equals("band")) {
            row.getChildren().add(spacing(r));
        }
        return row;
    }

    /** Number of the first element that is shown: of the chosen one's row, or of the row that was turned to. */
    private int first(Listed l) {
        int in = list.equals(l.id()) && element > 0 ? element : turned.getOrDefault(l.id(), 1);
        return 1 + Math.max(0, Math.min(in, l.size()) - 1) / SHOWN * SHOWN;
    }

    /** Turns to the elements before or behind those shown. */
    private Button turn(Listed l, String text, String id, int to) {
        Button b = NodeFactory.link(id, text, () -> {
            turned.put(l.id(), to);
            choose(l.id(), 0);
        });
        b.setAccessibleText(l.name() + "s from " + Math.max(1, to));
        return b;
    }

    private ToggleButton number(ToggleGroup which, Listed l, int i) {
        ToggleButton b = new ToggleButton(i == 0 ? "all" : String.valueOf(i));
        b.setId(l.id() + "-" + (i == 0 ? "all" : i));
        b.setAccessibleText(l.name() + " " + b.getText());
        b.getStyleClass().add("plain-toggle");
        b.setToggleGroup(which);
        b.setSelected(i == 0 ? !list.equals(l.id()) || element == 0 : list.equals(l.id()) && element == i);
        b.setOnAction(e -> choose(l.id(), i));
        return b;
    }

    /** Chooses the element that a value belongs to, or none if it belongs to none. */
    void choose(String parameterId) {
        String[] id = parameterId.split("\\.");
        boolean of = id.length > 2 && id[1].matches("\\d{1,3}");
        list = of ? id[0] : "";
        element = of ? Integer.parseInt(id[1]) : 0;
        shown = null;
    }

    /** Shows the values of one element, or of all with 0. */
    private void choose(String ofList, int number) {
        list = ofList;
        element = number;
        shown = null;
        changed.run();
    }

    private void change(ListChange change, int chosen) {
        list = change.list();
        element = chosen;
        shown = null;
        bench.shaping().change(change);
    }

    private static Button link(Listed l, String text, boolean possible, Runnable action) {
        String id = l.id() + "-" + text.replaceAll("[^a-z]+", "-").replaceAll("^-|-$", "")
                + (text.startsWith("‹") ? "-up" : "");
        Button b = NodeFactory.link(id, text, action);
        b.setMinWidth(USE_PREF_SIZE);
        b.setDisable(!possible);
        b.setAccessibleText(text + ", " + l.name());
        return b;
    }

    private MenuButton series(ResonatorRecipe r) {
        MenuButton menu = menu("series", "mode-series");
        for (String name : NamedModes.names()) {
            MenuItem item = new MenuItem(name);
            item.setId("series-" + name.replace(' ', '-').replace(':', '-'));
            item.setOnAction(e -> use(
                    "modes of a " + name,
                    recipe -> NamedModes.in(
                            recipe,
                            NamedModes.ratios(name, Math.max(8, recipe.modes().size()))),
                    r));
            menu.getItems().add(item);
        }
        menu.getItems()
                .add(typed(
                        "typed-ratios",
                        "1 2.76 5.4 …",
                        text -> use("typed ratios", recipe -> NamedModes.in(recipe, NamedModes.typed(text)), r)));
        return menu;
    }

    /** What a macro is called, and what it moves. */
    private MenuButton targets(Recipe recipe, int macro) {
        MenuButton menu = menu("moves", "macro-targets");
        menu.getItems()
                .add(typed(
                        "macro-name",
                        recipe.common().macros().get(macro - 1).name(),
                        text -> attempt("name the macro", () -> MacroValues.named(recipe, macro, text))));
        MenuItem even = new MenuItem("equally loud along its way");
        even.setId("macro-even");
        even.setOnAction(e -> bench.shaping().make("macro equally loud", r -> EvenMacro.of(r, macro)));
        menu.getItems().add(even);
        for (Macro.Aim a : recipe.common().macros().get(macro - 1).targets()) {
            MenuItem item = new MenuItem("leave alone: " + named(recipe, a.parameter()));
            item.setOnAction(
                    e -> attempt("macro moves less", () -> MacroValues.released(recipe, macro, a.parameter())));
            menu.getItems().add(item);
        }
        Map<Group, Menu> groups = new TreeMap<>();
        for (Parameter p : MacroValues.free(recipe, macro)) {
            MenuItem item = new MenuItem(p.name());
            item.setId("aim-" + p.id());
            item.setOnAction(e -> attempt("macro moves " + p.name(), () -> MacroValues.aimed(recipe, macro, p.id())));
            groups.computeIfAbsent(p.group(), g -> new Menu("also move: " + g.title()))
                    .getItems()
                    .add(item);
        }
        menu.getItems().addAll(groups.values());
        return menu;
    }

    private static String named(Recipe recipe, String id) {
        return recipe.settings().stream()
                .filter(s -> s.parameter().id().equals(id))
                .map(s -> s.parameter().name())
                .findFirst()
                .orElse(id);
    }

    private void attempt(String label, Supplier<Recipe> made) {
        use(label, r -> made.get(), shown);
    }

    /** Number of the macro that is chosen, from 1; 0 if none is. */
    int macro() {
        return list.equals("macro") ? element : 0;
    }

    private MenuButton spacing(FormantRecipe r) {
        MenuButton menu = menu("spacing", "band-spacing");
        for (BandSpacing s : BandSpacing.values()) {
            MenuItem item = new MenuItem(s.title());
            item.setId("spacing-" + s.name().toLowerCase(Locale.ROOT));
            item.setOnAction(e ->
                    use("bands in " + s.title(), recipe -> BandSpacing.in(recipe, s.centresHz(recipe.f0Hz())), r));
            menu.getItems().add(item);
        }
        menu.getItems()
                .add(typed(
                        "typed-centres",
                        "300 800 2400 … Hz",
                        text -> use(
                                "typed bands", recipe -> BandSpacing.in(recipe, sorted(NamedModes.typed(text))), r)));
        return menu;
    }

    private static double[] sorted(double[] v) {
        Arrays.sort(v);
        return v;
    }

    /** What makes a recipe out of another. */
    private interface Made<R extends Recipe> {
        Recipe of(R recipe);
    }

    private <R extends Recipe> void use(String label, Made<R> made, R recipe) {
        shown = null;
        try {
            Recipe now = made.of(recipe);
            element = now.lists().equals(recipe.lists()) ? element : 0;
            bench.shaping().use(now, label);
        } catch (IllegalArgumentException refused) {
            bench.say("That cannot be done: " + refused.getMessage() + ".");
        }
    }

    private static MenuButton menu(String text, String id) {
        MenuButton menu = new MenuButton(text);
        menu.setId(id);
        menu.getStyleClass().add("link-menu");
        menu.setMinWidth(USE_PREF_SIZE);
        return menu;
    }

    private static CustomMenuItem typed(String id, String example, Consumer<String> then) {
        TextField field = new TextField();
        field.setId(id);
        field.setPromptText(example);
        CustomMenuItem item = new CustomMenuItem(field, false);
        field.setOnAction(e -> {
            item.getParentPopup().hide();
            then.accept(field.getText());
        });
        return item;
    }
}
