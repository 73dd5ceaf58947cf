package nightreed.desktop.stage;

import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.MenuItem;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.text.TextAlignment;

/** Small pieces that stages are put together from. */
public final class NodeFactory {
    private NodeFactory() {}

    public static Label heading(String text) {
        Label l = styled(text, "heading");
        l.setMinHeight(Region.USE_PREF_SIZE);
        return l;
    }

    public static Label body(String text) {
        Label l = styled(text, "body");
        l.setWrapText(true);
        l.setMinHeight(Region.USE_PREF_SIZE);
        return l;
    }

    public static Label quiet(String text) {
        Label l = styled(text, "quiet");
        l.setWrapText(true);
        l.setMinHeight(Region.USE_PREF_SIZE);
        return l;
    }

    public static Label figures(String text) {
        return styled(text, "figures");
    }

    public static Label styled(String text, String style) {
        Label l = new Label(text);
        l.getStyleClass().add(style);
        return l;
    }

    /** A name at the left and a value at the right. */
    public static HBox pair(String name, String value) {
        Label n = quiet(name);
        n.setWrapText(false);
        n.setMinWidth(Region.USE_PREF_SIZE);
        Label v = figures(value);
        v.setWrapText(true);
        v.setTextAlignment(TextAlignment.RIGHT);
        HBox row = new HBox(8, n, gap(), v);
        row.setAlignment(Pos.BASELINE_LEFT);
        return row;
    }

    public static Region gap() {
        Region r = new Region();
        HBox.setHgrow(r, Priority.ALWAYS);
        return r;
    }

    public static Region space(double height) {
        Region r = new Region();
        r.setMinHeight(height);
        r.setPrefHeight(height);
        return r;
    }

    public static VBox panel(Node... children) {
        VBox box = new VBox(8, children);
        box.getStyleClass().add("panel");
        return box;
    }

    /** Words that do something when they are pressed. */
    public static Button link(String id, String text, Runnable action) {
        Button b = new Button(text);
        b.setId(id);
        b.getStyleClass().add("link");
        b.setOnAction(e -> action.run());
        return b;
    }

    public static MenuItem item(String id, String text, Runnable action) {
        MenuItem item = new MenuItem(text);
        item.setId(id);
        item.setOnAction(e -> action.run());
        return item;
    }
}
