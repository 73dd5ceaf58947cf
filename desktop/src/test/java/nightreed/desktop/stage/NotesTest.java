package nightreed.desktop.stage;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import nightreed.desktop.OnStage;
import org.junit.jupiter.api.Test;

/** Notes and cells that are told anew keep their labels, and show just what was told last. */
class NotesTest {
    private static List<String> texts(Notes n) {
        List<String> out = new ArrayList<>();
        for (Node c : n.getChildren()) {
            if (c instanceof Label l) {
                out.add(l.getText());
            } else if (c instanceof HBox row && row.getChildren().size() == 3) {
                out.add(((Label) row.getChildren().get(0)).getText() + "="
                        + ((Label) row.getChildren().get(2)).getText());
            } else if (c instanceof Button b) {
                out.add("[" + b.getText() + "]");
            }
        }
        return out;
    }

    private static void tell(Notes n, Notes.Note... notes) {
        OnStage.fx(() -> {
            assertThat(n.begin()).isTrue();
            n.add(notes);
            n.end();
            return null;
        });
    }

    @Test
    void changedWordsAreToldInTheSameLabels() throws Exception {
        Notes n = OnStage.show(() -> new Notes(4));
        tell(
                n,
                Notes.heading("Mode 1"),
                Notes.pair("T60", "1.30 s"),
                Notes.body("It rings."),
                Notes.quiet("On and on."));
        List<Node> before = List.copyOf(n.getChildren());
        tell(n, Notes.heading("Mode 2"), Notes.pair("T60", "0.70 s"), Notes.body("It stops."), Notes.quiet("At once."));
        assertThat(texts(n)).containsExactly("Mode 2", "T60=0.70 s", "It stops.", "At once.");
        assertThat(n.getChildren()).containsExactlyElementsOf(before);
    }

    @Test
    void whatIsNoLongerToldGoesAndOtherKindsTakeTheirPlace() throws Exception {
        Notes n = OnStage.show(() -> new Notes(4));
        tell(n, Notes.heading("A"), Notes.body("b"), Notes.space(6), Notes.body("c"), Notes.quiet("d"));
        tell(n, Notes.heading("A"), Notes.pair("x", "y"));
        assertThat(texts(n)).containsExactly("A", "x=y");
        tell(n, Notes.heading("A"), Notes.body("b"), Notes.quiet("d"));
        assertThat(texts(n)).containsExactly("A", "b", "d");
        tell(n);
        assertThat(n.getChildren()).isEmpty();
    }

    @Test
    void aButtonMayStandHigherOrLowerThanBefore() throws Exception {
        Notes n = OnStage.show(() -> new Notes(4));
        Button fit = OnStage.fx(() -> new Button("Fit"));
        tell(n, Notes.heading("A"), Notes.body("b"), Notes.body("c"), Notes.of(fit));
        tell(n, Notes.heading("A"), Notes.of(fit), Notes.body("c"));
        assertThat(texts(n)).containsExactly("A", "[Fit]", "c");
        tell(n, Notes.body("new"), Notes.heading("A"), Notes.body("c"), Notes.of(fit));
        assertThat(texts(n)).containsExactly("new", "A", "c", "[Fit]");
    }

    @Test
    void tellingWithinTellingIsRefused() throws Exception {
        Notes n = OnStage.show(() -> new Notes(4));
        OnStage.fx(() -> {
            assertThat(n.begin()).isTrue();
            n.add(Notes.heading("A"));
            assertThat(n.begin()).isFalse(); // a choice made while showing asks for the notes again
            n.add(Notes.body("b"));
            n.end();
            assertThat(n.begin()).isTrue();
            n.end();
            return null;
        });
        assertThat(n.getChildren()).isEmpty();
    }

    @Test
    void cellsKeepTheirLabelsAndLoseTheRowsThatAreGone() throws Exception {
        Cells cells = OnStage.show(Cells::new);
        OnStage.fx(() -> {
            cells.begin();
            cells.put(0, cells.row(), "group", "Strike", NodeFactory::heading);
            int row = cells.row();
            cells.put(0, row, "name", "contact", NodeFactory::body);
            cells.put(1, row, "value", "0.46 ms", NodeFactory::figures);
            cells.end();
            return null;
        });
        List<Node> before = List.copyOf(cells.getChildren());
        OnStage.fx(() -> {
            cells.begin();
            cells.put(0, cells.row(), "group", "Strike", NodeFactory::heading);
            int row = cells.row();
            cells.put(0, row, "name", "contact", NodeFactory::body);
            cells.put(1, row, "value", "0.52 ms", NodeFactory::figures);
            cells.end();
            return null;
        });
        assertThat(cells.getChildren()).containsExactlyElementsOf(before);
        assertThat(((Label) before.get(2)).getText()).isEqualTo("0.52 ms");
        OnStage.fx(() -> {
            cells.begin();
            cells.put(
                    0,
                    cells.row(),
                    "name",
                    "nothing here",
                    NodeFactory::body); // another kind in the place of a heading
            cells.end();
            return null;
        });
        assertThat(cells.getChildren()).hasSize(1);
        assertThat(((Label) cells.getChildren().get(0)).getText()).isEqualTo("nothing here");
    }
}
