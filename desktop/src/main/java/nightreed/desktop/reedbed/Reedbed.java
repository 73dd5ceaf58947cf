package nightreed.desktop.reedbed;

import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.function.Consumer;
import javafx.beans.property.SimpleObjectProperty;
import javafx.geometry.VPos;
import javafx.scene.AccessibleRole;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseEvent;
import javafx.scene.input.ScrollEvent;
import javafx.scene.paint.Color;
import javafx.scene.shape.StrokeLineCap;
import javafx.scene.text.TextAlignment;
import nightreed.desktop.drawing.Drawing;
import nightreed.desktop.drawing.Palette;
import nightreed.desktop.reedbed.BedModel.Reed;
import nightreed.measure.partial.Partial;

/**
 * Draws a {@link BedModel}. Hover tells the numbers, a click selects, the wheel zooms, a drag moves, Escape shows all
 * again; Left and Right walk from reed to reed.
 */
public final class Reedbed extends Drawing {
    private static final double TOP_DB = 4;
    private static final double LEFT = 46;
    private static final double RIGHT = 14;

    private static final double TOP = 34;

    private final Tooltip numbers = new Tooltip();
    private final SimpleObjectProperty<Partial> selected;
    private BedModel model = BedModel.EMPTY;
    private Axis axis;
    private double time;
    private double floorDb = -50;
    private double dragFrom = Double.NaN;
    private Axis dragAxis;
    private Consumer<Axis> onAxis = a -> {};
    private String emptyText = "";
    private long lastDrawNanos;

    /** @param selected the partial of the recording that all pictures point at */
    public Reedbed(SimpleObjectProperty<Partial> selected) {
        this.selected = selected;
        getStyleClass().add("drawing");
        setFocusTraversable(true);
        setAccessibleRole(AccessibleRole.IMAGE_VIEW);
        setAccessibleText("Partials of recording and imitation");
        selected.addListener((o, a, b) -> redraw());
        focusedProperty().addListener((o, a, b) -> redraw());
        setOnMouseMoved(this::hover);
        setOnMouseExited(e -> numbers.hide());
        setOnMousePressed(e -> {
            requestFocus();
            dragFrom = e.getX();
            dragAxis = axis;
        });
        setOnMouseDragged(this::drag);
        setOnMouseReleased(e -> {
            if (Math.abs(e.getX() - dragFrom) < 3) {
                Reed r = nearest(e.getX(), e.getY());
                if (r != null) {
                    selected.set(r.partial());
                }
            }
            dragFrom = Double.NaN;
        });
        setOnScroll(this::zoom);
        setOnKeyPressed(e -> {
            if (e.getCode() == KeyCode.ESCAPE && axis != null && !axis.equals(model.axis())) {
                show(model.axis());
                e.consume();
            } else if (e.getCode() == KeyCode.RIGHT || e.getCode() == KeyCode.LEFT) {
                walk(e.getCode() == KeyCode.RIGHT ? 1 : -1);
                e.consume();
            }
        });
    }

    /** What to say while there is nothing to draw. */
    public void setEmptyText(String text) {
        emptyText = text;
        redraw();
    }

    /** Told whenever the axis is zoomed or moved, for a strip that shares it. */
    public void setOnAxis(Consumer<Axis> listener) {
        onAxis = listener;
    }

    public void setModel(BedModel m) {
        boolean otherRange = model.axis() == null
                || m.axis() == null
                || !model.axis().as(Axis.Kind.HZ).equals(m.axis().as(Axis.Kind.HZ));
        Axis next = m.axis() == null
                ? null
                : otherRange || axis == null ? m.axis() : axis.as(m.axis().kind());
        model = m;
        double lowest = m.reeds().stream().mapToDouble(Reed::levelDb).min().orElse(-40);
        floorDb = Math.max(-72, Math.min(-40, 10 * Math.floor((lowest - 6) / 10)));
        show(next);
    }

