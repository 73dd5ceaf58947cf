package nightreed.desktop.stage.measure;

import java.util.List;
import java.util.Locale;
import javafx.scene.AccessibleRole;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.text.TextAlignment;
import nightreed.desktop.drawing.Drawing;
import nightreed.desktop.drawing.Palette;
import nightreed.desktop.drawing.PlotArea;
import nightreed.measure.Measurement;
import nightreed.measure.partial.Partial;
import nightreed.measure.traits.Formant;
import nightreed.measure.traits.SourceWave;
import nightreed.measure.traits.Traits;

/** Levels of the harmonics, the slope and the formants that lie over them, and the sources that may stand behind them. */
final class FormantPlot extends Drawing {
    private static final double LOW_DB = -70;

    private Measurement shown;

    FormantPlot() {
        setAccessibleRole(AccessibleRole.IMAGE_VIEW);
        setAccessibleText("Formants and source");
    }

    void show(Measurement m) {
        shown = m;
        setAccessibleText("Formants and source. " + (m == null ? "" : String.join(". ", words(m.traits()))));
        redraw();
    }

    /** What the lines say, the surest first: sources for a note that is held, the body for a string. */
    static List<String> words(Traits t) {
        List<String> out = new java.util.ArrayList<>();
        t.sources().stream().filter(s -> s.certainty() >= 0.05).limit(2).forEach(s -> out.add(source(s)));
        if (t.pluckPoint() != null) {
            out.add(String.format(
                    Locale.ROOT,
                    "plucked at %.1f ± %.1f %%, %.0f %% sure",
                    100 * t.pluckPoint().share(),
                    200 * t.pluckPoint().shareSe(),
                    100 * t.pluckPoint().certainty()));
        }
        if (t.slopeDbPerOctave() != null) {
            int n = t.formants().size();
            out.add(String.format(
                    Locale.ROOT,
                    "slope %.1f dB/oct, %s",
                    t.slopeDbPerOctave(),
                    n == 0 ? "no formant" : n == 1 ? "1 formant" : n + " formants"));
        }
        return out;
    }

    private static String source(SourceWave s) {
        String wave = s.wave() == SourceWave.Wave.OTHER
                ? "body with formants"
                : s.width() == null
                        ? s.wave().title()
                        : String.format(Locale.ROOT, "%s of %.0f %%", s.wave().title(), 100 * s.width());
        String filter = s.cutoffHz() == null
                ? ""
                : String.format(Locale.ROOT, ", %.0f dB/oct from %.0f Hz", s.rollOffDbPerOctave(), s.cutoffHz());
        return String.format(Locale.ROOT, "%s%s: %.0f %%, %.1f dB off", wave, filter, 100 * s.certainty(), s.rmsDb());
    }

    @Override
    protected void paint(GraphicsContext g, double w, double h) {
        ground(g, w, h);
        if (shown == null || shown.traits().slopeDbPerOctave() == null || lines().isEmpty() || w < 80) {
            instead(g, "Formants need eight harmonics or more.");
            return;
        }
        heading(g, "Harmonics and formants");
        List<Partial> lines = lines();
        List<String> words = words(shown.traits());
        if (h < 150 && words.size() > 1) {
            words = words.subList(0, 1); // the picture comes first
        }
        PlotArea area = PlotArea.within(
                w,
                h,
                words.size(),
                PlotArea.Scale.octaves(
                        lines.get(0).frequencyHz() / 1.3,
                        1.15 * lines.get(lines.size() - 1).frequencyHz()),
                PlotArea.Scale.even(LOW_DB, 0));
        scales(g, area);
        curve(g, lines, area);
        g.setFill(Palette.of(g).recording());
        for (Partial p : lines) {
            double x = area.x(p.frequencyHz());
            double y = area.y(p.levelDb());
            g.fillRect(x - 1, y, 2, area.bottom() - y);
            g.fillOval(x - 2.5, y - 2.5, 5, 5);
        }
        PlotArea.words(g, h, words.toArray(String[]::new));
    }

    /** What is left of the partials once a person has left some out. */
    private List<Partial> lines() {
        return shown.reliablePartials();
    }

    private static void scales(GraphicsContext g, PlotArea area) {
        for (int db = 0; db >= -60; db -= 20) {
            area.level(g, db, db + " dB");
        }
        double last = -100;
        for (double hz : new double[] {50, 100, 200, 500, 1000, 2000, 5000, 10_000, 20_000}) {
            double x = area.x(hz);
            if (x > area.left() + 14 && x < area.right() - 18 && x - last > 40) {
                area.mark(g, hz, String.format(Locale.ROOT, hz < 1000 ? "%.0f" : "%.0fk", hz < 1000 ? hz : hz / 1000));
                last = x;
            }
        }
        area.unit(g, "over Hz");
    }

    /** Slope and formants, laid through the lines. */
    private void curve(GraphicsContext g, List<Partial> lines, PlotArea area) {
        Traits t = shown.traits();
        double[] off = lines.stream()
                .filter(p -> p.levelDb() > LOW_DB)
                .mapToDouble(p -> p.levelDb() - body(t, p.frequencyHz()))
                .sorted()
                .toArray();
        double offset = off.length == 0 ? 0 : off[off.length / 2];
        int points = (int) (area.right() - area.left()) / 2;
        area.fitted(g, points, k -> area.across().at((double) k / points), k -> {
            double db = body(t, area.across().at((double) k / points)) + offset;
            return db < 3 && db > LOW_DB ? db : Double.NaN;
        });
        g.setTextAlign(TextAlignment.CENTER);
        g.setFont(Palette.figuresFont(11));
        g.setFill(Palette.of(g).text());
        double last = -100;
        for (Formant f : t.formants()) {
            double x = area.x(f.centreHz());
            if (x - last > 46 && x > area.left() && x < area.right()) {
                g.fillText(
                        String.format(Locale.ROOT, "%.0f", f.centreHz()),
                        x,
                        Math.max(area.top() - 4, area.y(body(t, f.centreHz()) + offset) - 10));
                last = x;
            }
        }
    }

    private static double body(Traits t, double hz) {
        double db = t.slopeDbPerOctave() * Math.log(hz / 1000) / Math.log(2);
        for (Formant f : t.formants()) {
            double x = 2 * (hz - f.centreHz()) / f.bandwidthHz();
            db += 10 * Math.log10(1 + (Math.pow(10, f.levelDb() / 10) - 1) / (1 + x * x));
        }
        return db;
    }
}
