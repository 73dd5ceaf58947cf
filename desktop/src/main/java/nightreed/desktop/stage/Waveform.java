package nightreed.desktop.stage;

import java.util.Locale;
import javafx.geometry.VPos;
import javafx.scene.AccessibleRole;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.text.TextAlignment;
import nightreed.desktop.drawing.Drawing;
import nightreed.desktop.drawing.Ink;
import nightreed.match.Side;

/** The whole recording with its onset. */
final class Waveform extends Drawing {
    private Side side;
    private float[] samples = {};

    Waveform() {
        setAccessibleRole(AccessibleRole.IMAGE_VIEW);
        setAccessibleText("The recording over time");
    }

    void show(Side s) {
        side = s;
        samples = s == null ? new float[0] : s.clip().mixedFloats();
        redraw();
    }

    @Override
    protected void paint(GraphicsContext g, double w, double h) {
        ground(g, w, h);
        if (samples.length == 0 || w < 20) {
            return;
        }
        double peak = Math.max(1e-6, side.clip().peak());
        g.setFill(Ink.of(g).recording().deriveColor(0, 1, 0.72, 1));
        for (int px = 10; px < w - 10; px++) {
            int from = (int) ((px - 10) / (w - 20) * samples.length);
            int to = (int) Math.min(samples.length, Math.max(from + 1, (px - 9) / (w - 20) * samples.length));
            float low = 0;
            float high = 0;
            for (int i = from; i < to; i++) {
                low = Math.min(low, samples[i]);
                high = Math.max(high, samples[i]);
            }
            double half = h / 2 - 6;
            double top = h / 2 - high / peak * half - 0.5; // a rectangle: no shape to trace
            g.fillRect(px, top, 1, h / 2 - low / peak * half + 0.5 - top);
        }
        double x =
                10 + (w - 20) * side.measurement().onsetSeconds() / side.clip().seconds();
        g.setStroke(Ink.of(g).text());
        g.strokeLine(x, 4, x, h - 4);
        g.setFill(Ink.of(g).text());
        g.setFont(Ink.textFont(11));
        g.setTextBaseline(VPos.TOP);
        boolean roomRight = x < w - 120;
        g.setTextAlign(roomRight ? TextAlignment.LEFT : TextAlignment.RIGHT);
        g.fillText(
                String.format(Locale.ROOT, "onset %.3f s", side.measurement().onsetSeconds()),
                x + (roomRight ? 6 : -6),
                6);
        g.setTextAlign(TextAlignment.RIGHT);
        g.setTextBaseline(VPos.BOTTOM);
        g.setFill(Ink.of(g).quiet());
        g.fillText(String.format(Locale.ROOT, "%.2f s", side.clip().seconds()), w - 12, h - 6);
    }
}