    private void show(Axis a) {
        axis = a;
        redraw();
        onAxis.accept(a);
    }

    /** Lets both sides die away to a time after the strike [s]. */
    public void setTime(double seconds) {
        time = seconds;
        redraw();
    }

    /** Time the last drawing took [ns], for the benchmark. */
    public long lastDrawNanos() {
        return lastDrawNanos;
    }

    private double waterline() {
        double h = getHeight();
        return model.mirror().isEmpty() ? h - 44 : TOP + (h - TOP - 30) * 0.52;
    }

    private double x(double hz) {
        return LEFT + axis.position(hz) * (getWidth() - LEFT - RIGHT);
    }

    private double height(double db) {
        double room = waterline() - TOP;
        return Math.max(0, room * (db - floorDb) / (TOP_DB - floorDb));
    }

    /** Redraws everything; a few dozen strokes. */
    @Override
    protected void paint(GraphicsContext g, double w, double h) {
        if (w < 40 || h < 60) {
            return;
        }
        long start = System.nanoTime();
        g.setFill(Palette.of(g).panel());
        g.fillRect(0, 0, w, h);
        if (axis == null) {
            corners(g, w, h);
            g.setFill(Palette.of(g).quiet());
            g.setFont(Palette.textFont(14));
            g.setTextAlign(TextAlignment.CENTER);
            g.setTextBaseline(VPos.CENTER);
            g.fillText(emptyText, w / 2, h / 2);
            return;
        }
        double water = waterline();
        if (!model.mirror().isEmpty()) {
            g.setFill(Palette.of(g).water());
            g.fillRect(0, Math.rint(water), w, h - Math.rint(water));
        }
        corners(g, w, h);
        grid(g, w, water);
        Ripples rings = new Ripples(this::x, LEFT, getWidth() - RIGHT);
        List<BedModel.Ripple> ripples = rings.apart(model.ripples());
        for (BedModel.Ripple r : ripples) {
            rings.draw(g, r, water);
        }
        for (Reed r : model.mirror()) {
            reed(g, r, water, false);
        }
        for (Reed r : model.reeds()) {
            reed(g, r, water, true);
        }
        names(g);
        double taken = 0; // the next text has room from here on
        for (BedModel.Ripple r : ripples) {
            taken = rings.text(g, r, water, taken);
        }
        key(g, w, h);
        if (isFocused()) {
            g.setStroke(Palette.of(g).imitation());
            g.setLineWidth(1);
            g.strokeRoundRect(0.5, 0.5, w - 1, h - 1, 16, 16);
        }
        lastDrawNanos = System.nanoTime() - start;
    }

    private void grid(GraphicsContext g, double w, double water) {
        g.setFont(Palette.figuresFont(11));
        g.setTextBaseline(VPos.CENTER);
        g.setTextAlign(TextAlignment.RIGHT);
        double step = floorDb < -50 ? 20 : 10;
        for (double db = 0; db > floorDb + 2; db -= step) {
            double y = Math.rint(water - height(db));
            g.setFill(Palette.of(g).grid());
            g.fillRect(LEFT, y, w - RIGHT - LEFT, 1); // whole pixels: no shape to trace
            g.setFill(Palette.of(g).quiet());
            g.fillText(String.format(Locale.ROOT, "%.0f", db), LEFT - 10, y);
        }
        g.fillText("dB", LEFT - 10, TOP - 16);
        g.setFill(Palette.of(g).scale());
        g.fillRect(0, Math.rint(water), w, 1);
        g.setFill(Palette.of(g).quiet());
        g.setTextAlign(TextAlignment.LEFT);
        g.setTextBaseline(VPos.TOP);
        g.setFont(Palette.textFont(11));
        g.fillText(axis.unit(), 8, water + 7);
        g.setFont(Palette.figuresFont(11));
        for (Axis.Tick t : axis.ticks(0.055)) {
            double x = Math.rint(x(t.hz()));
            g.setFill(Palette.of(g).scale());
            g.fillRect(x, Math.rint(water), 1, 6);
            g.setFill(Palette.of(g).quiet());
            g.fillText(t.text(), x + 4, water + 7);
        }
    }

