package nightreed.desktop.page;

import javafx.geometry.Insets;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.VBox;

/** The first words: what this is for, three ways to begin, and a word on ears. */
public final class WelcomePage extends Page {
    private final Button first;

    /** Ways to begin. */
    public interface Ways {
        void recording();

        void room();

        void demo();
    }

    public WelcomePage(Ways ways, Runnable leave) {
        super("Welcome to Night Reed", leave);
        first = way("Bring in a recording", "A note of the instrument you want to imitate: a file or the microphone.");
        first.setOnAction(e -> ways.recording());
        first.setId("welcome-recording");
        Button room = way(
                "Have one played",
                "A simulated player in the recording room plays a bar, a bell, a horn or a string for you.");
        room.setOnAction(e -> ways.room());
        room.setId("welcome-room");
        Button demo =
                way("Open the demo", "The Salt Lantern, a radio serial whose instruments drowned with the cargo.");
        demo.setOnAction(e -> ways.demo());
        demo.setId("welcome-demo");
        VBox box = new VBox(
                14,
                text(
                        "body",
                        "Put a recorded note on the bench. It is measured, imitated by synthesis with every value computed,"
                                + " and played against the recording at equal loudness; you are told what a listener would"
                                + " still notice, and which value to move."),
                first,
                room,
                demo,
                text("page-heading", "Your ears"),
                text(
                        "body",
                        "Resonant sounds can jump in level. The volume starts low, and nothing passes -1 dBTP, but Night"
                                + " Reed cannot measure the level at your ear: start low, rest your ears in long sessions on"
                                + " headphones, and follow the rules on noise exposure where you are."),
                text("quiet", "F1 explains whatever has the keyboard. Shift+F1 opens the guide."));
        box.setPadding(new Insets(16, 10, 10, 0));
        box.setMaxWidth(640);
        setContents(box);
    }

    private static Button way(String title, String what) {
        Label name = text("heading", title);
        Label more = text("quiet", what);
        more.setWrapText(false); // a button would make room for one word a line
        name.setWrapText(false);
        Button b = new Button();
        b.setGraphic(new VBox(3, name, more));
        b.setAccessibleText(title + ". " + what);
        b.setMaxWidth(Double.MAX_VALUE);
        b.setAlignment(javafx.geometry.Pos.CENTER_LEFT);
        b.setPadding(new Insets(12, 16, 12, 16));
        return b;
    }

    private static Label text(String style, String words) {
        Label l = new Label(words);
        l.getStyleClass().add(style);
        l.setWrapText(true);
        return l;
    }

    @Override
    public void arrive() {
        Node n = first;
        n.requestFocus();
    }
}
