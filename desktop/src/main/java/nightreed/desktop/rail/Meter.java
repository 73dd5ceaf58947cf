package nightreed.desktop.rail;

import java.util.Locale;
import javafx.geometry.VPos;
import javafx.scene.AccessibleRole;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.text.TextAlignment;
import nightreed.desktop.drawing.Drawing;
import nightreed.desktop.drawing.Palette;
import nightreed.device.OutputMixer;

/** Level that leaves the desk, with its peak held and the ceiling that it cannot pass. */
final class Meter extends Drawing {
    private static final double LOW_DB = -60;
    private static final long HOLD_NANOS = 1_500_000_000L;
    private double shown = LOW_DB;
    private double held = LOW_DB;
    private long heldAt;
    private double reduced;

    Meter() {
        setMinSize(210, 40);
        setPrefSize(210, 40);
        setAccessibleRole(AccessibleRole.PROGRESS_INDICATOR);
        setAccessibleText("Output level");
    }

    /** Takes the latest values from the desk; called on every frame. Draws only when something changed. */
    void update(OutputMixer desk, long now) {
        double peak = 20 * Math.log10(Math.max(1e-6, desk.takePeak()));
        double next = Math.max(peak, shown - 1.2);
        reduced = Math.min(desk.takeReductionDb(), reduced * 0.95);
        boolean drop = now - heldAt > HOLD_NANOS && held > LOW_DB;
        if (peak >= held || drop) {
            held = Math.max(LOW_DB, peak);
            heldAt = now;
            drop = true;
        }
        if (Math.abs(next - shown) > 0.05 && (next > LOW_DB || shown > LOW_DB) || drop) {
            shown = Math.max(LOW_DB, next);
            redraw();
        }
    }

    private double x(double db) {
        return 2 + (getWidth() - 4) * (Math.max(LOW_DB, Math.min(0, db)) - LOW_DB) / -LOW_DB;
    }

    @Override
    protected void paint(GraphicsContext g, double w, double h) {
        g.clearRect(0, 0, w, h);
        g.setFill(Palette.of(g).raised());
        g.fillRoundRect(2, 6, w - 4, 10, 8, 8);
        if (shown > LOW_DB) {
            g.setFill(reduced < -0.2 ? Palette.of(g).audible() : Palette.of(g).within());
            g.fillRoundRect(2, 6, x(shown) - 2, 10, 8, 8);
        }
        g.setStroke(Palette.of(g).text());
        g.setLineWidth(1.5);
        if (held > LOW_DB) {
            g.strokeLine(x(held), 5, x(held), 17);
        }
        g.setStroke(Palette.of(g).audible());
        g.strokeLine(x(OutputMixer.CEILING_DB), 2, x(OutputMixer.CEILING_DB), 20);
        g.setFill(Palette.of(g).quiet());
        g.setFont(Palette.figuresFont(11));
        g.setTextBaseline(VPos.TOP);
        g.setTextAlign(TextAlignment.LEFT);
        g.fillText(held > LOW_DB ? String.format(Locale.ROOT, "peak %.1f dB", held) : "-60", 2, 23);
        g.setTextAlign(TextAlignment.RIGHT);
        g.fillText(reduced < -0.2 ? "held at -1 dBTP" : "ceiling -1 dBTP", w - 2, 23);
    }
}
