package nightreed.desktop.stage;

import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import javafx.scene.control.Label;
import javafx.scene.layout.GridPane;

/** A grid of labels that are kept and only told other words; see {@link Notes} for why. */
public final class Cells extends GridPane {
    private final Map<String, Label> labels = new HashMap<>();
    private final Set<String> told = new HashSet<>(); // places that were told something since the beginning
    private int rows;

    public void begin() {
        rows = 0;
        told.clear();
    }

    /** Starts a row. @return its number */
    public int row() {
        return rows++;
    }

    /** @param make makes the label for a place that has had none of this kind */
    public void put(int column, int row, String kind, String text, Function<String, Label> make) {
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
        told.add(place);
        Notes.put(l, text);
    }

    public void end() {
        labels.entrySet().removeIf(e -> {
            boolean gone = !told.contains(e.getKey()); // left over from a longer row, or from more rows
            if (gone) {
                getChildren().remove(e.getValue());
            }
            return gone;
        });
    }
}
