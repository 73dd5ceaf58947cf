package nightreed.desktop.stage.measure;

import java.util.Locale;
import javafx.scene.AccessibleRole;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.text.TextAlignment;
import nightreed.desktop.drawing.Drawing;
import nightreed.desktop.drawing.Palette;
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
        double left = 56;
        double right = w - 14;
        double high = 34;
        double low = h - 46;
        int frames = lastFrame(top) + 1;
        int columns = Math.min(frames, MOST_COLUMNS);
        double band = (low - high) / Bark.BANDS;
        double cell = (right - left) / columns;
        for (int b = 0; b < Bark.BANDS; b++) {
            double y = low - (b + 1) * band;
            for (int c = 0; c < columns; c++) {
                double db = loudest(noise.levelDb()[b], c * frames / columns, (c + 1) * frames / columns);
                double share = (db - top + RANGE_DB) / RANGE_DB;
                if (share > 0) {
                    g.setFill(Palette.faint(Palette.of(g).recording(), Math.min(1, 0.06 + 0.94 * share)));
                    g.fillRect(left + c * cell, y + 0.5, cell + 0.4, band - 1);
                }
            }
        }
        scales(g, left, right, high, low, frames);
        g.setTextAlign(TextAlignment.LEFT);
        g.setFont(Palette.figuresFont(11));
        g.setFill(Palette.of(g).text());
        g.fillText(String.format(Locale.ROOT, "loudest band %.0f dB; %s", top, words()), 14, h - 14);
    }

    private void scales(GraphicsContext g, double left, double right, double high, double low, int frames) {
        g.setFont(Palette.figuresFont(11));
        g.setFill(Palette.of(g).quiet());
        g.setTextAlign(TextAlignment.RIGHT);
        for (int edge : new int[] {2, 9, 15, 21}) {
            double hz = Bark.edgeHz(edge);
            String text =
                    hz < 1000 ? String.format(Locale.ROOT, "%.0f", hz) : String.format(Locale.ROOT, "%.1fk", hz / 1000);
            g.fillText(text, left - 8, low - edge * (low - high) / Bark.BANDS);
        }
        g.fillText("Hz", right, 18);
        g.setTextAlign(TextAlignment.CENTER);
        for (int q = 0; q <= 3; q++) {
            double t = q * frames * noise.hopSeconds() / 3;
            double x = Math.max(left + 14, Math.min(right - 18, left + (right - left) * q / 3));
            g.fillText(String.format(Locale.ROOT, "%.2f s", t), x, low + 12);
        }
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
