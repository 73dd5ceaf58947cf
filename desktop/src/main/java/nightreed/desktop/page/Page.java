package nightreed.desktop.page;

import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;

/** A page with a title, a way back, and contents that scroll. */
public abstract class Page extends BorderPane {
    private final ScrollPane scroll = new ScrollPane();
    private final Button back = new Button("Back (Escape)");

    /** @param leave called to go back to where one was */
    protected Page(String title, Runnable leave) {
        getStyleClass().add("page");
        Label name = new Label(title);
        name.getStyleClass().add("page-title");
        back.getStyleClass().add("link");
        back.setId("page-back");
        back.setOnAction(e -> leave.run());
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        setTop(new HBox(8, name, gap, back));
        scroll.setFitToWidth(true);
        setCenter(scroll);
    }

    protected final void setContents(Node contents) {
        scroll.setContent(contents);
        scroll.setVvalue(0);
    }

    /** Over a part of the page. */
    protected static Label heading(String text) {
        Label l = new Label(text);
        l.getStyleClass().add("page-heading");
        return l;
    }

    /** What explains something. */
    protected static Label quiet(String text) {
        Label l = new Label(text);
        l.getStyleClass().add("quiet");
        l.setWrapText(true);
        return l;
    }

    /** A name, and what belongs to it. */
    protected static HBox row(String name, Node... controls) {
        Label l = new Label(name);
        l.getStyleClass().add("body");
        l.setMinWidth(190);
        HBox row = new HBox(10, l);
        row.getChildren().addAll(controls);
        row.setAlignment(Pos.CENTER_LEFT);
        return row;
    }

    /** Scrolls so that a part of the contents stands at the top. */
    protected final void scrollTo(Node part) {
        applyCss();
        layout();
        double all = scroll.getContent().getBoundsInLocal().getHeight();
        double room = scroll.getViewportBounds().getHeight();
        scroll.setVvalue(all <= room ? 0 : Math.min(1, part.getBoundsInParent().getMinY() / (all - room)));
    }

    /** Called when the page comes to the front; puts the keyboard where one would begin. */
    public void arrive() {
        back.requestFocus();
    }
}
