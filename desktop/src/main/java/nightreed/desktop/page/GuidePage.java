package nightreed.desktop.page;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.Map;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.VBox;

/** The guide: the files of docs/guide, which are part of the program. */
public final class GuidePage extends Page {
    /** Files in reading order, with what they are called at the side. */
    private static final Map<String, String> CHAPTERS = new LinkedHashMap<>();

    static {
        CHAPTERS.put("index", "Contents");
        CHAPTERS.put("first-note", "First note");
        CHAPTERS.put("brief", "Brief");
        CHAPTERS.put("measure", "Measure");
        CHAPTERS.put("build", "Build");
        CHAPTERS.put("compare", "Compare");
        CHAPTERS.put("play", "Play");
        CHAPTERS.put("keep", "Keep");
        CHAPTERS.put("listening", "Listening");
        CHAPTERS.put("projects", "Projects");
        CHAPTERS.put("preferences", "Preferences");
        CHAPTERS.put("keys", "Keys");
        CHAPTERS.put("words", "Words used");
        CHAPTERS.put("command-line", "Command line");
    }

    private final Map<String, Button> side = new LinkedHashMap<>();
    private String chapter = "index";
    private String shown = "";

    public GuidePage(Runnable leave) {
        super("Guide", leave);
        VBox list = new VBox(2);
        list.setPadding(new Insets(10, 18, 0, 0));
        CHAPTERS.forEach((file, title) -> {
            Button b = new Button(title);
            b.getStyleClass().add("row");
            b.setId("guide-" + file);
            b.setMaxWidth(Double.MAX_VALUE);
            b.setAlignment(Pos.CENTER_LEFT);
            b.setOnAction(e -> open(file));
            side.put(file, b);
            list.getChildren().add(b);
        });
        ScrollPane chapters = new ScrollPane(list);
        chapters.setFitToWidth(true);
        chapters.setFocusTraversable(false);
        chapters.setMinHeight(0);
        setLeft(chapters);
        open("index");
    }

    /** The chapter that is open. */
    public String chapter() {
        return chapter;
    }

    /** Opens a chapter, or a part of it after a '#'. Unknown names open the contents. */
    public void open(String target) {
        if (target.equals(shown)) {
            return;
        }
        shown = target;
        String[] parts = target.replace(".md", "").split("#", 2);
        chapter = CHAPTERS.containsKey(parts[0]) ? parts[0] : "index";
        Prose prose = new Prose(text(chapter), this::open);
        VBox contents = prose.node();
        contents.setPadding(new Insets(10, 20, 30, 6));
        contents.setMaxWidth(760);
        setContents(contents);
        side.forEach((file, b) -> {
            b.getStyleClass().remove("page-chosen");
            if (file.equals(chapter)) {
                b.getStyleClass().add("page-chosen");
            }
        });
        Node part = parts.length > 1 ? prose.anchor(parts[1]) : null;
        if (part != null) {
            scrollTo(part);
        }
    }

    @Override
    public void arrive() {
        side.get(chapter).requestFocus();
    }

    private static String text(String file) {
        try (InputStream in = GuidePage.class.getResourceAsStream("/nightreed/desktop/guide/" + file + ".md")) {
            return in == null
                    ? "# Not here\n\nThis chapter is missing from the program."
                    : new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            return "# Not here\n\nThis chapter could not be read: " + e.getMessage();
        }
    }
}
