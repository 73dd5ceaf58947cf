package nightreed.desktop.stage;

import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleObjectProperty;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.TableCell;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TableView;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import nightreed.desktop.bench.Bench;
import nightreed.desktop.bench.BenchState;
import nightreed.desktop.reedbed.BedModel;
import nightreed.desktop.reedbed.Reedbed;
import nightreed.desktop.settings.PreferenceStore;
import nightreed.measure.Measurement;
import nightreed.measure.Partial;

/** Measure: what the recording is made of. */
public final class MeasureView implements StageView {
    private final Bench bench;
    private final PreferenceStore preferences;
    private final VBox centre = new VBox(8);
    private final Notes margin = new Notes(6);
    private final Waveform waveform = new Waveform();
    private final Reedbed bed;
    private final DecayPlot decay = new DecayPlot();
    private final TableView<Partial> table = new TableView<>();
    private final Button fit = new Button("Fit an imitation");
    private Measurement shown;

    public MeasureView(Bench bench, PreferenceStore preferences) {
        this.bench = bench;
        this.preferences = preferences;
        this.bed = new Reedbed(bench.selectedProperty());
        bed.setEmptyText("No recording yet: bring one in on the Brief stage.");
        bed.setId("measure-bed");
        waveform.setMinHeight(84);
        waveform.setPrefHeight(84);
        bed.setPrefHeight(300);
        bed.setMinHeight(180);
        VBox.setVgrow(bed, Priority.ALWAYS);
        decay.setPrefWidth(360);
        HBox.setHgrow(decay, Priority.ALWAYS);
        columns();
        table.setPrefWidth(480);
        table.setId("partial-table");
        table.setAccessibleText("Reliable partials of the recording");
        HBox.setHgrow(table, Priority.ALWAYS);
        HBox below = new HBox(8, decay, table);
        below.setPrefHeight(226);
        below.setMinHeight(150);
        centre.getChildren().addAll(waveform, bed, below);
        SimpleObjectProperty<Partial> selected = bench.selectedProperty();
        table.getSelectionModel().selectedItemProperty().addListener((o, a, p) -> {
            if (p != null) {
                selected.set(p);
            }
        });
        selected.addListener((o, a, p) -> select(p));
        fit.getStyleClass().add("accent-button");
        fit.setId("measure-fit");
        fit.setOnAction(e -> bench.fit());
    }

    private void select(Partial p) {
        if (p != null && !p.equals(table.getSelectionModel().getSelectedItem())) {
            table.getSelectionModel().select(p);
            table.scrollTo(p);
        }
        if (bench.state().recording() != null) {
            decay.show(bench.state().recording(), p, name(p));
        }
    }

    private String name(Partial p) {
        return p == null || shown == null || shown.series() == null
                ? null
                : shown.series().nameOf(p.frequencyHz());
    }

    private void columns() {
        TableColumn<Partial, String> name = new TableColumn<>("partial");
        name.setCellValueFactory(
                c -> new ReadOnlyObjectWrapper<>(name(c.getValue()) == null ? "" : name(c.getValue())));
        name.setPrefWidth(88);
        table.getColumns().add(name);
        table.getColumns().add(number("Hz", 78, 2, Partial::frequencyHz));
        table.getColumns().add(number("ratio", 64, 3, Partial::ratio));
        table.getColumns().add(number("dB", 56, 1, Partial::levelDb));
        table.getColumns().add(number("T60 s", 62, 3, Partial::t60Seconds));
        table.getColumns()
                .add(number("± s", 58, 3, p -> p.t60SeSeconds() == null ? null : (Double) (2 * p.t60SeSeconds())));
        table.setColumnResizePolicy(TableView.CONSTRAINED_RESIZE_POLICY_FLEX_LAST_COLUMN);
        table.setPlaceholder(Parts.quiet("no partials"));
    }

    private static TableColumn<Partial, Double> number(
            String title, double width, int decimals, java.util.function.Function<Partial, Double> value) {
        TableColumn<Partial, Double> c = new TableColumn<>(title);
        c.setCellValueFactory(f -> new ReadOnlyObjectWrapper<>(value.apply(f.getValue())));
        c.setCellFactory(col -> new TableCell<>() {
            @Override
            protected void updateItem(Double v, boolean empty) {
                super.updateItem(v, empty);
                setText(
                        empty
                                ? ""
                                : v == null || !Double.isFinite(v)
                                        ? "–"
                                        : String.format(Locale.ROOT, "%." + decimals + "f", v)
                                                .replaceFirst("^-(0\\.?0*)$", "$1"));
            }
        });
        c.getStyleClass().add("number-column");
        c.setPrefWidth(width);
        return c;
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
        if (s.recording() == null) {
            shown = null;
            bed.setModel(BedModel.EMPTY);
            table.getItems().clear();
            waveform.show(null);
            decay.show(null, null, null);
            margin.add(Notes.heading("What this is"), Notes.body("Nothing has been brought in yet."));
            return;
        }
        Measurement m = s.recording().measurement();
        if (m != shown) {
            shown = m;
            waveform.show(s.recording());
            bed.setModel(BedModel.of(m, null, preferences.get().axis()));
            List<Partial> sorted = m.reliablePartials().stream()
                    .sorted(Comparator.comparingDouble(Partial::frequencyHz))
                    .toList();
            table.getItems().setAll(sorted);
            select(bench.selectedProperty().get());
        }
        notes(m, s.recipe() == null);
    }

    private void notes(Measurement m, boolean unfitted) {
        margin.add(Notes.heading("What this is"));
        for (String sentence : PlainWords.about(m)) {
            margin.add(Notes.body(sentence));
        }
        margin.add(Notes.space(6), Notes.heading("Also measured"));
        margin.add(Notes.pair(
                "offset",
                m.centsFromConcert() == null
                        ? "no pitch"
                        : String.format(
                                Locale.ROOT, "%+.1f cents", preferences.get().centsAtReference(m.centsFromConcert()))));
        margin.add(Notes.pair(
                "from A4 at",
                String.format(Locale.ROOT, "%.1f Hz", preferences.get().referenceHz())));
        margin.add(Notes.pair(
                "attack",
                m.attackSeconds() == null
                        ? "not measurable"
                        : String.format(Locale.ROOT, "%.2f ms", 1000 * m.attackSeconds())));
        margin.add(Notes.pair(
                "strike noise",
                m.noise() == null
                        ? "none stands out"
                        : String.format(
                                Locale.ROOT,
                                "%.0f ms, %.0f dB",
                                1000 * m.noise().t60Seconds(),
                                m.noise().levelDb())));
        margin.add(Notes.pair(
                "brightness",
                m.brightness() == null
                        ? "not measurable"
                        : String.format(
                                Locale.ROOT,
                                "%.0f to %.0f Hz",
                                m.brightness().startHz(),
                                m.brightness().endHz())));
        margin.add(Notes.pair("onset", String.format(Locale.ROOT, "%.4f s", m.onsetSeconds())));
        for (String remark : m.remarks()) {
            margin.add(Notes.quiet(remark));
        }
        if (unfitted) {
            margin.add(Notes.space(6), Notes.of(fit));
        }
    }
}
