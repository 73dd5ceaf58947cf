package nightreed.desktop.shell;

import atlantafx.base.theme.PrimerDark;
import java.util.List;
import java.util.Objects;
import javafx.application.Application;
import javafx.scene.Scene;
import nightreed.desktop.drawing.Drawing;
import nightreed.desktop.drawing.Ink;
import nightreed.desktop.settings.Preferences.Look;

/** Night and day: style sheets for the controls, ink for the drawings. */
public final class Looks {
    /**
     * Shapes of the controls. Its light sister differs in colours only, all of which come from our own sheets; and to read
     * another theme takes a tenth of a second.
     */
    private static final String THEME = new PrimerDark().getUserAgentStylesheet();

    private Looks() {}

    public static void apply(Scene scene, Look look) {
        boolean night = look == Look.NIGHT;
        if (!THEME.equals(Application.getUserAgentStylesheet())) {
            Application.setUserAgentStylesheet(THEME);
        }
        (night ? Ink.NIGHT : Ink.DAY).fill(scene);
        String colours = sheet(night ? "night.css" : "day.css");
        if (scene.getStylesheets().isEmpty()) {
            scene.getStylesheets().setAll(List.of(colours, sheet("look.css")));
        } else {
            scene.getStylesheets().set(0, colours); // the rules stay, and need not be read again
        }
        scene.setFill((night ? Ink.NIGHT : Ink.DAY).ground());
        Drawing.redrawAll(scene.getRoot());
    }

    private static String sheet(String name) {
        return Objects.requireNonNull(Looks.class.getResource("/nightreed/desktop/" + name), name)
                .toExternalForm();
    }
}
