package nightreed.desktop.stage;

import java.util.List;
import java.util.Locale;
import java.util.function.IntConsumer;
import javafx.geometry.VPos;
import javafx.scene.AccessibleRole;
import javafx.scene.Cursor;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.text.TextAlignment;
import nightreed.desktop.drawing.Drawing;
import nightreed.desktop.drawing.Ink;
import nightreed.match.Side;

/** The whole recording with its onset. */
final class Waveform extends Drawing {
    private Side side;
    private float[] samples = {};

    /** @param onNote told which further note of the recording was pressed, from 1 */
    Waveform(IntConsumer onNote) {
        setId("waveform");
        setAccessibleRole(AccessibleRole.IMAGE_VIEW);
        setAccessibleText("The recording over time");
        setOnMouseClicked(e -> {
            int note = noteAt(e.getX());
            if (note > 0) {
                onNote.accept(note);
            }
        });
        setOnMouseMoved(e -> setCursor(noteAt(e.getX()) > 0 ? Cursor.HAND : Cursor.DEFAULT));
    }

    /** Number of the note whose mark is at a place, or -1. */
    private int noteAt(double x) {
        if (side == null) {
            return -1;
        }
        List<Double> onsets = side.measurement().noteOnsets();
        for (int i = 1; i < onsets.size(); i++) {
            if (Math.abs(x(onsets.get(i)) - x) < 5) {
                return i;
            }
        }
        return -1;
    }

    private double x(double seconds) {
        return 10 + (getWidth() - 20) * seconds / side.clip().seconds();
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
        String label =
                String.format(Locale.ROOT, "onset %.3f s", side.measurement().onsetSeconds());
        double labelX = x + (roomRight ? 6 : -6);
        g.setFill(Ink.of(g).panel());
        g.fillRect(roomRight ? labelX - 2 : labelX - 84, 5, 86, 15);
        g.setFill(Ink.of(g).text());
        g.fillText(label, labelX, 6);
        notes(g, h);
        g.setTextAlign(TextAlignment.RIGHT);
        g.setTextBaseline(VPos.BOTTOM);
        g.setFill(Ink.of(g).quiet());
        g.fillText(String.format(Locale.ROOT, "%.2f s", side.clip().seconds()), w - 12, h - 6);
    }

    /** Where further notes begin; a click measures one of them. */
    private void notes(GraphicsContext g, double h) {
        List<Double> onsets = side.measurement().noteOnsets();
        g.setStroke(Ink.of(g).imitation());
        g.setFill(Ink.of(g).imitation());
        g.setTextAlign(TextAlignment.LEFT);
        g.setTextBaseline(VPos.BOTTOM);
        g.setLineDashes(4, 3);
        for (int i = 1; i < onsets.size(); i++) {
            double x = x(onsets.get(i));
            g.strokeLine(x, 4, x, h - 4);
            g.fillText(Integer.toString(i + 1), x + 3, h - 5);
        }
        g.setLineDashes();
    }
}
