package nightreed.desktop.stage.compare;

import java.util.List;
import javafx.scene.AccessibleRole;
import javafx.scene.canvas.GraphicsContext;
import nightreed.desktop.drawing.Drawing;
import nightreed.desktop.drawing.Palette;
import nightreed.project.Take;

/** How the distance went from take to take, and where it is now. */
final class TakeLine extends Drawing {
    private List<Take> takes = List.of();
    private double now;

    TakeLine() {
        setMinSize(150, 34);
        setMaxSize(150, 34);
        setAccessibleRole(AccessibleRole.IMAGE_VIEW);
        setAccessibleText("Distance from take to take");
    }

    void show(List<Take> all, double totalJnd) {
        takes = all.stream().filter(Take::isCompared).toList();
        now = totalJnd;
        redraw();
    }

    @Override
    protected void paint(GraphicsContext g, double w, double h) {
        g.clearRect(0, 0, w, h);
        int n = takes.size() + 1;
        if (n < 2) {
            return;
        }
        double most = Math.max(1, now);
        for (Take t : takes) {
            most = Math.max(most, t.totalJnd());
        }
        g.setStroke(Palette.of(g).imitation());
        g.setFill(Palette.of(g).imitation());
        g.setLineWidth(1.5);
        double lastX = 0;
        double lastY = 0;
        for (int i = 0; i < n; i++) {
            double jnd = i < takes.size() ? takes.get(i).totalJnd() : now;
            double x = 6 + (w - 12) * i / (n - 1);
            double y = h - 6 - (h - 12) * jnd / most;
            if (i > 0) {
                g.strokeLine(lastX, lastY, x, y);
            }
            g.fillOval(x - 2.5, y - 2.5, 5, 5);
            lastX = x;
            lastY = y;
        }
    }
}
