package nightreed.desktop.stage.brief;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.function.BiFunction;
import java.util.function.ToDoubleFunction;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.Slider;
import javafx.scene.control.Spinner;
import javafx.scene.control.SpinnerValueFactory;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.ColumnConstraints;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import nightreed.desktop.stage.NodeFactory;
import nightreed.desktop.workspace.Workspace;
import nightreed.music.Pitch;
import nightreed.typical.Description;
import nightreed.typical.Families;
import nightreed.typical.Family;
import nightreed.typical.TypicalNote;
import nightreed.typical.Words;

/** What is typical of a family, in place of a recording: by words, by family and six sliders; the picture follows. */
final class TargetPanel extends HBox {
    private final Runnable onFamily;
    private Family told;
    private final TextField words = new TextField();
    private final Label unknown = NodeFactory.quiet("");
    private final ToggleGroup families = new ToggleGroup();
    private final List<Control> sliders = new ArrayList<>();
    private final Spinner<Integer> key = new Spinner<>(new SpinnerValueFactory.IntegerSpinnerValueFactory(0, 127, 60));
    private final Label keyName = NodeFactory.figures("");
    private final TargetPicture picture = new TargetPicture();
    private Description asked = Description.of(Families.of("brass"));
    private boolean filling;

    private record Control(
            Slider slider, ToDoubleFunction<Description> get, BiFunction<Description, Double, Description> with) {}

    /** @param onFamily told when another family is described */
    TargetPanel(Workspace bench, Runnable onFamily) {
        super(14);
        this.onFamily = onFamily;
        words.setId("target-words");
        words.setPromptText("describe it in words: bright brass, slow start, C3");
        words.setAccessibleText("What it is like, in words");
        words.setOnAction(e -> read());
        FlowPane chips = new FlowPane(4, 4);
        for (Family f : Families.all()) {
            ToggleButton b = new ToggleButton(f.title());
            b.setId("family-" + f.id());
            b.setUserData(f);
            b.setToggleGroup(families);
            b.getStyleClass().add("family");
            Tooltip.install(b, new Tooltip(String.join("\n", f.sources())));
            b.setOnAction(e -> {
                b.setSelected(true); // one is always chosen
                change(Description.of(f));
            });
            chips.getChildren().add(b);
        }
        key.setId("target-key");
        key.setPrefWidth(84);
        key.setAccessibleText("Key");
        key.valueProperty().addListener((o, was, k) -> {
            if (!filling && k != null) {
                change(asked.withKey(k));
            }
        });
        Button hear = new Button("Hear it");
        hear.setId("target-hear");
        hear.setOnAction(e -> bench.targets().hear(asked));
        Button take = new Button("Build against it");
        take.setId("target-take");
        take.getStyleClass().add("accent-button");
        take.setOnAction(e -> bench.targets().take(asked));
        HBox keys = new HBox(8, NodeFactory.quiet("key"), key, keyName, NodeFactory.gap(), hear, take);
        keys.setAlignment(Pos.CENTER_LEFT);
        VBox left = NodeFactory.panel(
                NodeFactory.heading("No recording: a typical one"), words, unknown, chips, grid(), keys);
        left.setPrefWidth(470);
        left.setMinWidth(430);
        HBox.setHgrow(left, Priority.ALWAYS);
        HBox.setHgrow(picture, Priority.ALWAYS);
        getChildren().addAll(left, picture);
        show();
    }

    private GridPane grid() {
        GridPane grid = new GridPane();
        grid.setHgap(8);
        grid.setVgap(3);
        add(grid, 0, "dull", "bright", Description::bright, (d, v) -> d.withBright(v));
        add(grid, 1, "short", "long", Description::length, (d, v) -> d.withLength(v));
        add(grid, 2, "soft start", "hard start", Description::hard, (d, v) -> d.withHard(v));
        add(grid, 3, "still", "moving", Description::moving, (d, v) -> d.withMoving(v));
        add(grid, 4, "clean", "noisy", Description::noisy, (d, v) -> d.withNoisy(v));
        add(grid, 5, "dry", "roomy", Description::roomy, (d, v) -> d.withRoomy(v));
        for (int side = 0; side < 2; side++) {
            ColumnConstraints less = new ColumnConstraints(60);
            less.setHalignment(javafx.geometry.HPos.RIGHT);
            ColumnConstraints between = new ColumnConstraints(60, 100, 200);
            between.setHgrow(Priority.ALWAYS);
            grid.getColumnConstraints().addAll(less, between, new ColumnConstraints(64));
        }
        return grid;
    }

    private void add(
            GridPane grid,
            int at,
            String less,
            String more,
            ToDoubleFunction<Description> get,
            BiFunction<Description, Double, Description> with) {
        Slider s = new Slider(-1, 1, 0);
        s.setId("target-" + more.split(" ")[0]);
        s.setAccessibleText(less + " to " + more);
        s.setBlockIncrement(0.1);
        s.valueProperty().addListener((o, was, v) -> {
            if (!filling) {
                change(with.apply(asked, Math.round(20 * v.doubleValue()) / 20.0));
            }
        });
        sliders.add(new Control(s, get, with));
        int column = at < 3 ? 0 : 3;
        grid.add(NodeFactory.quiet(less), column, at % 3);
        grid.add(s, column + 1, at % 3);
        grid.add(NodeFactory.quiet(more), column + 2, at % 3);
    }

    private void read() {
        Words.Read read = Words.read(words.getText(), asked);
        asked = read.description();
        unknown.setText(
                read.unknown().isEmpty()
                        ? ""
                        : "Not understood: " + String.join(", ", read.unknown())
                                + ". Families, keys and words such as dull, long, soft start, breathy are.");
        show();
    }

    private void change(Description next) {
        asked = next;
        unknown.setText("");
        show();
    }

    /** What is described now. */
    Description asked() {
        return asked;
    }

    private void show() {
        filling = true;
        words.setText(asked.words());
        families.getToggles().stream()
                .filter(t -> t.getUserData().equals(asked.family()))
                .forEach(families::selectToggle);
        sliders.forEach(c -> c.slider.setValue(c.get.applyAsDouble(asked)));
        key.getValueFactory().setValue(asked.key());
        keyName.setText(String.format(Locale.ROOT, "%s, %.0f Hz", Pitch.name(asked.key()), Pitch.hz(asked.key())));
        filling = false;
        unknown.setVisible(!unknown.getText().isEmpty());
        unknown.setManaged(unknown.isVisible());
        picture.show(TypicalNote.of(asked));
        if (told != asked.family()) {
            told = asked.family();
            onFamily.run();
        }
    }
}
