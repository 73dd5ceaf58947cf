package nightreed.desktop.stage;

import java.util.Objects;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;

/**
 * The notes in the margin. What is told anew is put into the labels that are there: making and styling new ones takes the
 * window many times as long, and the notes change with every moved value.
 */
public final class Notes extends VBox {
    private int at;
    private boolean telling;

    /** One note. */
    public interface Note {
        /** The node that was shown before, changed if it can be, or another. @param before null if there is none */
        Node in(Node before);
    }

    public Notes(double spacing) {
        super(spacing);
        getStyleClass().add("margin-notes");
    }

    /** @return false if notes are being told already: what is shown may choose a partial, which asks for the notes again */
    public boolean begin() {
        if (telling) {
            return false;
        }
        telling = true;
        at = 0;
        return true;
    }

    public void add(Note... notes) {
        for (Note n : notes) {
            Node before = at < getChildren().size() ? getChildren().get(at) : null;
            Node now = n.in(before);
            if (now != before) {
                getChildren().remove(now); // a button may have stood further down
                if (at < getChildren().size()) {
                    getChildren().set(at, now);
                } else {
                    getChildren().add(now);
                }
            }
            at++;
        }
    }

    public void end() {
        telling = false;
        if (at < getChildren().size()) {
            getChildren().remove(at, getChildren().size());
        }
    }

    public static Note heading(String text) {
        return before -> reuse(before, "heading", text) ? before : mark(NodeFactory.heading(text), "heading");
    }

    public static Note body(String text) {
        return before -> reuse(before, "body", text) ? before : mark(NodeFactory.body(text), "body");
    }

    public static Note quiet(String text) {
        return before -> reuse(before, "quiet", text) ? before : mark(NodeFactory.quiet(text), "quiet");
    }

    /** A name at the left and a value at the right. */
    public static Note pair(String name, String value) {
        return before -> {
            if (before instanceof HBox row && "pair".equals(row.getUserData())) {
                put((Label) row.getChildren().get(0), name);
                put((Label) row.getChildren().get(2), value);
                return row;
            }
            return mark(NodeFactory.pair(name, value), "pair");
        };
    }

    public static Note space(double height) {
        return before -> before != null && Objects.equals(before.getUserData(), height)
                ? before
                : mark(NodeFactory.space(height), height);
    }

    public static Note of(Node node) {
        return before -> node;
    }

    private static boolean reuse(Node before, String kind, String text) {
        if (before instanceof Label l && kind.equals(l.getUserData())) {
            put(l, text);
            return true;
        }
        return false;
    }

    /** Leaves a label alone that says it already. */
    public static void put(Label l, String text) {
        if (!text.equals(l.getText())) {
            l.setText(text);
        }
    }

    private static <T extends Node> T mark(T node, Object kind) {
        node.setUserData(kind);
        return node;
    }
}
