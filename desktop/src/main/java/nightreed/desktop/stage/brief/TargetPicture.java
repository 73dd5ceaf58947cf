package nightreed.desktop.stage.brief;

import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import javafx.geometry.VPos;
import javafx.scene.AccessibleRole;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.text.TextAlignment;
import nightreed.desktop.drawing.Drawing;
import nightreed.desktop.drawing.Palette;
import nightreed.measure.Typical;
import nightreed.music.Pitch;
import nightreed.typical.TypicalNote;
import nightreed.typical.TypicalNote.Line;

/** Partials of a typical note on dashed stems, with heads as tall as instruments of the family differ. */
final class TargetPicture extends Drawing {
    private static final double FLOOR_DB = -50;
    private static final double LEFT = 20;
    private static final double RIGHT = 20;
    private static final double TOP = 62;
    private static final double BOTTOM = 44;

    /** Room between two figures under the picture [px]. */
    private static final double APART = 26;

    private TypicalNote note;

    TargetPicture() {
        setAccessibleRole(AccessibleRole.IMAGE_VIEW);
        setMinHeight(180);
        setPrefSize(360, 250);
    }

    void show(TypicalNote typical) {
        note = typical;
        setAccessibleText("Typical partials: "
                + typical.values().stream().map(v -> v.name() + " " + v.value()).collect(Collectors.joining(", ")));
        redraw();
    }

    @Override
    protected void paint(GraphicsContext g, double w, double h) {
        ground(g, w, h);
        if (note == null) {
            return;
        }
        Palette colours = Palette.of(g);
        heading(
                g,
                "Typical " + note.asked().family().title() + " at "
                        + Pitch.name(note.asked().key()));
        double bottom = h - BOTTOM;
        double dbHigh = (bottom - TOP) / -FLOOR_DB;
        List<Line> lines = note.lines();
        double low = Math.log(lines.get(0).ratio());
        double high = Math.max(low + 0.7, Math.log(lines.get(lines.size() - 1).ratio()));
        g.setStroke(colours.scale());
        g.setLineWidth(1);
        g.strokeLine(LEFT - 6, bottom, w - RIGHT + 6, bottom);
        double labelled = Double.NEGATIVE_INFINITY;
        g.setTextBaseline(VPos.CENTER);
        for (Line l : lines) {
            if (l.levelDb() < FLOOR_DB) {
                continue;
            }
            double x = LEFT + (Math.log(l.ratio()) - low) / (high - low) * (w - LEFT - RIGHT);
            double y = TOP - l.levelDb() * dbHigh;
            g.setStroke(colours.recording());
            g.setLineWidth(1.4);
            g.setLineDashes(4, 3);
            g.strokeLine(x, bottom, x, y);
            g.setLineDashes();
            double tall = Typical.LEVEL_DB * dbHigh;
            g.setFill(Palette.faint(colours.recording(), 0.6));
            g.fillOval(x - 5, y - tall / 2, 10, tall);
            if (x - labelled > APART) {
                g.setFont(Palette.figuresFont(11));
                g.setFill(colours.quiet());
                g.setTextAlign(TextAlignment.CENTER);
                g.fillText(ratio(l.ratio()), x, bottom + 12);
                labelled = x;
            }
        }
        g.setFont(Palette.textFont(12));
        g.setFill(colours.quiet());
        g.setTextAlign(TextAlignment.LEFT);
        g.fillText(words(), LEFT - 6, h - 14, w - LEFT);
    }

    private static String ratio(double r) {
        return Math.abs(r - Math.rint(r)) < 0.02
                ? String.valueOf(Math.round(r))
                : String.format(Locale.ROOT, "%.2f", r);
    }

    private String words() {
        String time = note.isHeld()
                ? String.format(
                        Locale.ROOT, "rise %.0f ms", 1000 * note.lines().get(0).riseSeconds())
                : String.format(Locale.ROOT, "T60 %.2f s", note.lines().get(0).t60Seconds());
        return String.format(
                Locale.ROOT,
                "levels ±%.0f dB · %s, half to twice · centroid %.0f Hz",
                Typical.LEVEL_DB,
                time,
                note.centroidHz());
    }
}
