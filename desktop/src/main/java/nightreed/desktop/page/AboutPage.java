package nightreed.desktop.page;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import javafx.geometry.Insets;
import javafx.scene.control.Label;
import javafx.scene.control.TitledPane;
import javafx.scene.layout.VBox;
import nightreed.cli.ProgramVersion;

/** What this program is, and the licences of what is in it. */
public final class AboutPage extends Page {
    public AboutPage(Runnable leave) {
        super("About Night Reed", leave);
        VBox box = new VBox(
                12,
                body("Version " + ProgramVersion.number()
                        + ". A bench for imitating acoustic instruments with synthesis. Apache License 2.0."),
                body(
                        "With: OpenJFX (GPL 2 with classpath exception), AtlantaFX (MIT), JTransforms (BSD 2-clause), EJML and"
                                + " Hipparchus (Apache 2.0), Jackson (Apache 2.0), picocli (Apache 2.0), Apache Commons CSV (Apache"
                                + " 2.0), SQLite JDBC (Apache 2.0), jFLAC, JOrbis and JLayer (LGPL 2.1), commonmark-java"
                                + " (BSD 2-clause), SLF4J (MIT)."),
                body("Fonts: IBM Plex Sans and JetBrains Mono, SIL Open Font License 1.1."),
                licence("Licence of Night Reed", "/nightreed/desktop/LICENSE"),
                licence("Licence of IBM Plex Sans", "/nightreed/desktop/fonts/IBMPlexSans-OFL.txt"),
                licence("Licence of JetBrains Mono", "/nightreed/desktop/fonts/JetBrainsMono-OFL.txt"));
        box.setPadding(new Insets(14, 10, 20, 0));
        box.setMaxWidth(820);
        setContents(box);
    }

    private static Label body(String text) {
        Label l = new Label(text);
        l.getStyleClass().add("body");
        l.setWrapText(true);
        return l;
    }

    /** Folded until it is asked for, and read only then. */
    private static TitledPane licence(String title, String resource) {
        Label words = new Label();
        words.getStyleClass().add("code-block");
        TitledPane pane = new TitledPane(title, words);
        pane.setExpanded(false);
        pane.setAnimated(false);
        pane.expandedProperty().addListener((o, was, is) -> words.setText(is ? text(resource) : ""));
        return pane;
    }

    private static String text(String resource) {
        try (InputStream in = AboutPage.class.getResourceAsStream(resource)) {
            return in == null ? "missing from the program" : new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            return "could not be read: " + e.getMessage();
        }
    }
}
