package nightreed.desktop.stage.measure;

import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.function.Function;
import java.util.stream.Stream;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.css.PseudoClass;
import javafx.scene.control.TableCell;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TableRow;
import javafx.scene.control.TableView;
import nightreed.desktop.stage.NodeFactory;
import nightreed.measure.ManualCorrections;
import nightreed.measure.Measurement;
import nightreed.measure.partial.Partial;

/** The partials as numbers; sorts by any of them. What was left out by hand stands there struck through. */
final class PartialTable extends TableView<Partial> {
    private static final PseudoClass LEFT_OUT = PseudoClass.getPseudoClass("left-out");

    private Measurement shown;
    private ManualCorrections hand = ManualCorrections.NONE;

    PartialTable() {
        setId("partial-table");
        setAccessibleText("Partials of the recording");
        TableColumn<Partial, String> name = new TableColumn<>("partial");
        name.setCellValueFactory(c -> new ReadOnlyObjectWrapper<>(name(c.getValue())));
        name.setPrefWidth(86);
        name.setMinWidth(80);
        getColumns().add(name);
        getColumns().add(number("Hz", 70, 2, Partial::frequencyHz));
        getColumns().add(number("ratio", 60, 3, Partial::ratio));
        getColumns().add(number("cents", 54, 0, this::centsOff));
        getColumns().add(number("dB", 56, 1, Partial::levelDb));
        getColumns().add(number("T60 s", 58, 3, Partial::t60Seconds));
        getColumns().add(number("± s", 52, 3, p -> p.t60SeSeconds() == null ? null : (Double) (2 * p.t60SeSeconds())));
        setColumnResizePolicy(CONSTRAINED_RESIZE_POLICY_FLEX_LAST_COLUMN);
        setPlaceholder(NodeFactory.quiet("no partials"));
        setRowFactory(t -> new TableRow<>() {
            @Override
            protected void updateItem(Partial p, boolean empty) {
                super.updateItem(p, empty);
                pseudoClassStateChanged(LEFT_OUT, !empty && p != null && hand.leavesOut(p));
            }
        });
    }

    /** Shows a measurement; what is chosen stays chosen if it is still there. */
    void show(Measurement m, ManualCorrections decided) {
        shown = m;
        hand = decided;
        if (m == null) {
            getItems().clear();
            return;
        }
        List<Partial> rows = Stream.concat(
                        m.reliablePartials().stream(),
                        m.partials().stream().filter(p -> !p.reliable() && hand.leavesOut(p)))
                .sorted(Comparator.comparingDouble(Partial::frequencyHz))
                .toList();
        getItems().setAll(rows);
        sort();
        refresh();
    }

    String name(Partial p) {
        String n = p == null || shown == null || shown.series() == null
                ? null
                : shown.series().nameOf(p.frequencyHz());
        return n == null ? "" : n;
    }

    private Double centsOff(Partial p) {
        return name(p).isEmpty() ? null : (Double) shown.series().centsFrom(p.frequencyHz());
    }

    private static TableColumn<Partial, Double> number(
            String title, double width, int decimals, Function<Partial, Double> value) {
        TableColumn<Partial, Double> c = new TableColumn<>(title);
        c.setCellValueFactory(f -> new ReadOnlyObjectWrapper<>(value.apply(f.getValue())));
        c.setComparator(Comparator.nullsFirst(Comparator.naturalOrder()));
        c.setCellFactory(col -> new TableCell<>() {
            @Override
            protected void updateItem(Double v, boolean empty) {
                super.updateItem(v, empty);
                boolean none = empty || v == null || !Double.isFinite(v);
                setText(
                        none
                                ? empty ? "" : "–"
                                : String.format(Locale.ROOT, "%." + decimals + "f", v)
                                        .replaceFirst("^-(0\\.?0*)$", "$1"));
            }
        });
        c.getStyleClass().add("number-column");
        c.setPrefWidth(width);
        c.setMinWidth(width - 6);
        return c;
    }
}
