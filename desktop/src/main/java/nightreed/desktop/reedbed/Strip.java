package nightreed.desktop.reedbed;

import java.util.List;
import java.util.Locale;
import javafx.beans.property.SimpleObjectProperty;
import javafx.geometry.VPos;
import javafx.scene.AccessibleRole;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.text.TextAlignment;
import nightreed.desktop.drawing.Drawing;
import nightreed.desktop.drawing.Ink;
import nightreed.match.Comparison;
import nightreed.match.Hearing;
import nightreed.match.PartialDifference;
import nightreed.measure.Measurement;
import nightreed.measure.Partial;
import nightreed.measure.traits.DecayLaw;

/**
 * Under the bed, on the same axis: one thing exactly, for recording and imitation together, with the span of one JND
 * shaded.
 */
public final class Strip extends Drawing {
    /** What the strip shows. */
    public enum Shows {
        T60("T60"),
        LEVEL("Level");

        private final String title;

        Shows(String title) {
            this.title = title;
        }

        public String title() {
            return title;
        }
    }

    private static final double LEFT = 46;
    private static final double RIGHT = 14;
    private static final double[] SECONDS = {0.01, 0.03, 0.1, 0.3, 1, 3, 10, 30};

    private final SimpleObjectProperty<Partial> selected;
    private Comparison comparison;
    private Measurement alone;
    private Axis axis;
    private Shows shows = Shows.T60;

    public Strip(SimpleObjectProperty<Partial> selected) {
        this.selected = selected;
        setAccessibleRole(AccessibleRole.IMAGE_VIEW);
        setAccessibleText("Decay or level of each partial, recording against imitation");
        selected.addListener((o, a, b) -> redraw());
    }

    public void setComparison(Comparison c) {
        comparison = c;
        redraw();
    }

    /** Shows the decays of a recording by itself, with their 95 % intervals and the law that they follow. */
    public void setMeasurement(Measurement m) {
        alone = m;
        setAccessibleText("Decay of each partial with its 95 % interval");
        redraw();
    }

    public void setAxis(Axis a) {
        axis = a;
        redraw();
    }

    public void show(Shows what) {
        shows = what;
        redraw();
    }

    @Override
    protected void paint(GraphicsContext g, double w, double h) {
        ground(g, w, h);
        if (axis == null || w < 40 || h < 30) {
            return;
        }
        if (alone != null) {
            decaysAlone(g, w, h);
        } else if (comparison == null) {
            return;
        } else if (shows == Shows.T60) {
            decays(g, w, h);
        } else {
            levels(g, w, h);
        }
    }

    private double x(double hz, double w) {
        return LEFT + axis.position(hz) * (w - LEFT - RIGHT);
    }

    private boolean visible(double x, double w) {
        return x >= LEFT - 2 && x <= w - RIGHT + 2;
    }

    private void decays(GraphicsContext g, double w, double h) {
        double low = Double.POSITIVE_INFINITY;
        double high = 0;
        for (PartialDifference d : comparison.partials()) {
            for (Partial p : new Partial[] {d.recording(), d.imitation()}) {
                if (p != null && p.t60Seconds() != null) {
                    low = Math.min(low, p.t60Seconds());
                    high = Math.max(high, p.t60Seconds());
                }
            }
        }
        if (high <= 0) {
            return;
        }
        double bottom = Math.log(low / 1.6);
        double span = Math.log(high * 1.6) - bottom;
        scale(g, w, h, bottom, span);
        for (PartialDifference d : comparison.partials()) {
            double x = x(d.either().frequencyHz(), w);
            if (!visible(x, w)) {
                continue;
            }
            Double r = d.recording() == null ? null : d.recording().t60Seconds();
            Double i = d.imitation() == null ? null : d.imitation().t60Seconds();
            if (r != null) {
                double top = y(r * Hearing.USUAL.decayLonger(), bottom, span, h);
                double foot = y(r * Hearing.USUAL.decayShorter(), bottom, span, h);
                within(g, x, top, foot);
                mark(g, x, y(r, bottom, span, h), d.recording().equals(selected.get()));
            }
            if (i != null) {
                ring(g, x, y(i, bottom, span, h), d.weight() * d.decayJnd() > 1);
            }
        }
    }

    private static void scale(GraphicsContext g, double w, double h, double bottom, double span) {
        g.setFont(Ink.figuresFont(11));
        g.setTextAlign(TextAlignment.RIGHT);
        g.setTextBaseline(VPos.CENTER);
        for (double s : SECONDS) {
            double y = y(s, bottom, span, h);
            if (y > 8 && y < h - 8) {
                line(g, LEFT, w - RIGHT, y);
                g.fillText(s + "s", LEFT - 6, y);
            }
        }
    }

