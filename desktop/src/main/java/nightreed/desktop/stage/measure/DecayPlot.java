package nightreed.desktop.stage.measure;

import java.util.Locale;
import javafx.scene.AccessibleRole;
import javafx.scene.canvas.GraphicsContext;
import nightreed.desktop.drawing.Drawing;
import nightreed.desktop.drawing.PlotArea;
import nightreed.match.sound.AnalysedSound;
import nightreed.measure.partial.Partial;

/** How one partial dies: the level at its frequency over time, and the fitted line. */
final class DecayPlot extends Drawing {
    private static final double LOW_DB = -80;
    private static final int LAW_POINTS = 61;

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
        double seconds = levels.length * step + middle;
        PlotArea area = PlotArea.within(w, h, 1, PlotArea.Scale.even(0, seconds), PlotArea.Scale.even(LOW_DB, 0));
        for (int db = 0; db > LOW_DB; db -= 20) {
            area.level(g, db, Integer.toString(db));
        }
        area.times(g);
        area.unit(g, "dB");
        area.measured(g, levels.length, k -> k * step + middle, k -> levels[k]);
        if (partial.t60Seconds() != null) {
            area.fitted(g, LAW_POINTS, k -> seconds * k / (LAW_POINTS - 1), k -> {
                double db = partial.levelDbAt(seconds * k / (LAW_POINTS - 1)) - partial.levelDb();
                return db < LOW_DB ? Double.NaN : db;
            });
        }
        PlotArea.words(g, h, words());
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
