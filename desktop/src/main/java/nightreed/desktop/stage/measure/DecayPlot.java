package nightreed.desktop.stage.measure;

import java.util.Locale;
import javafx.scene.AccessibleRole;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.text.TextAlignment;
import nightreed.desktop.drawing.Drawing;
import nightreed.desktop.drawing.Palette;
import nightreed.match.sound.AnalysedSound;
import nightreed.measure.partial.Partial;

/** How one partial dies: the level at its frequency over time, and the fitted line. */
final class DecayPlot extends Drawing {
    private static final double LOW_DB = -80;
    private Partial partial;
    private String name;
    private double[] levels = {}; // dB re the partial's onset level, per step
    private double step;
    private double middle; // of the window, after its start [s]

    DecayPlot() {
        setAccessibleRole(AccessibleRole.IMAGE_VIEW);
        setAccessibleText("Decay of the selected partial");
    }

    void show(AnalysedSound side, Partial p, String partialName) {
        partial = p;
        name = partialName;
        levels = side == null || p == null ? new double[0] : follow(side, p);
        redraw();
    }

    /** Level at the partial's frequency, by windows long enough to keep its neighbours out. */
    private double[] follow(AnalysedSound side, Partial p) {
        double fs = side.clip().sampleRateHz();
        double[] x = side.clip().mixed();
        int onset = (int) (side.measurement().onsetSeconds() * fs);
        double t60 = p.t60Seconds() == null ? 1 : p.t60Seconds();
        double window = Math.max(6 / p.frequencyHz(), Math.min(0.06, t60 / 6));
        middle = window / 2;
        double span = Math.min((x.length - onset) / fs - window, 1.6 * t60);
        int count = 120;
        double[] out = new double[count];
        step = Math.max(1e-4, span / count);
        int n = (int) (window * fs);
        double turnRe = Math.cos(2 * Math.PI * p.frequencyHz() / fs);
        double turnIm = Math.sin(2 * Math.PI * p.frequencyHz() / fs);
        double[] window0 = new double[n];
        double sum = 0;
        for (int i = 0; i < n; i++) {
            window0[i] = 0.5 - 0.5 * Math.cos(2 * Math.PI * (i + 0.5) / n);
            sum += window0[i];
        }
        for (int k = 0; k < count; k++) {
            int at = onset + (int) (k * step * fs);
            double re = 0;
            double im = 0;
            double c = 1; // turns at the partial's frequency
            double s = 0;
            for (int i = 0; i < n && at + i < x.length; i++) {
                re += window0[i] * x[at + i] * c;
                im += window0[i] * x[at + i] * s;
                double next = c * turnRe - s * turnIm;
                s = c * turnIm + s * turnRe;
                c = next;
            }
            out[k] = 20 * Math.log10(2 * Math.hypot(re, im) / Math.max(1e-9, sum) / p.amplitude() + 1e-9);
        }
        return out;
    }

    @Override
    protected void paint(GraphicsContext g, double w, double h) {
        ground(g, w, h);
        if (partial == null || levels.length == 0 || w < 80) {
            instead(g, "Choose a reed to see how it dies.");
            return;
        }
        heading(
                g,
                String.format(
                        Locale.ROOT, "%s, ratio %.3f: how it dies", name == null ? "Partial" : name, partial.ratio()));
        double left = 46;
        double right = w - 14;
        double top = 36;
        double bottom = h - 46;
        double seconds = levels.length * step + middle;
        g.setFont(Palette.figuresFont(11));
        g.setLineWidth(1);
        for (int db = 0; db > LOW_DB; db -= 20) {
            double y = top + (bottom - top) * db / LOW_DB;
            g.setStroke(Palette.of(g).grid());
            g.strokeLine(left, y, right, y);
            g.setFill(Palette.of(g).quiet());
            g.setTextAlign(TextAlignment.RIGHT);
            g.fillText(Integer.toString(db), left - 8, y);
        }
        g.setTextAlign(TextAlignment.CENTER);
        for (int q = 0; q <= 3; q++) {
            double t = seconds * q / 3;
            double x = Math.min(right - 16, left + (right - left) * q / 3);
            g.fillText(String.format(Locale.ROOT, "%.2f s", t), Math.max(left + 12, x), bottom + 12);
        }
        g.setStroke(Palette.of(g).recording());
        g.setLineWidth(1.6);
        g.beginPath();
        for (int k = 0; k < levels.length; k++) {
            double x = left + (right - left) * (k * step + middle) / seconds;
            double y = top + (bottom - top) * Math.max(LOW_DB, Math.min(3, levels[k])) / LOW_DB;
            if (k == 0) {
                g.moveTo(x, y);
            } else {
                g.lineTo(x, y);
            }
        }
        g.stroke();
        if (partial.t60Seconds() != null) {
            g.setStroke(Palette.of(g).text());
            g.setLineDashes(5, 4);
            g.setLineWidth(1.3);
            g.beginPath();
            for (int k = 0; k <= 60; k++) {
                double t = seconds * k / 60;
                double db = Math.max(LOW_DB, partial.levelDbAt(t) - partial.levelDb());
                double x = left + (right - left) * t / seconds;
                double y = top + (bottom - top) * db / LOW_DB;
                if (k == 0) {
                    g.moveTo(x, y);
                } else {
                    g.lineTo(x, y);
                }
                if (db <= LOW_DB) {
                    break;
                }
            }
            g.stroke();
            g.setLineDashes();
        }
        g.setTextAlign(TextAlignment.LEFT);
        g.setFill(Palette.of(g).text());
        g.fillText(words(), 14, h - 14);
    }

    private String words() {
        if (partial.t60Seconds() == null) {
            return "no T60: it does not die by one rate";
        }
        String t = String.format(
                Locale.ROOT,
                "T60 %.3f s ± %.3f",
                partial.t60Seconds(),
                partial.t60SeSeconds() == null ? 0 : 2 * partial.t60SeSeconds());
        if (partial.stages() != null) {
            t += String.format(
                    Locale.ROOT,
                    ", stages %.2f and %.2f s",
                    partial.stages().earlyT60Seconds(),
                    partial.stages().lateT60Seconds());
        }
        return partial.beatHz() == null ? t : t + String.format(Locale.ROOT, "   beats at %.2f Hz", partial.beatHz());
    }
}
