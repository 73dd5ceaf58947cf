package nightreed.desktop.stage.build;

import java.util.Locale;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.control.Menu;
import javafx.scene.control.MenuItem;
import javafx.scene.control.SplitMenuButton;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import nightreed.desktop.stage.LateMenu;
import nightreed.desktop.stage.NodeFactory;
import nightreed.desktop.workspace.MethodNames;
import nightreed.desktop.workspace.Workspace;
import nightreed.desktop.workspace.WorkspaceState;
import nightreed.match.method.Starts;
import nightreed.recipe.AuditionMode;
import nightreed.recipe.FirstRecipe;
import nightreed.recipe.Patch;
import nightreed.recipe.Recipe;
import nightreed.recipe.ResonatorRecipe;
import nightreed.recipe.size.PatchSize;

/** The line over the picture: the methods, how far the imitation is off, what is heard of it, and the fits. */
final class BuildHead extends HBox {
    /** What "quickly" means for all methods together [s]; chosen. */
    private static final double QUICK_SECONDS = 15;

    private final Workspace bench;
    private final Runnable changed;
    private final ToggleGroup methods = new ToggleGroup();
    private final ToggleButton allValues = new ToggleButton("all values");
    private final LateMenu listen = new LateMenu("", "listen-to", this::listenMenu);
    private final Label total = NodeFactory.figures("");
    private final SplitMenuButton fit = new SplitMenuButton();
    private final MenuItem fromHere;
    private final MenuItem asMeasured;
    private final MenuItem under;

    /** @param changed called when the stage is to be shown anew */
    BuildHead(Workspace bench, MachineMenu machine, Runnable changed) {
        super(2);
        this.bench = bench;
        this.changed = changed;
        for (String m : Starts.METHODS) {
            getChildren().add(method(m));
        }
        fit.setId("fit");
        fit.getStyleClass().add("accent-button");
        fit.setOnAction(e -> bench.fitting().fit());
        fit.setMinWidth(Region.USE_PREF_SIZE);
        fromHere = NodeFactory.item(
                "fit-from-here", "Fit on from here", () -> bench.fitting().fitFromHere());
        under = NodeFactory.item(
                "fit-under",
                "Look for a second layer under it",
                () -> bench.fitting().fitUnder());
        asMeasured = NodeFactory.item(
                "as-measured",
                "Start again from the measurement",
                () -> bench.fitting().startMethod(bench.state().recipe().method()));
        fit.getItems()
                .addAll(
                        fromHere,
                        under,
                        NodeFactory.item(
                                "match-all",
                                "Try all six methods",
                                () -> bench.fitting().matchAll(Double.POSITIVE_INFINITY)),
                        NodeFactory.item(
                                "match-quickly",
                                "Try all six methods in 15 seconds",
                                () -> bench.fitting().matchAll(QUICK_SECONDS)),
                        NodeFactory.item(
                                "fit-together",
                                "Fit all notes kept together",
                                () -> bench.fitting().fitTogether()),
                        NodeFactory.item(
                                "follow-recording",
                                "Follow the recording, band by band",
                                () -> bench.fitting().follow()),
                        asMeasured,
                        machine.menu());
        allValues.getStyleClass().add("plain-toggle");
        allValues.setId("all-values");
        allValues.setOnAction(e -> changed.run());
        bench.shaping().emphasisedProperty().addListener((o, was, is) -> listenText());
        getChildren().addAll(NodeFactory.gap(), total, listen, allValues, fit);
        setAlignment(Pos.CENTER_LEFT);
    }

    private ToggleButton method(String m) {
        ToggleButton b = new ToggleButton(MethodNames.of(m));
        b.getStyleClass().add("plain-toggle");
        b.setId("method-" + m);
        b.setToggleGroup(methods);
        b.setUserData(m);
        b.setMinWidth(Region.USE_PREF_SIZE);
        b.setTooltip(new Tooltip("Starting values of this method, computed from the measurement."));
        b.setOnAction(e -> choose(m));
        return b;
    }

    /** Whether every value is to be shown, and not only those that matter most. */
    boolean isAllValues() {
        return allValues.isSelected();
    }

    void showAllValues() {
        allValues.setSelected(true);
        changed.run();
    }

    void fill(WorkspaceState s) {
        fit.setDisable(s.recording() == null);
        fit.setVisible(s.recording() != null);
        fit.setText(s.recipe() == null ? "Fit an imitation" : "Fit anew");
        fromHere.setDisable(s.recipe() == null);
        under.setDisable(s.recipe() == null);
        asMeasured.setDisable(s.recipe() == null);
        methods.getToggles()
                .forEach(t ->
                        t.setSelected(s.recipe() != null && s.recipe().method().equals(t.getUserData())));
        listen.setVisible(s.recipe() != null);
        listenText();
        allValues.setVisible(s.recipe() instanceof ResonatorRecipe && s.recording() != null);
        allValues.setManaged(allValues.isVisible());
        total.setText(s.recipe() == null ? "" : size(s) + distance(s));
    }

    private static String size(WorkspaceState s) {
        Patch patch = s.snapshot().patch();
        return PatchSize.followsRecording(patch) ? "follows the recording" : PatchSize.of(patch) + " values";
    }

    private static String distance(WorkspaceState s) {
        return s.comparison() == null
                ? ""
                : String.format(Locale.ROOT, ", %.2f JND", s.comparison().totalJnd());
    }

    private void listenText() {
        AuditionMode e = bench.shaping().emphasisedProperty().get();
        listen.setText(e == null ? "all heard" : e.title());
    }

    /** Every element, without it, by itself, or more of it. */
    private void listenMenu() {
        WorkspaceState s = bench.state();
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
            changed.run(); // the toggle must not go off
        } else if (bench.state().recording() == null) {
            bench.shaping().use(FirstRecipe.of(method), "start " + method);
        } else {
            bench.fitting().startMethod(method);
        }
    }
}
