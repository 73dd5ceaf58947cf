package nightreed.desktop.stage;

import java.util.HashMap;
import java.util.Map;
import java.util.function.Function;
import javafx.scene.control.Label;
import javafx.scene.layout.GridPane;

/** A grid of labels that are kept and only told other words; see {@link Notes} for why. */
final class Cells extends GridPane {
    private final Map<String, Label> labels = new HashMap<>();
    private int rows;

    void begin() {
        rows = 0;
    }

    /** Starts a row. @return its number */
    int row() {
        return rows++;
    }

    /** @param make makes the label for a place that has had none of this kind */
    void put(int column, int row, String kind, String text, Function<String, Label> make) {
        String place = column + " " + row + " " + kind;
        Label l = labels.get(place);
        if (l == null) {
            labels.entrySet().removeIf(e -> {
                boolean same = e.getKey().startsWith(column + " " + row + " ");
                if (same) {
                    getChildren().remove(e.getValue());
                }
                return same;
            });
            l = make.apply(text);
            labels.put(place, l);
            add(l, column, row);
        }
        Notes.put(l, text);
    }

    void end() {
        labels.entrySet().removeIf(e -> {
            boolean gone = Integer.parseInt(e.getKey().split(" ", 3)[1]) >= rows;
            if (gone) {
                getChildren().remove(e.getValue());
            }
            return gone;
        });
    }
}