    private void reed(GraphicsContext g, Reed r, double water, boolean up) {
        double db = r.levelAt(time);
        double x = x(r.partial().frequencyHz());
        if (x < LEFT - 4 || x > getWidth() - RIGHT + 4 || db <= floorDb) {
            return;
        }
        boolean chosen = up && r.partial().equals(selected.get());
        Color ink = up ? Palette.of(g).recording() : Palette.of(g).imitation();
        double sign = up ? -1 : 1;
        double tall = height(db) * (up ? 1 : reflectionScale(water));
        double bend = Math.min(26, 0.35 * height(r.levelDb()) - 0.35 * height(db)); // a dying reed leans over
        double topX = x + bend;
        double topY = water + sign * tall;
        g.setStroke(ink);
        g.setLineCap(StrokeLineCap.ROUND);
        g.setLineWidth(chosen ? 3 : 1.7);
        if (!up) {
            g.setLineDashes(5, 4);
        }
        g.beginPath();
        g.moveTo(x, water);
        g.quadraticCurveTo(x, water + sign * tall * 0.7, topX, topY);
        g.stroke();
        if (r.leaf() || chosen) {
            leaf(g, r, topX, topY, tall, sign);
        }
        g.setLineDashes();
        double uncertain =
                Math.min(7, 3 + 400 * r.partial().frequencySeHz() / r.partial().frequencyHz());
        g.setFill(ink);
        g.fillOval(topX - uncertain, topY - 6, 2 * uncertain, 12);
        if (chosen) {
            g.setStroke(Palette.of(g).text());
            g.setLineWidth(1.2);
            g.strokeOval(topX - uncertain - 3, topY - 9, 2 * uncertain + 6, 18);
        }
        if (up && r.partial().beatHz() != null) {
            g.setStroke(ink);
            g.setLineWidth(1.4);
            double y = water - 0.35 * tall;
            g.strokeLine(x - 4, y + 3, x + 4, y);
            g.strokeLine(x - 4, y + 7, x + 4, y + 4);
        }
    }

    /** The reflection has less room under the water than the reeds have above. */
    private double reflectionScale(double water) {
        return (getHeight() - water - 36) / (water - TOP);
    }

    private void leaf(GraphicsContext g, Reed r, double topX, double topY, double tall, double sign) {
        if (r.partial().t60Seconds() == null || tall < 12) {
            return;
        }
        double length = Math.min(leafLength(r.partial().t60Seconds()), getWidth() - topX - 3);
        if (length < 4) {
            return;
        }
        g.setLineWidth(1.5);
        g.beginPath();
        g.moveTo(topX, topY);
        double droop = Math.min(tall * 0.5, 6 + 0.12 * length);
        g.bezierCurveTo(
                topX + length * 0.3,
                topY + sign * 5,
                topX + length * 0.7,
                topY + sign * 2,
                topX + length,
                topY - sign * droop);
        g.stroke();
    }

    /** Twenty pixels for every doubling from 50 ms on: long and short decays both stay on the picture. */
    private static double leafLength(double t60) {
        return Math.max(6, 20 * Math.log(t60 / 0.05 + 1) / Math.log(2));
    }

    private void names(GraphicsContext g) {
        g.setFont(Palette.textFont(11));
        g.setTextBaseline(VPos.BOTTOM);
        g.setTextAlign(TextAlignment.CENTER);
        g.setFill(Palette.of(g).within());
        double lastRight = 0;
        for (Reed r : model.reeds().stream()
                .sorted(Comparator.comparingDouble(q -> q.partial().frequencyHz()))
                .toList()) {
            double x = x(r.partial().frequencyHz());
            double half = r.name() == null ? 0 : 3.2 * r.name().length();
            boolean fits = r.name() != null && r.levelDb() > -40 && x - half > lastRight && x + half < getWidth() - 230;
            if (fits) {
                g.fillText(r.name(), x, TOP - 12);
                lastRight = x + half + 8;
            }
        }
        g.setTextAlign(TextAlignment.RIGHT);
        g.fillText(model.seriesText(), getWidth() - 16, TOP - 12);
    }

