package nightreed.desktop.stage.measure;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.scene.Node;
import javafx.scene.control.ComboBox;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import nightreed.desktop.drawing.Drawing;
import nightreed.desktop.workspace.Workspace;
import nightreed.match.sound.AnalysedSound;
import nightreed.measure.partial.Partial;

/** The small pictures of the Measure stage, one at a time: of the chosen partial, or of the whole sound. */
final class MeasurePictures extends VBox {
    private enum Picture {
        DECAY("decay", "How the chosen partial dies"),
        FIRST("100 ms", "The first 100 ms"),
        BRIGHTNESS("brightness", "The centroid over time"),
        LOUDNESS("loudness", "The K-weighted level over time"),
        NOISE("noise", "What is left without the partials, by bands over time"),
        FORMANTS("formants", "Harmonics, formants and the source that may stand behind them"),
        PITCH("movement", "The pitch of a held note over time, and what swings"),
        NOTES("notes", "All notes of the instrument together: decay over pitch, brightness over level");

        private final String title;
        private final String help;

        Picture(String title, String help) {
            this.title = title;
            this.help = help;
        }
    }

    private static final double LEAST_FOR_TABS = 340;

    private final DecayPlot decay = new DecayPlot();
    private final PathPlot path = new PathPlot();
    private final NoisePlot noise = new NoisePlot();
    private final FormantPlot formants = new FormantPlot();
    private final NotesTab notes;
    private final ComboBox<String> narrow = new ComboBox<>();
    private final ReadOnlyObjectProperty<Partial> selected;
    private final PartialTable names;
    private final ResidualNoise left;
    private Picture picture = Picture.DECAY;
    private AnalysedSound shown;

    MeasurePictures(Workspace bench, PartialTable names, ResidualNoise left) {
        super(4);
        this.notes = new NotesTab(bench);
        this.left = left;
        this.selected = bench.selectedProperty();
        this.names = names;
        FlowPane tabs = new FlowPane(2, 2);
        ToggleGroup group = new ToggleGroup();
        List<ToggleButton> buttons = new ArrayList<>();
        for (Picture p : Picture.values()) {
            ToggleButton b = new ToggleButton(p.title);
            b.getStyleClass().add("plain-toggle");
            b.setId("picture-" + p.name().toLowerCase(Locale.ROOT));
            b.setMinWidth(Region.USE_PREF_SIZE);
            b.setAccessibleText(p.help);
            b.setTooltip(new Tooltip(p.help));
            b.setToggleGroup(group);
            b.setSelected(p == picture);
            b.setOnAction(e -> {
                b.setSelected(true); // one is always on
                picture = p;
                narrow.setValue(p.title);
                draw();
            });
            buttons.add(b);
            tabs.getChildren().add(b);
            narrow.getItems().add(p.title);
        }
        narrow.setValue(picture.title);
        narrow.setId("picture-choice");
        narrow.setAccessibleText("Which small picture is shown");
        narrow.setOnAction(
                e -> buttons.get(narrow.getSelectionModel().getSelectedIndex()).fire());
        swap(tabs, false);
        widthProperty().addListener((o, a, w) -> swap(tabs, w.doubleValue() < LEAST_FOR_TABS));
        StackPane one = new StackPane(decay, path, noise, formants, notes);
        one.setMinHeight(80);
        VBox.setVgrow(one, Priority.ALWAYS);
        getChildren().addAll(tabs, narrow, one);
        setPrefWidth(420);
        setMinWidth(220);
        selected.addListener((o, a, b) -> {
            if (picture == Picture.DECAY) {
                draw();
            }
        });
    }

    /** Tabs where there is room for them, one choice where there is not. */
    private void swap(FlowPane tabs, boolean tight) {
        for (Node n : new Node[] {tabs, narrow}) {
            boolean on = (n == narrow) == tight;
            n.setVisible(on);
            n.setManaged(on);
        }
    }

    /** @param side null for nothing */
    void show(AnalysedSound side) {
        shown = side;
        draw();
    }

    private Node front() {
        return switch (picture) {
            case DECAY -> decay;
            case NOISE -> noise;
            case FORMANTS -> formants;
            case NOTES -> notes;
            default -> path;
        };
    }

    private void draw() {
        Node front = front();
        for (Node n : new Node[] {decay, path, noise, formants, notes}) {
            n.setVisible(n == front);
        }
        Drawing.freshen(front);
        switch (picture) {
            case DECAY -> {
                Partial p = shown == null ? null : selected.get();
                String name = names.name(p);
                decay.show(shown, p, name.isEmpty() ? null : name);
            }
            case FORMANTS -> formants.show(shown == null ? null : shown.measurement());
            case NOISE -> left.ask(shown, noise::show);
            case NOTES -> notes.show(shown);
            case FIRST -> path.show(shown == null ? null : MeasuredPaths.first(shown));
            case BRIGHTNESS -> path.show(shown == null ? null : MeasuredPaths.brightness(shown));
            case LOUDNESS -> path.show(shown == null ? null : MeasuredPaths.loudness(shown));
            case PITCH -> path.show(shown == null ? null : MeasuredPaths.pitch(shown.measurement()));
        }
    }
}
