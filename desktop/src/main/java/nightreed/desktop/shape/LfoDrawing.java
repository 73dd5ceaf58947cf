package nightreed.desktop.shape;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.function.BiConsumer;
import javafx.geometry.VPos;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.text.TextAlignment;
import nightreed.desktop.drawing.Palette;
import nightreed.recipe.Recipe;
import nightreed.recipe.part.Lfo;

/**
 * An LFO from key-down on: delay, fade-in and a few cycles. The corners of a zigzag can be drawn: drag one up or down, a
 * double click puts a new one in, one dragged out at the side goes.
 */
public final class LfoDrawing extends Handled {
    private static final double LEFT = 44;
    private static final double RIGHT = 14;
    private static final double TOP = 34;
    private static final double BOTTOM = 20;
    private static final int CYCLES = 3;

    private Lfo lfo;
    private String name = "";
    private double bpm = 120;
    private Shaped values;
    private BiConsumer<List<Double>, Boolean> drawn = (points, settled) -> {};
    private double span = 1; // time shown [s]

    public LfoDrawing() {
        super("LFO");
        setId("lfo-drawing");
    }

    /**
     * @param prefix id of the part, with a point
     * @param points told the corners of a zigzag, and whether the hand has let go
     */
    public void show(
            String what,
            String prefix,
            Lfo shown,
            Recipe recipe,
            ValueMoved changed,
            BiConsumer<List<Double>, Boolean> points) {
        name = what;
        lfo = shown;
        bpm = recipe.common().tempoBpm();
        values = new Shaped(recipe.settings(), prefix, changed);
        drawn = points;
        if (!held()) {
            span = lfo.delaySeconds() + lfo.fadeSeconds() + CYCLES / lfo.hz(bpm);
        }
        redraw();
    }

    private double x(double t, double w) {
        return LEFT + (w - LEFT - RIGHT) * Math.max(0, Math.min(1, t / span));
    }

    private double time(double x, double w) {
        return span * Math.max(0, Math.min(1, (x - LEFT) / (w - LEFT - RIGHT)));
    }

    private static double y(double v, double h) {
        return (TOP + h - BOTTOM) / 2 - v * (h - BOTTOM - TOP) / 2 * 0.94;
    }

    private static double value(double y, double h) {
        return Math.max(-1, Math.min(1, ((TOP + h - BOTTOM) / 2 - y) / ((h - BOTTOM - TOP) / 2 * 0.94)));
    }

    @Override
    protected String title() {
        return lfo == null
                ? name
                : String.format(
                        Locale.ROOT,
                        "%s · %.2f Hz%s",
                        name,
                        lfo.hz(bpm),
                        lfo.delaySeconds() + lfo.fadeSeconds() > 0
                                ? String.format(
                                        Locale.ROOT,
                                        ", from %.2f s, full after %.2f s",
                                        lfo.delaySeconds(),
                                        lfo.delaySeconds() + lfo.fadeSeconds())
                                : "");
    }

    /** Begin of the first whole cycle at full depth [s]. */
    private double first() {
        double start = lfo.startDegrees() / 360 / lfo.hz(bpm);
        double after = lfo.delaySeconds() + lfo.fadeSeconds();
        return Math.ceil((after + start) * lfo.hz(bpm) - 1e-9) / lfo.hz(bpm) - start;
    }