    private void key(GraphicsContext g, double w, double h) {
        double y = h - 12;
        g.setFont(Palette.textFont(11));
        g.setTextBaseline(VPos.CENTER);
        g.setTextAlign(TextAlignment.LEFT);
        g.setFill(Palette.of(g).quiet());
        double x = w - 486;
        g.fillText("leaf = T60", x, y);
        x += 66;
        g.setFont(Palette.figuresFont(11));
        for (double t : new double[] {0.3, 1, 3}) {
            double length = leafLength(t);
            g.setFill(Palette.of(g).scale());
            g.fillRect(x, Math.rint(y), length, 1);
            g.setFill(Palette.of(g).quiet());
            g.fillText(t + " s", x + length + 4, y);
            x += length + 42;
        }
        if (time > 0) {
            g.setTextAlign(TextAlignment.LEFT);
            g.setFill(Palette.of(g).text());
            g.fillText(String.format(Locale.ROOT, "%.2f s after the strike", time), LEFT, y);
        }
    }

    private Reed nearest(double mouseX, double mouseY) {
        if (axis == null) {
            return null;
        }
        boolean below = mouseY > waterline() && !model.mirror().isEmpty();
        Reed best = null;
        double least = 14;
        for (Reed r : below ? model.mirror() : model.reeds()) {
            double d = Math.abs(x(r.partial().frequencyHz()) - mouseX);
            if (d < least) {
                least = d;
                best = r;
            }
        }
        return best;
    }

    private void hover(MouseEvent e) {
        Reed r = nearest(e.getX(), e.getY());
        if (r == null) {
            numbers.hide();
            return;
        }
        Partial p = r.partial();
        numbers.setText(String.format(
                Locale.ROOT,
                "%s%.2f Hz   ratio %.4f%n%.1f dB   T60 %s",
                r.name() == null ? "" : r.name() + "   ",
                p.frequencyHz(),
                p.ratio(),
                r.levelDb(),
                p.t60Seconds() == null
                        ? "not measurable"
                        : String.format(Locale.ROOT, "%.3f s%s", p.t60Seconds(), margin(p.t60SeSeconds()))));
        numbers.show(this, e.getScreenX() + 14, e.getScreenY() + 10);
    }

    private static String margin(Double se) {
        return se == null || se == 0 ? "" : String.format(Locale.ROOT, " ± %.3f", 2 * se);
    }

    private void drag(MouseEvent e) {
        if (dragAxis != null && Math.abs(e.getX() - dragFrom) >= 3) {
            double moved = (dragFrom - e.getX()) / (getWidth() - LEFT - RIGHT);
            show(dragAxis.over(dragAxis.hzAt(moved), dragAxis.hzAt(1 + moved)));
        }
    }

    private void zoom(ScrollEvent e) {
        if (axis != null && e.getDeltaY() != 0) {
            double at = (e.getX() - LEFT) / (getWidth() - LEFT - RIGHT);
            double factor = e.getDeltaY() > 0 ? 0.8 : 1.25;
            show(axis.over(axis.hzAt(at - at * factor), axis.hzAt(at + (1 - at) * factor)));
            e.consume();
        }
    }

    private void walk(int step) {
        var sorted = model.reeds().stream()
                .map(Reed::partial)
                .sorted(Comparator.comparingDouble(Partial::frequencyHz))
                .toList();
        if (!sorted.isEmpty()) {
            int at = sorted.indexOf(selected.get());
            selected.set(sorted.get(Math.max(0, Math.min(sorted.size() - 1, at + step))));
        }
    }
}
