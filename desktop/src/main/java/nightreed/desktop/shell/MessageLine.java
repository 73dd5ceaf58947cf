package nightreed.desktop.shell;

import java.util.function.Consumer;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;

/** Tells under the top line what went wrong, or what F1 answers; not there while there is nothing to tell. */
final class MessageLine extends HBox {
    private final Label text = new Label();
    private final Button readMore = new Button("Read more");
    private String chapter = "index";

    /**
     * @param dismiss what puts a message away
     * @param guide   opens the guide at a chapter
     */
    MessageLine(Runnable dismiss, Consumer<String> guide) {
        super(10);
        text.setWrapText(true);
        text.setId("message");
        Button away = new Button("put away");
        away.getStyleClass().add("link");
        away.setMinWidth(Region.USE_PREF_SIZE);
        away.setId("dismiss-message");
        away.setOnAction(e -> dismiss.run());
        HBox.setHgrow(text, Priority.ALWAYS);
        text.setMaxWidth(Double.MAX_VALUE);
        readMore.getStyleClass().add("link");
        readMore.setId("read-more");
        readMore.setMinWidth(Region.USE_PREF_SIZE);
        readMore.setOnAction(e -> {
            clear();
            guide.accept(chapter);
        });
        getChildren().addAll(text, readMore, away);
        setAlignment(Pos.CENTER_LEFT);
        clear();
    }

    /** @param words what went wrong; null for nothing */
    void say(String words) {
        show(words, false);
    }

    void answer(Help.Answer a) {
        chapter = a.target();
        show(a.words(), true);
    }

    void clear() {
        show(null, false);
    }

    private void show(String words, boolean help) {
        text.setText(words == null ? "" : words);
        readMore.setVisible(help);
        readMore.setManaged(help);
        getStyleClass().setAll(help ? "info" : "message");
        setVisible(words != null);
        setManaged(words != null);
    }
}
