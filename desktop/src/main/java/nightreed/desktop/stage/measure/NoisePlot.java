package nightreed.desktop.stage.measure;

import java.util.Locale;
import javafx.scene.AccessibleRole;
import javafx.scene.canvas.GraphicsContext;
import nightreed.desktop.drawing.Drawing;
import nightreed.desktop.drawing.Palette;
import nightreed.desktop.drawing.PlotArea;
import nightreed.measure.NoiseBands;
import nightreed.music.Bark;

/** What is left without the partials, by critical bands (upwards) over time: the denser, the louder. */
final class NoisePlot extends Drawing {
    private static final double RANGE_DB = 50;
    private static final int MOST_COLUMNS = 120;

    private NoiseBands noise;
    private String instead = "";

    NoisePlot() {
        setAccessibleRole(AccessibleRole.IMAGE_VIEW);
        setAccessibleText("Noise by bands over time");
    }

    /**
     * @param n     null for nothing
     * @param words said in place of a picture where there is nothing to draw
     */
    void show(NoiseBands n, String words) {
        noise = n;
        instead = words;
        setAccessibleText("Noise by bands over time. " + (n == null ? words : words()));
        redraw();
    }

    private String words() {
        double t60 = noise.t60();
        String colour = Double.isNaN(noise.slopeDbPerOctave())
                ? ""
                : String.format(Locale.ROOT, "colour %+.0f dB/oct", noise.slopeDbPerOctave());
        String decay = Double.isNaN(t60) ? "no band dies clearly" : String.format(Locale.ROOT, "dies in %.2f s", t60);
        return colour.isEmpty() ? decay : colour + ", " + decay;
    }

    @Override
    protected void paint(GraphicsContext g, double w, double h) {
        ground(g, w, h);
        double top = Double.NEGATIVE_INFINITY;
        if (noise != null) {
            for (double s : noise.startDb()) {
                top = Double.isNaN(s) ? top : Math.max(top, s);
            }
        }
        if (noise == null || Double.isInfinite(top) || w < 80) {
            instead(g, instead);
            return;
        }
        heading(g, "What is left without the partials");
        int frames = lastFrame(top) + 1;
        PlotArea area = PlotArea.within(
                w, h, 1, PlotArea.Scale.even(0, frames * noise.hopSeconds()), PlotArea.Scale.even(0, Bark.BANDS));
        int columns = Math.min(frames, MOST_COLUMNS);
        double band = (area.bottom() - area.top()) / Bark.BANDS;
        double cell = (area.right() - area.left()) / columns;
        for (int b = 0; b < Bark.BANDS; b++) {
            for (int c = 0; c < columns; c++) {
                double db = loudest(noise.levelDb()[b], c * frames / columns, (c + 1) * frames / columns);
                double share = (db - top + RANGE_DB) / RANGE_DB;
                if (share > 0) {
                    g.setFill(Palette.faint(Palette.of(g).recording(), Math.min(1, 0.06 + 0.94 * share)));
                    g.fillRect(area.left() + c * cell, area.y(b + 1) + 0.5, cell + 0.4, band - 1);
                }
            }
        }
        for (int edge : new int[] {2, 9, 15, 21}) {
            double hz = Bark.edgeHz(edge);
            String text =
                    hz < 1000 ? String.format(Locale.ROOT, "%.0f", hz) : String.format(Locale.ROOT, "%.1fk", hz / 1000);
            area.levelFigure(g, edge, text);
        }
        area.unit(g, "Hz");
        area.times(g);
        PlotArea.words(g, h, String.format(Locale.ROOT, "loudest band %.0f dB; %s", top, words()));
    }

    private int lastFrame(double top) {
        int last = 8;
        for (double[] band : noise.levelDb()) {
            for (int f = 0; f < band.length; f++) {
                last = band[f] > top - RANGE_DB ? Math.max(last, f) : last;
            }
        }
        return Math.min(last, noise.levelDb()[0].length - 1);
    }

    private static double loudest(double[] db, int from, int to) {
        double most = Double.NEGATIVE_INFINITY;
        for (int f = from; f < Math.max(to, from + 1) && f < db.length; f++) {
            most = Double.isNaN(db[f]) ? most : Math.max(most, db[f]);
        }
        return most;
    }
}