    @Override
    protected List<Handle> handles(double w, double h) {
        List<Handle> out = new ArrayList<>();
        if (lfo == null) {
            return out;
        }
        double cycle = 1 / lfo.hz(bpm);
        double t0 = first();
        out.add(new Handle(
                values.say("rate", lfo.rate()),
                x(t0 + cycle, w),
                y(0, h),
                (x, y, done) -> values.set("rate", lfo.rate() * cycle / Math.max(1e-3, time(x, w) - t0), done)));
        out.add(new Handle(
                values.say("delay", lfo.delaySeconds()),
                x(lfo.delaySeconds(), w),
                h - BOTTOM,
                (x, y, done) -> values.set("delay", time(x, w), done)));
        out.add(new Handle(
                values.say("fade", lfo.fadeSeconds()),
                Math.max(x(lfo.delaySeconds() + lfo.fadeSeconds(), w), x(lfo.delaySeconds(), w)),
                TOP,
                (x, y, done) -> values.set("fade", time(x, w) - lfo.delaySeconds(), done)));
        if (lfo.shape() == Lfo.Shape.SQUARE) {
            out.add(new Handle(
                    values.say("duty", lfo.duty()),
                    x(t0 + lfo.duty() * cycle, w),
                    y(-0.5, h),
                    (x, y, done) -> values.set("duty", (time(x, w) - t0) / cycle, done)));
        }
        if (lfo.shape() == Lfo.Shape.ZIGZAG) {
            List<Double> points = points();
            for (int i = 0; i < points.size(); i++) {
                int at = i;
                double px = x(t0 + cycle * i / points.size(), w);
                out.add(new Handle(
                        String.format(Locale.ROOT, "corner %d of %d: %.2f", i + 1, points.size(), points.get(i)),
                        px,
                        y(points.get(i), h),
                        (x, y, done) -> {
                            List<Double> next = new ArrayList<>(points());
                            if (done && Math.abs(x - px) > 60 && next.size() > 2) {
                                next.remove(at);
                            } else if (at < next.size()) {
                                next.set(at, Math.round(100 * value(y, h)) / 100.0);
                            }
                            drawn.accept(next, done);
                        }));
            }
        }
        return out;
    }

    private List<Double> points() {
        return lfo.points().isEmpty() ? List.of(0.0, 1.0, 0.0, -1.0) : lfo.points();
    }

    @Override
    protected void twice(double x, double y) {
        if (lfo != null && lfo.shape() == Lfo.Shape.ZIGZAG && points().size() < 32) {
            double cycles = (time(x, getWidth()) - first()) * lfo.hz(bpm);
            List<Double> next = new ArrayList<>(points());
            int at = (int) Math.ceil((cycles - Math.floor(cycles)) * next.size());
            next.add(Math.min(next.size(), at), Math.round(100 * value(y, getHeight())) / 100.0);
            drawn.accept(next, true);
        }
    }

    @Override
    protected void paint(GraphicsContext g, double w, double h) {
        ground(g, w, h);
        if (lfo == null || w < 160) {
            return;
        }
        g.setFont(Palette.figuresFont(11));
        g.setTextBaseline(VPos.CENTER);
        g.setLineWidth(1);
        for (double v = -1; v <= 1; v += 1) {
            g.setStroke(Palette.of(g).grid());
            g.strokeLine(LEFT, y(v, h), w - RIGHT, y(v, h));
            g.setFill(Palette.of(g).quiet());
            g.setTextAlign(TextAlignment.RIGHT);
            g.fillText(String.format(Locale.ROOT, "%+.0f", v), LEFT - 6, y(v, h));
        }
        g.setTextAlign(TextAlignment.CENTER);
        for (int q = 0; q <= 4; q++) {
            double t = span * q / 4;
            double x = Math.max(LEFT + 14, Math.min(w - RIGHT - 16, x(t, w)));
            g.fillText(String.format(Locale.ROOT, "%.2f s", t), x, h - BOTTOM + 10);
        }
        g.setStroke(Palette.of(g).imitation());
        g.setLineWidth(2);
        g.beginPath();
        for (double px = LEFT; px <= w - RIGHT; px += 0.5) {
            double t = time(px, w);
            double y = y(lfo.at(t * lfo.hz(bpm), 1) * lfo.grown(t), h);
            if (px == LEFT) {
                g.moveTo(px, y);
            } else {
                g.lineTo(px, y);
            }
        }
        g.stroke();
        paintHandles(g, w, h);
    }
}
