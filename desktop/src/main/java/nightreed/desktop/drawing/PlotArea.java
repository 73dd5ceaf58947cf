package nightreed.desktop.drawing;

import java.util.Locale;
import java.util.function.IntToDoubleFunction;
import javafx.geometry.VPos;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.text.TextAlignment;

/**
 * The rectangle in which a plot is drawn, and what its sides stand for. All plots take their places, marks and curves from
 * here, so that they look alike.
 *
 * @param left   left side [px]
 * @param right  right side [px]
 * @param top    upper side [px]
 * @param bottom lower side [px]
 * @param across values from left to right
 * @param up     values from the lower to the upper side
 */
public record PlotArea(double left, double right, double top, double bottom, Scale across, Scale up) {
    /** Room for figures at the left, and for half a figure at the right [px]. */
    public static final double LEFT = 56;

    public static final double RIGHT = 14;

    /** Below the heading of a plot [px]. */
    public static final double TOP = 36;

    /** Height of a line of figures [px]. */
    public static final double LINE = 16;

    /** How far a curve may leave the rectangle before it is cut, as a share of its height. */
    private static final double BEYOND = 0.02;

    /**
     * What one side stands for.
     *
     * @param from   value at its start
     * @param to     value at its end
     * @param octaves whether equal lengths are equal ratios
     */
    public record Scale(double from, double to, boolean octaves) {
        public static Scale even(double from, double to) {
            return new Scale(from, to, false);
        }

        /** @param from above 0 */
        public static Scale octaves(double from, double to) {
            return new Scale(from, to, true);
        }

        double share(double v) {
            return octaves ? Math.log(v / from) / Math.log(to / from) : (v - from) / (to - from);
        }

        /** The value at a share of the side. */
        public double at(double share) {
            return octaves ? from * Math.pow(to / from, share) : from + share * (to - from);
        }
    }

    /** The usual place in a drawing: under its heading, above its marks and so many lines of words. */
    public static PlotArea within(double width, double height, int lines, Scale across, Scale up) {
        return new PlotArea(LEFT, width - RIGHT, TOP, height - 30 - LINE * lines, across, up);
    }

    public double x(double v) {
        return left + (right - left) * across.share(v);
    }

    /** Height of a value; one that is off the scale stays close to the rectangle. */
    public double y(double v) {
        return bottom - (bottom - top) * Math.max(-BEYOND, Math.min(1 + BEYOND, up.share(v)));
    }

    /** A line across at a value, with its figure at the left. */
    public void level(GraphicsContext g, double v, String figure) {
        g.setLineWidth(1);
        g.setStroke(Palette.of(g).grid());
        g.strokeLine(left, y(v), right, y(v));
        levelFigure(g, v, figure);
    }

    /** A figure at the left of a value. */
    public void levelFigure(GraphicsContext g, double v, String figure) {
        figures(g, TextAlignment.RIGHT);
        g.fillText(figure, left - 8, y(v));
    }

    /** A figure under a value. */
    public void mark(GraphicsContext g, double v, String figure) {
        figures(g, TextAlignment.CENTER);
        g.fillText(figure, Math.max(left + 14, Math.min(right - 18, x(v))), bottom + 12);
    }

    /** Four times under the plot [s], in ms where they are short. */
    public void times(GraphicsContext g) {
        boolean brief = across.to() - across.from() < 0.3;
        for (int q = 0; q <= 3; q++) {
            double t = across.at(q / 3.0);
            mark(g, t, String.format(Locale.ROOT, brief ? "%.0f ms" : "%.2f s", brief ? 1000 * t : t));
        }
    }

    /** What the values at the left are in, beside the heading. */
    public void unit(GraphicsContext g, String unit) {
        figures(g, TextAlignment.RIGHT);
        g.fillText(unit, right, 18);
    }

    /** A curve in the colour and width that are set; NaN leaves a gap. */
    public void curve(GraphicsContext g, int points, IntToDoubleFunction atX, IntToDoubleFunction atY) {
        boolean down = false;
        int stride = Math.max(1, points / Math.max(1, (int) (right - left))); // more points than pixels only cost time
        g.beginPath();
        for (int i = 0; i < points; i += stride) {
            double v = atY.applyAsDouble(i);
            if (!Double.isNaN(v) && down) {
                g.lineTo(x(atX.applyAsDouble(i)), y(v));
            } else if (!Double.isNaN(v)) {
                g.moveTo(x(atX.applyAsDouble(i)), y(v));
            }
            down = !Double.isNaN(v);
        }
        g.stroke();
    }

    /** The curve of what was measured. */
    public void measured(GraphicsContext g, int points, IntToDoubleFunction atX, IntToDoubleFunction atY) {
        g.setStroke(Palette.of(g).recording());
        g.setLineWidth(1.6);
        curve(g, points, atX, atY);
    }

    /** The dashed curve of a law that was fitted to it. */
    public void fitted(GraphicsContext g, int points, IntToDoubleFunction atX, IntToDoubleFunction atY) {
        g.setStroke(Palette.of(g).text());
        g.setLineWidth(1.2);
        g.setLineDashes(5, 4);
        curve(g, points, atX, atY);
        g.setLineDashes();
    }

    /** What the plot says, a line each, at the foot of a drawing of this height. */
    public static void words(GraphicsContext g, double height, String... lines) {
        g.setTextAlign(TextAlignment.LEFT);
        g.setTextBaseline(VPos.CENTER);
        g.setFont(Palette.figuresFont(11));
        g.setFill(Palette.of(g).text());
        for (int i = 0; i < lines.length; i++) {
            g.fillText(lines[i], 14, height - 14 - LINE * (lines.length - 1 - i));
        }
    }

    private static void figures(GraphicsContext g, TextAlignment align) {
        g.setFont(Palette.figuresFont(11));
        g.setFill(Palette.of(g).quiet());
        g.setTextBaseline(VPos.CENTER);
        g.setTextAlign(align);
    }
}
