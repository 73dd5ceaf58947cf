package nightreed.desktop.stage;

import java.util.List;
import java.util.Locale;
import javafx.geometry.VPos;
import javafx.scene.AccessibleRole;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;
import javafx.scene.paint.Color;
import javafx.scene.text.TextAlignment;
import nightreed.desktop.drawing.Drawing;
import nightreed.desktop.drawing.Palette;
import nightreed.desktop.workspace.MethodNames;
import nightreed.desktop.workspace.SimplerPatches;
import nightreed.desktop.workspace.Workspace;
import nightreed.desktop.workspace.WorkspaceState;
import nightreed.match.frontier.Frontier;
import nightreed.match.frontier.Frontier.Point;
import nightreed.match.method.Starts;
import nightreed.recipe.Recipe;
import nightreed.recipe.size.PatchSize;

/**
 * The patches that were found, from simpler on the left to nearer on the right: how many values each takes and how far off it is, the
 * method by the shape of its mark. A press, a drag or the arrow keys put one on the bench.
 */
public final class SimplerLine extends Drawing {
    private static final double LEFT = 92;
    private static final double RIGHT = 92;
    private static final double TOP = 24;
    private static final double BOTTOM = 20;

    /** Room between two labels [px]. */
    private static final double APART = 46;

    /** Room for a number of values and the name of a method behind it [px]. */
    private static final double NAME_ROOM = 100;

    private static final double MARK = 5;

    private final Workspace bench;
    private final Tooltip tip = new Tooltip();
    private Frontier line;
    private int size; // of what is on the bench
    private double jnd;
    private boolean compared;
    private int at = -1; // point on the bench
    private boolean follows;
    private Recipe pressedAt;

    public SimplerLine(Workspace bench, String id) {
        this.bench = bench;
        setId(id);
        setMinHeight(72);
        setPrefHeight(72);
        setMaxHeight(72);
        setFocusTraversable(true);
        setAccessibleRole(AccessibleRole.SLIDER);
        Tooltip.install(this, tip);
        addEventHandler(MouseEvent.MOUSE_PRESSED, e -> {
            requestFocus();
            pressedAt = bench.state().recipe();
            walk(nearest(e.getX()), false);
            e.consume();
        });
        addEventHandler(MouseEvent.MOUSE_DRAGGED, e -> walk(nearest(e.getX()), false));
        addEventHandler(MouseEvent.MOUSE_RELEASED, e -> {
            if (bench.state().recipe() != pressedAt) { // one edit for the whole drag, none where nothing changed
                walk(nearest(e.getX()), true);
            }
        });
        addEventHandler(MouseEvent.MOUSE_MOVED, e -> {
            int k = nearest(e.getX());
            tip.setText(k < 0 ? "" : words(line.points().get(k)));
        });
        addEventHandler(KeyEvent.KEY_PRESSED, this::key);
        focusedProperty().addListener((o, was, is) -> redraw());
    }

    /** Shows what there is; takes no room where there is nothing. */
    public void fill(WorkspaceState s) {
        SimplerPatches simpler = bench.simpler();
        line = s.recording() == null || s.recipe() == null ? null : simpler.line();
        setVisible(line != null);
        setManaged(line != null);
        if (line == null) {
            return;
        }
        size = PatchSize.of(s.recipe());
        follows = PatchSize.followsRecording(s.recipe());
        compared = s.comparison() != null;
        jnd = compared ? s.comparison().totalJnd() : 0;
        Point here = simpler.here();
        at = here == null ? -1 : line.points().indexOf(here);
        setAccessibleText("From simpler to nearer: " + words());
        redraw();
    }

    /** What is on the bench takes and gives. */
    String words() {
        if (at >= 0) {
            return words(line.points().get(at));
        }
        String what = follows ? "it follows the recording, and is no patch" : size + " values, none of these patches";
        return what + (compared ? String.format(Locale.ROOT, ", %.1f JND", jnd) : "");
    }

    private String words(Point p) {
        return line.words(p, MethodNames.of(p.method()));
    }

    private void key(KeyEvent e) {
        int to = switch (e.getCode()) {
            case LEFT, DOWN -> at < 0 ? beside(-1) : at - 1;
            case RIGHT, UP -> at < 0 ? beside(1) : at + 1;
            case HOME -> 0;
            case END -> line == null ? -1 : line.points().size() - 1;
            default -> -2;
        };
        if (to == -2 || line == null) {
            return;
        }
        int held = Math.max(0, Math.min(line.points().size() - 1, to));
        if (held != at) {
            walk(held, true);
        }
        e.consume();
    }

    /** The next simpler or nearer point where what is on the bench is none of them. */
    private int beside(int way) {
        List<Point> all = line == null ? List.of() : line.points();
        int found = way < 0 ? 0 : all.size() - 1;
        for (int i = 0; i < all.size(); i++) {
            if (way < 0 && all.get(i).size() < size) {
                found = i;
            }
            if (way > 0 && all.get(all.size() - 1 - i).size() > size) {
                found = all.size() - 1 - i;
            }
        }
        return found;
    }

    private void walk(int to, boolean settled) {
        if (line == null || to < 0 || to == at && !settled) {
            return;
        }
        bench.simpler().walkTo(line.points().get(to), settled);
    }

