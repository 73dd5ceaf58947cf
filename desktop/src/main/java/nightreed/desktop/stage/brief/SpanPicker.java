package nightreed.desktop.stage.brief;

import java.util.Locale;
import javafx.beans.property.ReadOnlyDoubleProperty;
import javafx.beans.property.ReadOnlyDoubleWrapper;
import javafx.geometry.VPos;
import javafx.scene.AccessibleRole;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;
import javafx.scene.text.TextAlignment;
import nightreed.desktop.drawing.Drawing;
import nightreed.desktop.drawing.Palette;
import nightreed.sound.file.Outline;

/**
 * The outline of a long file with a span on it. A press moves the nearer edge there and a drag takes it along; with the
 * keyboard, arrows move the span, with Shift its end.
 */
final class SpanPicker extends Drawing {
    private static final double SIDE = 12;
    private final ReadOnlyDoubleWrapper from = new ReadOnlyDoubleWrapper();
    private final ReadOnlyDoubleWrapper to = new ReadOnlyDoubleWrapper();
    private Outline outline;
    private double longest = 60;
    private boolean dragsEnd;

    SpanPicker() {
        setId("span-picker");
        setFocusTraversable(true);
        setAccessibleRole(AccessibleRole.SLIDER);
        setAccessibleText("Span of the file to take in");
        setAccessibleHelp("Left and Right move the span, with Shift they move its end, with Ctrl in large steps.");
        setMinHeight(96);
        setPrefHeight(96);
        setOnMousePressed(e -> {
            requestFocus();
            double t = seconds(e.getX());
            dragsEnd = Math.abs(t - to.get()) < Math.abs(t - from.get());
            drag(e);
        });
        setOnMouseDragged(this::drag);
        setOnKeyPressed(this::key);
        focusedProperty().addListener((o, a, b) -> redraw());
    }

    ReadOnlyDoubleProperty fromProperty() {
        return from.getReadOnlyProperty();
    }

    ReadOnlyDoubleProperty toProperty() {
        return to.getReadOnlyProperty();
    }

    /** Shows a file; the span is put on its loudest moment. @param longestSeconds longest span that may be chosen */
    void show(Outline o, double longestSeconds) {
        outline = o;
        longest = longestSeconds;
        int loudest = 0;
        for (int i = 0; i < o.peaks().length; i++) {
            loudest = o.peaks()[i] > o.peaks()[loudest] ? i : loudest;
        }
        double at = loudest * o.stretchSeconds();
        set(at - 0.3, at + 5);
    }

    private void set(double a, double b) {
        double end = outline.seconds();
        double start = Math.max(0, Math.min(a, end - 0.2));
        from.set(start);
        to.set(Math.max(start + 0.2, Math.min(Math.min(b, end), start + longest)));
        redraw();
    }

    private double seconds(double x) {
        return outline == null ? 0 : (x - SIDE) / (getWidth() - 2 * SIDE) * outline.seconds();
    }

    private void drag(MouseEvent e) {
        if (outline != null) {
            double t = seconds(e.getX());
            if (dragsEnd) {
                set(from.get(), Math.max(t, from.get() + 0.2));
            } else {
                set(t, Math.max(to.get(), t + 0.2));
            }
        }
    }

    private void key(KeyEvent e) {
        int direction = e.getCode() == KeyCode.RIGHT ? 1 : e.getCode() == KeyCode.LEFT ? -1 : 0;
        if (direction != 0 && outline != null) {
            double step = direction * (e.isControlDown() ? 10 : 0.5);
            set(e.isShiftDown() ? from.get() : from.get() + step, to.get() + step);
            e.consume();
        }
    }

    @Override
    protected void paint(GraphicsContext g, double w, double h) {
        Palette ink = Palette.of(g);
        ground(g, w, h);
        if (outline == null || outline.peaks().length == 0) {
            return;
        }
        double scale = (w - 2 * SIDE) / outline.seconds();
        double a = SIDE + from.get() * scale;
        double b = Math.max(a + 2, SIDE + to.get() * scale);
        g.setFill(Palette.faint(ink.within(), 0.25));
        g.fillRect(a, 4, b - a, h - 22);
        g.setFill(ink.recording());
        double middle = (h - 18) / 2;
        for (int px = (int) SIDE; px < w - SIDE; px++) {
            int first = (int) ((px - SIDE) / (w - 2 * SIDE) * outline.peaks().length);
            int last = Math.max(first + 1, (int) ((px + 1 - SIDE) / (w - 2 * SIDE) * outline.peaks().length));
            float p = 0;
            for (int i = first; i < Math.min(last, outline.peaks().length); i++) {
                p = Math.max(p, outline.peaks()[i]);
            }
            double half = Math.max(0.5, Math.min(1, p) * (middle - 6));
            g.fillRect(px, middle - half, 1, 2 * half);
        }
        g.setFill(isFocused() ? ink.imitation() : ink.text());
        g.fillRect(a - 1, 4, 2, h - 22);
        g.fillRect(b - 1, 4, 2, h - 22);
        g.setFont(Palette.figuresFont(11));
        g.setTextBaseline(VPos.BOTTOM);
        g.setTextAlign(TextAlignment.LEFT);
        g.setFill(ink.quiet());
        g.fillText(String.format(Locale.ROOT, "%.1f to %.1f s", from.get(), to.get()), SIDE, h - 3);
        g.setTextAlign(TextAlignment.RIGHT);
        g.fillText(String.format(Locale.ROOT, "of %.1f s", outline.seconds()), w - SIDE, h - 3);
    }
}
