package nightreed.desktop.shape;

import java.util.List;
import javafx.geometry.Point2D;
import javafx.scene.AccessibleRole;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;
import nightreed.desktop.drawing.Drawing;
import nightreed.desktop.drawing.Palette;

/** A drawing with handles: drag them, or choose one with Enter and move it by arrow keys (Shift fine). */
public abstract class Handled extends Drawing {
    private static final double NEAR = 14;
    private static final double FINE = 0.25;
    private static final double COARSE = 4;
    private int chosen;
    private boolean dragging;
    private double offsetX; // of the hand from the handle
    private double offsetY;

    /** A point that can be moved. @param name what it stands for, with its value */
    protected record Handle(String name, double x, double y, Moved moved) {}

    /** What moving a handle does. */
    @FunctionalInterface
    protected interface Moved {
        /** @param settled whether the hand has let go */
        void to(double x, double y, boolean settled);
    }

    protected Handled(String what) {
        setAccessibleRole(AccessibleRole.SLIDER);
        setAccessibleText(what);
        setFocusTraversable(true);
        getStyleClass().add("ruler-line");
        focusedProperty().addListener((o, a, b) -> redraw());
        setOnMousePressed(this::press);
        setOnMouseDragged(e -> move(e.getX() + offsetX, e.getY() + offsetY, false));
        setOnMouseReleased(e -> {
            if (dragging) {
                move(e.getX() + offsetX, e.getY() + offsetY, true);
                dragging = false;
                redraw();
            }
        });
        setOnKeyPressed(this::key);
    }

    /** Handles as they lie now. */
    protected abstract List<Handle> handles(double width, double height);

    /** Where a handle lies. */
    public final Point2D handleAt(int i) {
        Handle h = handles(getWidth(), getHeight()).get(i);
        return new Point2D(h.x(), h.y());
    }

    /** Whether a handle is held: scales must stay as they are. */
    protected final boolean held() {
        return dragging;
    }

    private void press(MouseEvent e) {
        requestFocus();
        List<Handle> all = handles(getWidth(), getHeight());
        double nearest = NEAR;
        for (int i = 0; i < all.size(); i++) {
            double d = Math.hypot(all.get(i).x() - e.getX(), all.get(i).y() - e.getY());
            if (d < nearest) {
                nearest = d;
                chosen = i;
                dragging = true;
                offsetX = all.get(i).x() - e.getX();
                offsetY = all.get(i).y() - e.getY();
            }
        }
        if (!dragging && e.getClickCount() == 2) {
            twice(e.getX(), e.getY());
        }
        redraw();
    }

    /** A double click beside all handles. */
    protected void twice(double x, double y) {}

    private void move(double x, double y, boolean settled) {
        List<Handle> all = handles(getWidth(), getHeight());
        if (dragging && chosen < all.size()) {
            all.get(chosen).moved().to(x, y, settled);
            tell();
        }
    }

    private void key(KeyEvent e) {
        List<Handle> all = handles(getWidth(), getHeight());
        if (all.isEmpty()) {
            return;
        }
        chosen %= all.size();
        double step = e.isShiftDown() ? FINE : COARSE;
        double dx = e.getCode() == KeyCode.RIGHT ? step : e.getCode() == KeyCode.LEFT ? -step : 0;
        double dy = e.getCode() == KeyCode.DOWN ? step : e.getCode() == KeyCode.UP ? -step : 0;
        if (e.getCode() == KeyCode.ENTER && !e.isControlDown()) {
            chosen = (chosen + (e.isShiftDown() ? all.size() - 1 : 1)) % all.size();
            e.consume();
        } else if ((dx != 0 || dy != 0) && !e.isAltDown()) {
            Handle h = all.get(chosen);
            h.moved().to(h.x() + dx, h.y() + dy, true);
            e.consume();
        }
        tell();
        redraw();
    }

    private void tell() {
        List<Handle> all = handles(getWidth(), getHeight());
        if (chosen < all.size()) {
            setAccessibleRoleDescription(all.get(chosen).name());
        }
    }

    /** Draws the handles over everything; the chosen one says what it is. */
    protected final void paintHandles(GraphicsContext g, double w, double h) {
        List<Handle> all = handles(w, h);
        for (int i = 0; i < all.size(); i++) {
            Handle k = all.get(i);
            boolean on = i == chosen && (isFocused() || dragging);
            g.setFill(on ? Palette.of(g).imitation() : Palette.of(g).panel());
            g.setStroke(Palette.of(g).imitation());
            g.setLineWidth(1.6);
            double r = on ? 5.5 : 4.5;
            double[] xs = {k.x() - r, k.x(), k.x() + r, k.x()};
            double[] ys = {k.y(), k.y() - r, k.y(), k.y() + r};
            g.fillPolygon(xs, ys, 4);
            g.strokePolygon(xs, ys, 4);
        }
        if (chosen < all.size() && (isFocused() || dragging)) {
            heading(g, all.get(chosen).name());
        } else {
            heading(g, title());
        }
    }

    /** What it is, with its values. */
    protected abstract String title();
}
