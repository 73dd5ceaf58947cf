package nightreed.desktop.shape;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import javafx.geometry.VPos;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.text.TextAlignment;
import nightreed.desktop.drawing.Palette;
import nightreed.recipe.Recipe;
import nightreed.recipe.part.Envelope;

/**
 * An envelope in dB over time, behind it the level of the recording. Early times are spread out, as an attack of milliseconds
 * and a decay of seconds have to be seen together; on the right, what follows when the key is let go.
 */
public final class EnvelopeDrawing extends Handled {
    private static final double LEFT = 44;
    private static final double RIGHT = 14;
    private static final double TOP = 34;
    private static final double BOTTOM = 20;
    private static final double FLOOR_DB = -60;
    private static final double SPREAD = 0.45;
    private static final double SHARE = 0.74; // of the width, for what happens while the key is down
    private static final double[] TICKS = {0.001, 0.01, 0.1, 0.5, 1, 2, 5, 10, 20, 50};

    private Envelope envelope;
    private String name = "";
    private Shaped values;
    private RecordedLevel recorded;
    private double down = 1; // time that is shown while the key is down [s]
    private double up = 1; // and after it

    public EnvelopeDrawing() {
        super("Envelope");
        setId("envelope-drawing");
    }

    /** @param prefix id of the part, with a point @param level of the recording, null for none */
    public void show(String what, String prefix, Envelope e, Recipe recipe, RecordedLevel level, ValueMoved changed) {
        boolean same = what.equals(name) && e.equals(envelope) && level == recorded;
        name = what;
        envelope = e;
        values = new Shaped(recipe.settings(), prefix, changed);
        recorded = level;
        if (!held()) {
            down = Math.max(0.2, 1.2 * e.settledSeconds());
            up = Math.max(0.1, 1.25 * e.releaseSeconds());
        }
        if (!same) {
            redraw();
        }
    }

    private double split(double w) {
        return LEFT + SHARE * (w - LEFT - RIGHT);
    }

    private double x(double t, double w) {
        return LEFT + (split(w) - LEFT) * Math.pow(Math.max(0, Math.min(1, t / down)), SPREAD);
    }

    private double time(double x, double w) {
        double part = Math.max(0, Math.min(1, (x - LEFT) / (split(w) - LEFT)));
        return down * Math.pow(part, 1 / SPREAD);
    }

    private double xUp(double t, double w) {
        return split(w) + (w - RIGHT - split(w)) * Math.pow(Math.max(0, Math.min(1, t / up)), SPREAD);
    }

    private double timeUp(double x, double w) {
        double part = Math.max(0, Math.min(1, (x - split(w)) / (w - RIGHT - split(w))));
        return up * Math.pow(part, 1 / SPREAD);
    }

    private static double y(double value, double h) {
        double db = Math.max(FLOOR_DB, 20 * Math.log10(Math.max(1e-9, value)));
        return TOP + (h - TOP - BOTTOM) * db / FLOOR_DB;
    }

    private static double value(double y, double h) {
        double db = FLOOR_DB * Math.max(0, Math.min(1, (y - TOP) / (h - TOP - BOTTOM)));
        return db <= FLOOR_DB + 0.3 ? 0 : Math.pow(10, db / 20);
    }

    @Override
    protected String title() {
        return envelope == null
                ? name
                : String.format(
                        Locale.ROOT,
                        "%s · attack %.1f ms, decay %.2f s to %s, release %.2f s",
                        name.isEmpty() ? "course" : name,
                        1000 * envelope.attackSeconds(),
                        envelope.decaySeconds(),
                        envelope.sustain() == 0
                                ? "nothing"
                                : String.format(Locale.ROOT, "%.1f dB", 20 * Math.log10(envelope.sustain())),
                        envelope.releaseSeconds());
    }

    @Override
    protected List<Handle> handles(double w, double h) {
        List<Handle> out = new ArrayList<>();
        Envelope e = envelope;
        if (e == null) {
            return out;
        }
        double start = e.delaySeconds();
        double top = start + e.attackSeconds();
        double falls = top + e.holdSeconds();
        double end = falls + e.decaySeconds();
        out.add(new Handle(
                values.say("attack", e.attackSeconds()),
                x(top, w),
                TOP,
                (x, y, done) -> values.set("attack", time(x, w) - start, done)));
        if (start > 0 || values.has("delay")) {
            out.add(new Handle(
                    values.say("delay", start),
                    x(start, w),
                    h - BOTTOM,
                    (x, y, done) -> values.set("delay", time(x, w), done)));
        }
        double mid = start + e.attackSeconds() / 2;
        out.add(new Handle(
                values.say("attackCurve", e.attackCurve()),
                x(mid, w),
                y(e.at(mid, 1), h),
                (x, y, done) -> values.set("attackCurve", curve(value(y, h), 0, 1), done)));
        out.add(new Handle(
                values.say("hold", e.holdSeconds()),
                Math.max(x(falls, w), x(top, w) + 13),
                TOP,
                (x, y, done) -> values.set("hold", x <= x(top, w) + 13 ? 0 : time(x, w) - top, done)));
        double half = falls + 0.4 * e.decaySeconds();
        out.add(new Handle(
                values.say("fallCurve", e.fallCurve()),
                x(half, w),
                y(e.at(half, 1), h),
                (x, y, done) -> values.set("fallCurve", fall(value(y, h), e.sustain()), done)));
        out.add(new Handle(
                values.say("decay", e.decaySeconds()) + ", " + values.say("sustain", e.sustain()),
                x(end, w),
                y(e.sustain(), h),
                (x, y, done) -> {
                    values.set("decay", time(x, w) - falls, false);
                    values.set("sustain", value(y, h), done);
                }));
        out.add(new Handle(
                values.say("release", e.releaseSeconds()),
                xUp(e.releaseSeconds(), w),
                h - BOTTOM,
                (x, y, done) -> values.set("release", timeUp(x, w), done)));
        return out;
    }

