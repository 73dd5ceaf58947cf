package nightreed.desktop.stage.measure;

import java.util.Arrays;
import java.util.Locale;
import javafx.scene.AccessibleRole;
import javafx.scene.canvas.GraphicsContext;
import nightreed.desktop.drawing.Drawing;
import nightreed.desktop.drawing.PlotArea;

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
        String[] words = path.words().split("\n");
        words = h < 150 ? Arrays.copyOf(words, 1) : words; // the picture comes first
        double[] t = path.seconds();
        PlotArea area = PlotArea.within(
                w,
                h,
                words.length,
                PlotArea.Scale.even(t[0], t[t.length - 1]),
                PlotArea.Scale.even(path.low(), path.high()));
        String figure = Math.abs(path.high() - path.low()) < 3 ? "%.1f" : "%.0f";
        for (int q = 0; q <= 3; q++) {
            double v = area.up().at(q / 3.0);
            area.level(g, v, String.format(Locale.ROOT, figure, v));
        }
        area.times(g);
        area.unit(g, path.unit());
        area.measured(g, t.length, i -> t[i], i -> path.values()[i]);
        if (path.fitted() != null) {
            area.fitted(g, t.length, i -> t[i], i -> path.fitted()[i]);
        }
        PlotArea.words(g, h, words);
    }
}
