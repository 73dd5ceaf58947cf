package nightreed.desktop.stage.measure;

import java.util.Locale;
import java.util.function.DoubleFunction;
import java.util.function.ToDoubleFunction;
import javafx.scene.AccessibleRole;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.text.TextAlignment;
import nightreed.desktop.drawing.Drawing;
import nightreed.desktop.drawing.Palette;
import nightreed.desktop.drawing.PlotArea;
import nightreed.measure.Measurement;
import nightreed.measure.NoteSet;

/** All notes of an instrument: decay against pitch on the left, brightness against strength on the right. */
final class NotesPlot extends Drawing {
    private NoteSet notes;
    private String instead = "";

    NotesPlot() {
        setAccessibleRole(AccessibleRole.IMAGE_VIEW);
        setAccessibleText("All notes of the instrument");
    }

    void say(String text) {
        notes = null;
        instead = text;
        setAccessibleText("All notes of the instrument. " + text);
        redraw();
    }

    void show(NoteSet set) {
        notes = set;
        setAccessibleText("All notes of the instrument. " + decayWords() + ". " + brightnessWords()
                + (set.commonCents() == null ? "" : ". " + sharedWords()));
        redraw();
    }

    private String decayWords() {
        return notes.decay() == null
                ? "too few keys for a law of decay"
                : String.format(
                        Locale.ROOT,
                        "T60 ~ f^%.2f ± %.2f",
                        -notes.decay().exponent(),
                        2 * notes.decay().exponentSe());
    }

    private String brightnessWords() {
        return notes.brightnessOctavesPer10Db() == null
                ? "too few strengths"
                : String.format(
                        Locale.ROOT,
                        "%+.2f ± %.2f oct per 10 dB",
                        notes.brightnessOctavesPer10Db(),
                        2 * notes.brightnessSe());
    }

    private String sharedWords() {
        return String.format(
                Locale.ROOT,
                "all %+.0f cents off: played at %.4f times the speed, or tuned so",
                notes.commonCents(),
                Math.pow(2, notes.commonCents() / 1200));
    }

    @Override
    protected void paint(GraphicsContext g, double w, double h) {
        ground(g, w, h);
        if (notes == null || notes.notes().size() < 2 || w < 160) {
            instead(g, notes == null ? instead : "Fewer than two of the notes have a pitch.");
            return;
        }
        boolean shared = notes.commonCents() != null;
        double bottom = h - (shared ? 60 : 44);
        double half = w / 2;
        heading(g, "Decay over pitch");
        g.fillText("Brightness over level", half + 8, 18);
        dots(
                g,
                new double[] {14, half - 10, bottom},
                m -> Math.log(m.f0Hz()),
                m -> m.strongest().t60Seconds() == null
                        ? Double.NaN
                        : Math.log(m.strongest().t60Seconds()),
                v -> String.format(Locale.ROOT, "%.0f Hz", Math.exp(v)),
                v -> String.format(Locale.ROOT, "%.2f s", Math.exp(v)));
        dots(
                g,
                new double[] {half + 8, w - 14, bottom},
                NoteSet::levelDb,
                m -> m.brightness() == null ? Double.NaN : NoteSet.brightnessOctaves(m),
                v -> String.format(Locale.ROOT, "%.0f dB", v),
                v -> String.format(Locale.ROOT, "%.1f oct", v));
        g.setTextAlign(TextAlignment.LEFT);
        g.setFill(Palette.of(g).text());
        g.fillText(decayWords(), 14, bottom + 30);
        g.fillText(brightnessWords(), half + 8, bottom + 30);
        if (shared) {
            g.fillText(sharedWords(), 14, bottom + 46);
        }
    }

    /**
     * Dots over two axes.
     *
     * @param place left and right end of the lower axis, and its height
     * @param atX   words for a value of the lower axis
     * @param atY   words for a value of the other
     */
    private void dots(
            GraphicsContext g,
            double[] place,
            ToDoubleFunction<Measurement> across,
            ToDoubleFunction<Measurement> up,
            DoubleFunction<String> atX,
            DoubleFunction<String> atY) {
        double left = place[0];
        double right = place[1];
        double bottom = place[2];
        double top = 38;
        double[] x = notes.notes().stream().mapToDouble(across).toArray();
        double[] y = notes.notes().stream().mapToDouble(up).toArray();
        double[] xs = range(x);
        double[] ys = range(y);
        g.setStroke(Palette.of(g).scale());
        g.setLineWidth(1);
        g.strokeLine(left, bottom, right, bottom);
        g.setFont(Palette.figuresFont(11));
        g.setFill(Palette.of(g).quiet());
        g.setTextAlign(TextAlignment.LEFT);
        g.fillText(atX.apply(xs[0]), left, bottom + 12);
        g.setTextAlign(TextAlignment.RIGHT);
        g.fillText(atX.apply(xs[1]), right, bottom + 12);
        g.fillText(atY.apply(ys[1]), right, top - 4);
        PlotArea area = new PlotArea(
                left + 4,
                right - 4,
                top + 4,
                bottom - 4,
                PlotArea.Scale.even(xs[0], xs[1]),
                PlotArea.Scale.even(ys[0], ys[1]));
        g.setFill(Palette.of(g).recording());
        for (int i = 0; i < x.length; i++) {
            if (!Double.isNaN(y[i])) {
                g.fillOval(area.x(x[i]) - 3.5, area.y(y[i]) - 3.5, 7, 7);
            }
        }
    }

    private static double[] range(double[] v) {
        double low = Double.POSITIVE_INFINITY;
        double high = Double.NEGATIVE_INFINITY;
        for (double d : v) {
            if (!Double.isNaN(d)) {
                low = Math.min(low, d);
                high = Math.max(high, d);
            }
        }
        double pad = Math.max(0.05 * (high - low), 1e-3);
        return new double[] {low - pad, high + pad};
    }
}