    /** Curve whose rise passes through a value half-way. */
    private static double curve(double wanted, double from, double to) {
        double share = (wanted - from) / (to - from);
        return solved(c -> new Envelope(0, 1, c, 0, 0, 0, 1, 0).at(0.5, 1), share);
    }

    /** Curve whose fall to a sustained level passes through a value after 0.4 of the way. */
    private static double fall(double wanted, double sustain) {
        return -solved(c -> new Envelope(0, 0, 0, 0, 1, -c, sustain, 0).at(0.4, 1), wanted);
    }

    /** Where a growing function of -1 to 1 reaches a value. */
    private static double solved(java.util.function.DoubleUnaryOperator f, double wanted) {
        double a = -1;
        double b = 1;
        for (int i = 0; i < 40; i++) {
            double m = (a + b) / 2;
            if (f.applyAsDouble(m) < wanted) {
                a = m;
            } else {
                b = m;
            }
        }
        return Math.round(1000 * (a + b) / 2) / 1000.0;
    }

    @Override
    protected void paint(GraphicsContext g, double w, double h) {
        ground(g, w, h);
        if (envelope == null || w < 160) {
            return;
        }
        grid(g, w, h);
        if (recorded != null) {
            g.setStroke(Palette.faint(Palette.of(g).recording(), 0.75));
            g.setLineWidth(1.2);
            g.beginPath();
            for (double px = LEFT; px <= split(w); px++) {
                double y = y(recorded.at(time(px, w)), h);
                if (px == LEFT) {
                    g.moveTo(px, y);
                } else {
                    g.lineTo(px, y);
                }
            }
            g.stroke();
        }
        g.setStroke(Palette.of(g).imitation());
        g.setLineWidth(2);
        g.beginPath();
        for (double px = LEFT; px <= split(w); px += 0.5) {
            double y = y(envelope.at(time(px, w), 1), h);
            if (px == LEFT) {
                g.moveTo(px, y);
            } else {
                g.lineTo(px, y);
            }
        }
        double last = envelope.at(down, 1);
        for (double px = split(w); px <= w - RIGHT; px += 0.5) {
            g.lineTo(px, y(envelope.released(last, timeUp(px, w)), h));
        }
        g.stroke();
        paintHandles(g, w, h);
    }

    private void grid(GraphicsContext g, double w, double h) {
        g.setFont(Palette.figuresFont(11));
        g.setTextBaseline(VPos.CENTER);
        g.setLineWidth(1);
        g.setTextAlign(TextAlignment.RIGHT);
        for (double db = 0; db >= FLOOR_DB; db -= 20) {
            double y = Math.rint(y(Math.pow(10, db / 20), h)) + 0.5;
            g.setStroke(Palette.of(g).grid());
            g.strokeLine(LEFT, y, w - RIGHT, y);
            g.setFill(Palette.of(g).quiet());
            g.fillText(String.format(Locale.ROOT, "%.0f", db) + (db == 0 ? " dB" : ""), LEFT - 6, y);
        }
        g.setTextAlign(TextAlignment.CENTER);
        double used = LEFT - 30;
        for (double t : TICKS) {
            double x = x(t, w);
            if (t < down && x > used + 44 && x < split(w) - 34) {
                g.setStroke(Palette.of(g).grid());
                g.strokeLine(x, TOP, x, h - BOTTOM);
                g.setFill(Palette.of(g).quiet());
                g.fillText(ticked(t), x, h - BOTTOM + 10);
                used = x;
            }
        }
        g.setStroke(Palette.of(g).scale());
        g.setLineDashes(3, 4);
        g.strokeLine(split(w), TOP, split(w), h - BOTTOM);
        g.setLineDashes();
        g.setFill(Palette.of(g).quiet());
        g.fillText("key up", split(w), h - BOTTOM + 10);
    }

    private static String ticked(double t) {
        return t < 0.1 ? String.format(Locale.ROOT, "%.0f ms", 1000 * t) : String.format(Locale.ROOT, "%.1f s", t);
    }
}