    private void decaysAlone(GraphicsContext g, double w, double h) {
        List<Partial> dying = alone.reliablePartials().stream()
                .filter(p -> p.t60Seconds() != null)
                .toList();
        g.setTextAlign(TextAlignment.LEFT);
        g.setTextBaseline(VPos.CENTER);
        g.setFont(Ink.textFont(12));
        if (dying.isEmpty()) {
            g.setFill(Ink.of(g).quiet());
            g.fillText("T60: no partial of this recording dies by itself.", LEFT, h / 2);
            return;
        }
        double low = dying.stream().mapToDouble(Partial::t60Seconds).min().orElse(1);
        double high = dying.stream().mapToDouble(Partial::t60Seconds).max().orElse(1);
        double bottom = Math.log(low / 1.6);
        double span = Math.log(high * 1.6) - bottom;
        scale(g, w, h, bottom, span);
        law(g, w, h, bottom, span);
        for (Partial p : dying) {
            double x = x(p.frequencyHz(), w);
            if (visible(x, w)) {
                double half = p.t60SeSeconds() == null ? 0 : 2 * p.t60SeSeconds();
                double top = y(p.t60Seconds() + half, bottom, span, h);
                double foot = y(Math.max(0.2 * p.t60Seconds(), p.t60Seconds() - half), bottom, span, h);
                g.setStroke(Ink.of(g).recording());
                g.setLineWidth(1);
                g.strokeLine(x, Math.max(3, top), x, Math.min(h - 3, foot));
                mark(g, x, y(p.t60Seconds(), bottom, span, h), p.equals(selected.get()));
            }
        }
        if (alone.traits().decayLaw() == null) {
            g.setTextAlign(TextAlignment.RIGHT);
            g.setFill(Ink.of(g).quiet());
            g.setFont(Ink.textFont(11));
            g.fillText("T60", w - RIGHT - 4, 12);
        }
    }

    /** The power law of the decays as a dashed line, and its exponent. */
    private void law(GraphicsContext g, double w, double h, double bottom, double span) {
        DecayLaw law = alone.traits().decayLaw();
        if (law == null) {
            return;
        }
        g.setStroke(Ink.of(g).quiet());
        g.setLineWidth(1);
        g.setLineDashes(4, 4);
        g.beginPath();
        for (double x = LEFT; x <= w - RIGHT; x += 8) {
            double y = y(law.t60At(axis.hzAt((x - LEFT) / (w - LEFT - RIGHT))), bottom, span, h);
            double held = Math.max(2, Math.min(h - 2, y));
            if (x == LEFT) {
                g.moveTo(x, held);
            } else {
                g.lineTo(x, held);
            }
        }
        g.stroke();
        g.setLineDashes();
        g.setTextAlign(TextAlignment.RIGHT);
        g.setFill(Ink.of(g).quiet());
        g.setFont(Ink.figuresFont(11));
        g.fillText(
                String.format(Locale.ROOT, "T60 ~ f^%.2f ± %.2f", -law.exponent(), 2 * law.exponentSe()),
                w - RIGHT - 4,
                12);
    }

    private static double y(double seconds, double bottom, double span, double h) {
        return h - 8 - (h - 16) * (Math.log(seconds) - bottom) / span;
    }

    private void levels(GraphicsContext g, double w, double h) {
        double most = 4;
        for (PartialDifference d : comparison.partials()) {
            most = Math.max(most, Math.min(20, Math.abs(d.levelDb())));
        }
        double perDb = (h / 2 - 8) / (most * 1.1);
        g.setFont(Ink.figuresFont(11));
        g.setTextAlign(TextAlignment.RIGHT);
        g.setTextBaseline(VPos.CENTER);
        double step = most > 10 ? 10 : most > 5 ? 5 : 2;
        for (double db = -20; db <= 20; db += step) {
            double y = h / 2 - db * perDb;
            if (y > 8 && y < h - 8) {
                line(g, LEFT, w - RIGHT, y);
                g.fillText(String.format(Locale.ROOT, "%+.0f", db), LEFT - 6, y);
            }
        }
        for (PartialDifference d : comparison.partials()) {
            double x = x(d.either().frequencyHz(), w);
            if (visible(x, w)) {
                double jnd = Hearing.USUAL.levelDb() * perDb;
                within(g, x, h / 2 - jnd, h / 2 + jnd);
                if (d.recording() != null) {
                    mark(g, x, h / 2, d.recording().equals(selected.get()));
                }
                double y = Math.max(8, Math.min(h - 8, h / 2 - d.levelDb() * perDb));
                ring(g, x, y, d.weight() * d.levelJnd() > 1);
            }
        }
    }

    private static void line(GraphicsContext g, double from, double to, double y) {
        g.setStroke(Ink.of(g).grid());
        g.setLineWidth(1);
        g.strokeLine(from, Math.rint(y) + 0.5, to, Math.rint(y) + 0.5);
        g.setFill(Ink.of(g).quiet());
    }

    private static void within(GraphicsContext g, double x, double top, double foot) {
        g.setFill(Ink.faint(Ink.of(g).within(), 0.28));
        g.fillRoundRect(x - 7, top, 14, foot - top, 6, 6);
    }

    private static void mark(GraphicsContext g, double x, double y, boolean chosen) {
        g.setFill(Ink.of(g).recording());
        g.fillOval(x - 3.5, y - 3.5, 7, 7);
        if (chosen) {
            g.setStroke(Ink.of(g).text());
            g.strokeOval(x - 6.5, y - 6.5, 13, 13);
        }
    }

    private static void ring(GraphicsContext g, double x, double y, boolean audible) {
        g.setStroke(audible ? Ink.of(g).audible() : Ink.of(g).imitation());
        g.setLineWidth(1.8);
        g.strokeOval(x - 5, y - 5, 10, 10);
    }
}
