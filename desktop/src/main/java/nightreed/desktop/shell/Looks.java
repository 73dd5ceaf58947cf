package nightreed.desktop.shell;

import atlantafx.base.theme.PrimerDark;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.logging.Logger;
import javafx.animation.AnimationTimer;
import javafx.application.Application;
import javafx.scene.Node;
import javafx.scene.Scene;
import nightreed.desktop.drawing.Drawing;
import nightreed.desktop.drawing.Palette;
import nightreed.desktop.settings.Preferences.Look;

/**
 * Night and day: a style class for the controls and ink for the drawings, worn by each part of the window by itself. A change
 * of look goes through the parts one a frame, what is seen first, because to style the whole window anew at once would hold
 * it up for a quarter of a second.
 */
final class Looks {
    /**
     * Shapes of the controls. Its light sister differs in colours only, all of which come from our own sheets; and to read
     * another theme takes a tenth of a second.
     */
    private static final String THEME = new PrimerDark().getUserAgentStylesheet();

    /** Kept here, as the logging of the platform would forget what is set on it. */
    private static final Logger STYLING = Logger.getLogger("javafx.css");

    private final Set<Node> parts = new LinkedHashSet<>();
    private final List<Node> old = new ArrayList<>(); // parts that do not wear the look yet
    private final AnimationTimer partByPart = new AnimationTimer() {
        @Override
        public void handle(long now) {
            next();
        }
    };
    private Look look;

    Looks(Look look) {
        this.look = look;
    }

    /** Gives a scene our sheets and all parts the look that it begins with. */
    void begin(Scene scene, Look first) {
        STYLING.setFilter(record -> !ofAMenu(record.getMessage()));
        look = first;
        parts.forEach(this::wear);
        if (!THEME.equals(Application.getUserAgentStylesheet())) {
            Application.setUserAgentStylesheet(THEME);
        }
        scene.getStylesheets().setAll(sheet("night.css"), sheet("day.css"), sheet("look.css"));
        scene.setFill(ink().ground());
    }

    /**
     * A menu is measured, and so styled, once before it has an owner to look colours up from, and again when it has. What
     * is said the first time is no fault of a sheet.
     */
    private static boolean ofAMenu(String message) {
        return message != null && (message.contains("*.context-menu") || message.contains("*.menu-"));
    }

    /** Takes a node with all that is in it as a part, in the look of now. The node must not be within another part. */
    void add(Node part) {
        if (parts.add(part)) {
            wear(part);
        }
    }

    /** Forgets a part that has left the window. */
    void remove(Node part) {
        parts.remove(part);
        old.remove(part);
    }

    /** Begins to change all parts; those that are seen come first. */
    void change(Scene scene, Look next) {
        look = next;
        scene.setFill(ink().ground());
        old.clear();
        old.addAll(parts);
        old.sort((a, b) -> Boolean.compare(b.isVisible(), a.isVisible()));
        partByPart.start();
    }

    /** Has a part wear the look at once, as it is about to be seen. */
    void ready(Node part) {
        if (old.remove(part)) {
            wear(part);
        }
    }

    private void next() {
        if (old.isEmpty()) {
            partByPart.stop();
        } else {
            wear(old.remove(0));
        }
    }

    private void wear(Node part) {
        ink().fill(part);
        Collection<String> all = List.of(styleClass(Look.NIGHT), styleClass(Look.DAY));
        List<String> worn = new ArrayList<>(part.getStyleClass());
        worn.removeAll(all);
        worn.add(styleClass(look));
        part.getStyleClass().setAll(worn); // one change, so that it is styled once
        Drawing.redrawAll(part);
    }

    private Palette ink() {
        return look == Look.NIGHT ? Palette.NIGHT : Palette.DAY;
    }

    private static String styleClass(Look look) {
        return look == Look.NIGHT ? "night" : "day";
    }

    private static String sheet(String name) {
        return Objects.requireNonNull(Looks.class.getResource("/nightreed/desktop/" + name), name)
                .toExternalForm();
    }
}
