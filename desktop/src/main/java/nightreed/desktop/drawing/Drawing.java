package nightreed.desktop.drawing;

import javafx.geometry.VPos;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.layout.Region;
import javafx.scene.paint.Color;
import javafx.scene.text.TextAlignment;

/** A region filled by one canvas, drawn anew when its size, its scene or the look changes. */
public abstract class Drawing extends Region {
    private final Canvas canvas = new Canvas();
    private boolean stale; // something changed while it was hidden

    protected Drawing() {
        getChildren().add(canvas);
        sceneProperty().addListener((o, a, scene) -> {
            if (scene != null) {
                redraw();
            }
        });
    }

    /** Paints everything; called on the FX thread with at least a few pixels of room. */
    protected abstract void paint(GraphicsContext g, double width, double height);

    /** Draws anew. Nothing happens before there is room to draw in; what is hidden waits for {@link #freshen}. */
    public final void redraw() {
        if (canvas.getWidth() >= 10 && canvas.getHeight() >= 10) {
            stale = !shown();
            if (!stale) {
                paint(canvas.getGraphicsContext2D(), canvas.getWidth(), canvas.getHeight());
            }
        }
    }

    private boolean shown() {
        for (Node n = this; n != null; n = n.getParent()) {
            if (!n.isVisible()) {
                return false;
            }
        }
        return true;
    }

    /** Draws what should have been drawn under a node while it was hidden. To be called when a node is shown. */
    public static void freshen(Node node) {
        if (node instanceof Drawing d && d.stale) {
            d.redraw();
        }
        if (node instanceof Parent p) {
            p.getChildrenUnmodifiable().forEach(Drawing::freshen);
        }
    }

    @Override
    protected void layoutChildren() {
        if (canvas.getWidth() != getWidth() || canvas.getHeight() != getHeight()) {
            canvas.setWidth(getWidth());
            canvas.setHeight(getHeight());
            redraw();
        }
    }

    /** Draws everything under a node anew, for a change of look. */
    public static void redrawAll(Node node) {
        if (node instanceof Drawing d) {
            d.redraw();
        }
        if (node instanceof Parent p) {
            p.getChildrenUnmodifiable().forEach(Drawing::redrawAll);
        }
    }

    /** Fills the ground and rounds it off. One large round shape would look the same and be slow without a graphics card. */
    protected static void ground(GraphicsContext g, double w, double h) {
        g.setFill(Palette.of(g).panel());
        g.fillRect(0, 0, w, h);
        corners(g, w, h);
    }

    /** What a small picture is of, at its top. */
    protected static void heading(GraphicsContext g, String text) {
        words(g, Palette.of(g).text(), text);
    }

    /** What to say in place of a picture that cannot be drawn. */
    protected static void instead(GraphicsContext g, String text) {
        words(g, Palette.of(g).quiet(), text);
    }

    private static void words(GraphicsContext g, Color colour, String text) {
        g.setTextBaseline(VPos.CENTER);
        g.setTextAlign(TextAlignment.LEFT);
        g.setFont(Palette.textFont(13));
        g.setFill(colour);
        g.fillText(text, 14, 18);
    }

    protected static void corners(GraphicsContext g, double w, double h) {
        double r = 8;
        g.setFill(Palette.of(g).ground());
        for (double x : new double[] {0, w}) {
            for (double y : new double[] {0, h}) {
                double inX = x == 0 ? r : w - r;
                double inY = y == 0 ? r : h - r;
                g.beginPath();
                g.moveTo(x, inY);
                g.lineTo(x, y);
                g.lineTo(inX, y);
                g.quadraticCurveTo(x, y, x, inY);
                g.fill();
            }
        }
    }
}