    private int nearest(double x) {
        if (line == null) {
            return -1;
        }
        int best = 0;
        for (int i = 0; i < line.points().size(); i++) {
            best = Math.abs(x(i) - x) < Math.abs(x(best) - x) ? i : best;
        }
        return best;
    }

    private double x(int point) {
        return x((double) line.points().get(point).size());
    }

    /** Twice the values are as far on anywhere. */
    private double x(double values) {
        double least = Math.log(line.simplest().size());
        double most = Math.log(Math.max(line.nearest().size(), line.simplest().size() + 1));
        double share = (Math.log(Math.max(1, values)) - least) / (most - least);
        return LEFT + Math.max(-0.03, Math.min(1.03, share)) * (getWidth() - LEFT - RIGHT);
    }

    private double y(double totalJnd) {
        double most = Math.max(2, line.simplest().totalJnd());
        return TOP + (getHeight() - TOP - BOTTOM) * (1 - Math.min(1, totalJnd / most));
    }

    @Override
    protected void paint(GraphicsContext g, double w, double h) {
        Palette colours = Palette.of(g);
        ground(g, w, h);
        if (line == null) {
            return;
        }
        g.setFont(Palette.textFont(12));
        g.setFill(colours.quiet());
        g.setTextBaseline(VPos.CENTER);
        g.setTextAlign(TextAlignment.LEFT);
        g.fillText("simpler", 14, h / 2);
        g.setTextAlign(TextAlignment.RIGHT);
        g.fillText("nearer", w - 14, h / 2);
        g.setStroke(Palette.faint(colours.quiet(), 0.5));
        g.setLineWidth(1);
        List<Point> all = line.points();
        for (int i = 1; i < all.size(); i++) {
            g.strokeLine(
                    x(i - 1), y(all.get(i - 1).totalJnd()), x(i), y(all.get(i).totalJnd()));
        }
        boolean several = all.stream().map(Point::method).distinct().count() > 1;
        double labelled = Double.NEGATIVE_INFINITY;
        for (int i = 0; i < all.size(); i++) {
            Point p = all.get(i);
            boolean here = i == at;
            mark(g, p.method(), x(i), y(p.totalJnd()), here ? colours.imitation() : colours.quiet(), here);
            boolean roomBefore = x(i) - labelled > APART;
            boolean roomForHere = at < 0 || here || Math.abs(x(i) - x(at)) > APART;
            if (roomBefore && roomForHere || here) {
                g.setTextAlign(TextAlignment.CENTER);
                g.setFont(Palette.figuresFont(11));
                g.setFill(here ? colours.text() : colours.quiet());
                boolean covered = at < 0 && compared && Math.abs(x(i) - x((double) size)) < APART / 2;
                if (!covered) {
                    g.fillText(String.format(Locale.ROOT, "%.1f", p.totalJnd()), x(i), y(p.totalJnd()) - 12);
                }
                g.fillText(String.valueOf(p.size()), x(i), h - 10);
                labelled = x(i);
                boolean changes = i == 0 || !all.get(i - 1).method().equals(p.method());
                boolean room = i + 1 == all.size() || x(i + 1) - x(i) > NAME_ROOM;
                if (several && changes && room) {
                    g.setTextAlign(TextAlignment.LEFT);
                    g.setFont(Palette.textFont(11));
                    g.fillText(MethodNames.of(p.method()), x(i) + 12, h - 10);
                }
            }
        }
        if (at < 0 && compared) { // none of the patches, such as one that was changed by hand
            g.setStroke(colours.imitation());
            g.setLineWidth(2);
            g.strokeOval(x((double) size) - MARK, y(jnd) - MARK, 2 * MARK, 2 * MARK);
            g.setTextAlign(TextAlignment.CENTER);
            g.setFont(Palette.figuresFont(11));
            g.setFill(colours.text());
            g.fillText(String.format(Locale.ROOT, "%.1f", jnd), x((double) size), y(jnd) - 12);
        }
        if (isFocused()) {
            g.setStroke(colours.imitation());
            g.setLineWidth(1);
            g.strokeRoundRect(1.5, 1.5, w - 3, h - 3, 8, 8);
        }
    }

    /** A method's own shape. */
    private static void mark(GraphicsContext g, String method, double x, double y, Color colour, boolean large) {
        double r = large ? MARK + 2 : MARK;
        g.setFill(colour);
        g.setStroke(colour);
        g.setLineWidth(2);
        switch (Starts.METHODS.indexOf(method)) {
            case 0 -> g.fillOval(x - r, y - r, 2 * r, 2 * r);
            case 1 -> g.fillPolygon(new double[] {x - r, x, x + r}, new double[] {y + r, y - r, y + r}, 3);
            case 2 -> g.strokeOval(x - r, y - r, 2 * r, 2 * r);
            case 3 -> g.fillRect(x - r, y - r, 2 * r, 2 * r);
            case 4 -> {
                g.strokeLine(x, y - r, x, y + r);
                g.strokeLine(x - r, y, x + r, y);
            }
            default -> g.fillPolygon(new double[] {x - r, x, x + r, x}, new double[] {y, y - r, y, y + r}, 4);
        }
    }
}
