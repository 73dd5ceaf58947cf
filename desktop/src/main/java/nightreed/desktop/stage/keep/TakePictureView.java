package nightreed.desktop.stage.keep;

import javafx.scene.AccessibleRole;
import javafx.scene.canvas.GraphicsContext;
import nightreed.desktop.drawing.Drawing;
import nightreed.desktop.drawing.Palette;
import nightreed.project.TakePicture;

/** The reedbed of a take, small: recording above the water, imitation below, ripples where a difference was heard. */
public final class TakePictureView extends Drawing {
    private static final double LOW_DB = -50;
    private final TakePicture picture;

    public TakePictureView(TakePicture picture) {
        this.picture = picture;
        setMinSize(66, 40);
        setMaxSize(132, 40);
        setPrefSize(132, 40);
        setAccessibleRole(AccessibleRole.IMAGE_VIEW);
        long heard = picture.strokes().stream().filter(s -> s.jnd() > 1).count();
        setAccessibleText(picture.strokes().size() + " partials, " + heard + " of them heard to differ");
    }

    @Override
    protected void paint(GraphicsContext g, double w, double h) {
        Palette ink = Palette.of(g);
        double water = Math.rint(h * 0.55);
        g.setFill(ink.raised());
        g.fillRect(0, 0, w, water);
        g.setFill(ink.water());
        g.fillRect(0, water, w, h - water);
        g.setFill(ink.scale());
        g.fillRect(0, water, w, 1);
        if (picture.strokes().isEmpty()) {
            return;
        }
        double low = Math.log(picture.strokes().get(0).hz());
        double high =
                Math.log(picture.strokes().get(picture.strokes().size() - 1).hz());
        for (TakePicture.Stroke s : picture.strokes()) {
            double x = Math.rint(8 + (w - 18) * (high > low ? (Math.log(s.hz()) - low) / (high - low) : 0.5));
            bar(g, ink.recording(), x, water, -(water - 3), s.recordingDb());
            bar(g, ink.imitation(), x, water + 1, h - water - 4, s.imitationDb());
            if (s.jnd() > 1) {
                double wide = 3 + Math.min(6, s.jnd());
                g.setStroke(ink.audible());
                g.setLineWidth(2); // thin rings would be mixed away by smoothing
                g.strokeOval(x + 1 - wide, water - 3, 2 * wide, 6);
            }
        }
    }

    private static void bar(
            GraphicsContext g, javafx.scene.paint.Color c, double x, double from, double room, Double db) {
        if (db != null && db > LOW_DB) {
            double length = Math.rint(room * Math.min(1, 1 - db / LOW_DB));
            g.setFill(c);
            g.fillRect(x, Math.min(from, from + length), 2, Math.abs(length));
        }
    }
}
