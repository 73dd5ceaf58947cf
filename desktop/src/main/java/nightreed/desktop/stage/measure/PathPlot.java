package nightreed.desktop.stage.measure;

import java.util.Arrays;
import java.util.Locale;
import javafx.scene.AccessibleRole;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.text.TextAlignment;
import nightreed.desktop.drawing.Drawing;
import nightreed.desktop.drawing.Palette;

/** Something over time, and, dashed, what was fitted to it. */
final class PathPlot extends Drawing {
    /**
     * What is shown.
     *
     * @param title   heading
     * @param seconds times [s]
     * @param values  values there; NaN leaves a gap
     * @param fitted  what was fitted, as many values, or null
     * @param low     lower end of the scale
     * @param high    upper end of the scale
     * @param unit    unit of the values
     * @param words   what it says, a line each
     */
    record Path(
            String title,
            double[] seconds,
            double[] values,
            double[] fitted,
            double low,
            double high,
            String unit,
            String words) {}

    private Path path;

    PathPlot() {
        setAccessibleRole(AccessibleRole.IMAGE_VIEW);
        setAccessibleText("A path over time");
    }

    void show(Path p) {
        path = p;
        setAccessibleText(p == null ? "Nothing to show" : p.title() + ". " + p.words());
        redraw();
    }

    @Override
    protected void paint(GraphicsContext g, double w, double h) {
        ground(g, w, h);
        if (path == null || path.seconds().length < 2 || w < 80) {
            instead(g, "Not measurable in this recording.");
            return;
        }
        heading(g, path.title());
        double left = 56;
        double right = w - 14;
        double top = 36;
        String[] words = path.words().split("\n");
        words = h < 150 ? Arrays.copyOf(words, 1) : words; // the picture comes first
        double bottom = h - 30 - 16 * words.length;
        double from = path.seconds()[0];
        double to = path.seconds()[path.seconds().length - 1];
        g.setFont(Palette.figuresFont(11));
        g.setLineWidth(1);
        for (int q = 0; q <= 3; q++) {
            double v = path.low() + (path.high() - path.low()) * q / 3;
            double y = bottom - (bottom - top) * q / 3;
            g.setStroke(Palette.of(g).grid());
            g.strokeLine(left, y, right, y);
            g.setFill(Palette.of(g).quiet());
            g.setTextAlign(TextAlignment.RIGHT);
            g.fillText(
                    String.format(Locale.ROOT, Math.abs(path.high() - path.low()) < 3 ? "%.1f" : "%.0f", v),
                    left - 8,
                    y);
            g.setTextAlign(TextAlignment.CENTER);
            double t = from + (to - from) * q / 3;
            double x = Math.max(left + 14, Math.min(right - 18, left + (right - left) * q / 3));
            g.fillText(
                    to - from < 0.3
                            ? String.format(Locale.ROOT, "%.0f ms", 1000 * t)
                            : String.format(Locale.ROOT, "%.2f s", t),
                    x,
                    bottom + 12);
        }
        g.setTextAlign(TextAlignment.RIGHT);
        g.fillText(path.unit(), right, 18);
        g.setStroke(Palette.of(g).recording());
        g.setLineWidth(1.6);
        line(g, path.values(), left, right, top, bottom);
        if (path.fitted() != null) {
            g.setStroke(Palette.of(g).text());
            g.setLineWidth(1.2);
            g.setLineDashes(5, 4);
            line(g, path.fitted(), left, right, top, bottom);
            g.setLineDashes();
        }
        g.setTextAlign(TextAlignment.LEFT);
        g.setFill(Palette.of(g).text());
        for (int i = 0; i < words.length; i++) {
            g.fillText(words[i], 14, h - 14 - 16 * (words.length - 1 - i));
        }
    }

    private void line(GraphicsContext g, double[] v, double left, double right, double top, double bottom) {
        double from = path.seconds()[0];
        double span = path.seconds()[path.seconds().length - 1] - from;
        boolean down = false;
        g.beginPath();
        int stride = Math.max(1, v.length / (int) (right - left)); // more points than pixels only cost time
        for (int i = 0; i < v.length; i += stride) {
            if (Double.isNaN(v[i])) {
                down = false;
                continue;
            }
            double x = left + (right - left) * (path.seconds()[i] - from) / span;
            double share = (v[i] - path.low()) / (path.high() - path.low());
            double y = bottom - (bottom - top) * Math.max(-0.02, Math.min(1.02, share));
            if (down) {
                g.lineTo(x, y);
            } else {
                g.moveTo(x, y);
            }
            down = true;
        }
        g.stroke();
    }
}
