package nightreed.desktop.reedbed;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.function.DoubleUnaryOperator;
import javafx.geometry.VPos;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.text.TextAlignment;
import nightreed.desktop.drawing.Palette;

/**
 * Rings on the water where a difference is heard.
 *
 * @param x     where a frequency lies [px]
 * @param left  edge of what is drawn on [px]
 * @param right likewise
 */
record Ripples(DoubleUnaryOperator x, double left, double right) {
    /** Distance of two ripples that are both seen, as a share of how far both reach. */
    private static final double APART = 0.7;

    /** Of ripples that would run into each other, the one that is heard most. */
    List<BedModel.Ripple> apart(List<BedModel.Ripple> all) {
        List<BedModel.Ripple> out = new ArrayList<>();
        for (BedModel.Ripple r :
                all.stream().sorted(Comparator.comparingDouble(q -> -q.jnd())).toList()) {
            if (out.stream()
                    .noneMatch(o -> Math.abs(x.applyAsDouble(o.hz()) - x.applyAsDouble(r.hz()))
                            < APART * (reach(o) + reach(r)))) {
                out.add(r);
            }
        }
        out.sort(Comparator.comparingDouble(BedModel.Ripple::hz));
        return out;
    }

    /** To each side [px]. */
    private static double reach(BedModel.Ripple r) {
        return 10 + 7 * Math.min(8, r.jnd());
    }

    void draw(GraphicsContext g, BedModel.Ripple r, double water) {
        double at = x.applyAsDouble(r.hz());
        if (at < left || at > right) {
            return;
        }
        double wide = reach(r);
        g.setFill(Palette.faint(Palette.of(g).audible(), 0.16));
        g.fillOval(at - wide, water - 7, 2 * wide, 14);
        g.setStroke(Palette.of(g).audible());
        g.setLineWidth(1.1);
        for (double s = 1; s > 0.3; s -= 0.3) {
            g.strokeOval(at - wide * s, water - 7 * s, 2 * wide * s, 14 * s);
        }
    }

    /** @return where the next text has room */
    double text(GraphicsContext g, BedModel.Ripple r, double water, double taken) {
        double at = x.applyAsDouble(r.hz());
        if (at + 9 >= taken && at >= left && at <= right - 40) {
            g.setFont(Palette.figuresFont(11));
            g.setTextBaseline(VPos.BOTTOM);
            g.setTextAlign(TextAlignment.LEFT);
            String text = String.format(Locale.ROOT, "%.1f JND", r.jnd());
            g.setFill(Palette.of(g).panel());
            g.fillRect(at + 9, water - 25, 7 * text.length() + 4, 14);
            g.setFill(Palette.of(g).audible());
            g.fillText(text, at + 11, water - 11);
            return at + 9 + 7 * text.length() + 6;
        }
        return taken;
    }
}
