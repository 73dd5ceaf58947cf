package nightreed.desktop.reedbed;

import java.util.Locale;
import javafx.geometry.VPos;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.text.TextAlignment;
import nightreed.desktop.drawing.Palette;
import nightreed.measure.BrightnessPath;

/** What all strips share: places on the axis of the bed, scale lines, and the marks of the two sounds. */
record StripGround(GraphicsContext g, Axis axis, double w, double h) {
    static final double LEFT = 46;
    static final double RIGHT = 14;
    private static final double[] SECONDS = {0.01, 0.03, 0.1, 0.3, 1, 3, 10, 30};

    double x(double hz) {
        return LEFT + axis.position(hz) * (w - LEFT - RIGHT);
    }

    double hzAt(double x) {
        return axis.hzAt((x - LEFT) / (w - LEFT - RIGHT));
    }

    double right() {
        return w - RIGHT;
    }

    boolean visible(double x) {
        return x >= LEFT - 2 && x <= w - RIGHT + 2;
    }

    /** Place between {@link #top} and {@link #foot}. */
    double y(double value, double low, double high) {
        return foot() - (foot() - top()) * (value - low) / (high - low);
    }

    double top() {
        return 8;
    }

    double foot() {
        return h - 8;
    }

    /** A line across at a height, named at its left end. */
    void line(double y, String name) {
        if (y > 5 && y < h - 5) {
            g.setStroke(Palette.of(g).grid());
            g.setLineWidth(1);
            g.strokeLine(LEFT, Math.rint(y) + 0.5, right(), Math.rint(y) + 0.5);
            g.setFill(Palette.of(g).quiet());
            g.setFont(Palette.figuresFont(11));
            g.setTextAlign(TextAlignment.RIGHT);
            g.setTextBaseline(VPos.CENTER);
            g.fillText(name, LEFT - 6, y);
        }
    }

    /** Lines at round times on a logarithmic axis, whose ends are logarithms of seconds. */
    void times(double low, double high) {
        for (double s : SECONDS) {
            line(y(Math.log(s), low, high), s + "s");
        }
    }

    /** Lines at whole tens of dB. */
    void levels(double low, double high, double step) {
        for (double db = Math.ceil(low / step) * step; db <= high; db += step) {
            line(y(db, low, high), String.format(Locale.ROOT, "%.0f", db));
        }
    }

    /** Words in place of what is not there. */
    void instead(String text) {
        g.setTextAlign(TextAlignment.LEFT);
        g.setTextBaseline(VPos.CENTER);
        g.setFont(Palette.textFont(12));
        g.setFill(Palette.of(g).quiet());
        g.fillText(text, LEFT, h / 2);
    }

    /** The span in which a difference would not be heard. */
    void within(double x, double top, double foot) {
        g.setFill(Palette.faint(Palette.of(g).within(), 0.28));
        g.fillRoundRect(x - 7, top, 14, foot - top, 6, 6);
    }

    /** The recording's value. */
    void mark(double x, double y, boolean chosen) {
        g.setFill(Palette.of(g).recording());
        g.fillOval(x - 3.5, y - 3.5, 7, 7);
        if (chosen) {
            g.setStroke(Palette.of(g).text());
            g.strokeOval(x - 6.5, y - 6.5, 13, 13);
        }
    }

    /** The imitation's value. */
    void ring(double x, double y, boolean audible) {
        g.setStroke(audible ? Palette.of(g).audible() : Palette.of(g).imitation());
        g.setLineWidth(1.8);
        g.strokeOval(x - 5, y - 5, 10, 10);
    }

    /** An upright line through a value: where it may lie. */
    void interval(double x, double top, double foot) {
        g.setStroke(Palette.of(g).recording());
        g.setLineWidth(1);
        g.strokeLine(x, Math.max(3, top), x, Math.min(h - 3, foot));
    }

    /** The brightness of what is weaker than this is that of the leftovers [dB]. */
    private static final double BRIGHTNESS_RANGE_DB = 40;

    /** Last frame whose brightness is worth showing; 0 if there is none. */
    static int lastClear(BrightnessPath p) {
        int last = 0;
        for (int f = 0; f < p.levelDb().length; f++) {
            last = p.levelDb()[f] > -BRIGHTNESS_RANGE_DB && p.centroidHz()[f] > 0 ? f : last;
        }
        return last;
    }

    /** The centroid as a line that runs down, in the stroke that is set, up to a frame. @param foot frame at the foot */
    void trace(BrightnessPath p, int last, int foot) {
        g.setLineWidth(2);
        g.beginPath();
        boolean begun = false;
        for (int f = 0; f <= Math.min(last, p.centroidHz().length - 1); f++) {
            double hz = p.centroidHz()[f];
            if (!(hz > 0)) {
                continue;
            }
            double x = Math.max(LEFT, Math.min(right(), x(hz)));
            double y = top() + (foot() - top()) * f / foot;
            if (begun) {
                g.lineTo(x, y);
            } else {
                g.moveTo(x, y);
                begun = true;
            }
        }
        g.stroke();
    }

    /** Lines at the quarters of a time that runs down [s]. */
    void quarters(double seconds) {
        for (int q = 1; q <= 3; q++) {
            line(top() + (foot() - top()) * q / 4, String.format(Locale.ROOT, "%.2fs", seconds * q / 4));
        }
    }
}
