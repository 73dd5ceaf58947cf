package nightreed.desktop.stage.measure;

import java.util.List;
import java.util.Locale;
import java.util.function.IntConsumer;
import javafx.geometry.VPos;
import javafx.scene.AccessibleRole;
import javafx.scene.Cursor;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;
import javafx.scene.input.ScrollEvent;
import javafx.scene.text.TextAlignment;
import nightreed.desktop.drawing.Drawing;
import nightreed.desktop.drawing.Palette;
import nightreed.match.sound.AnalysedSound;

/**
 * The recording with its onset and the notes in it. A drag chooses a span, whose edges can be dragged on; the wheel zooms;
 * a click on a note's mark measures that note, and a drag of it, or of the onset, chooses from there to the next note. With
 * the keyboard: Left and Right move the span, with Shift its end, Up and Down zoom, Escape steps back.
 */
final class Waveform extends Drawing {
    private static final double EDGE = 10;
    private static final double NEAR = 5;
    private static final double SHORTEST_VIEW = 0.02;
    private static final double SHORTEST_SPAN = 0.002;

    private final Runnable onSpan;
    private AnalysedSound side;
    private float[] samples = {};
    private double from; // what is seen [s]
    private double to;
    private double[] span; // what is chosen [s], null for nothing
    private Handle held = Handle.NONE;
    private double pressedAt;
    private int pressedNote = -1;

    private enum Handle {
        NONE,
        START,
        END,
        NEW,
        /** The mark of a note: the span goes from where it is dragged to the next note. */
        MARK
    }

    /**
     * @param onNote told which further note of the recording was pressed, from 1
     * @param onSpan told when a span was chosen or given up
     */
    Waveform(IntConsumer onNote, Runnable onSpan) {
        this.onSpan = onSpan;
        setId("waveform");
        setFocusTraversable(true);
        setAccessibleRole(AccessibleRole.IMAGE_VIEW);
        setAccessibleText("The recording over time");
        setAccessibleHelp("Drag to choose a span, or Left and Right, with Shift for its end. Up and Down zoom."
                + " Escape gives the span up, then shows all.");
        setOnMousePressed(this::press);
        setOnMouseDragged(this::drag);
        setOnMouseReleased(e -> {
            if (held == Handle.MARK && span == null && e.isStillSincePress()) {
                int note = noteAt(e.getX());
                if (note > 0) {
                    onNote.accept(note);
                }
            }
            held = Handle.NONE;
        });
        setOnMouseMoved(e -> setCursor(
                noteAt(e.getX()) > 0
                        ? Cursor.HAND
                        : handleAt(e.getX()) != Handle.NEW ? Cursor.H_RESIZE : Cursor.DEFAULT));
        setOnScroll(this::wheel);
        setOnKeyPressed(this::key);
        focusedProperty().addListener((o, a, b) -> redraw());
    }

    void show(AnalysedSound s) {
        boolean other = s == null || side == null || s.clip() != side.clip();
        side = s;
        if (other) {
            samples = s == null ? new float[0] : s.clip().mixedFloats();
            from = 0;
            to = s == null ? 0 : s.clip().seconds();
            choose(null);
        }
        redraw();
    }

    /** The chosen span, start and end [s]; null if none is. */
    double[] span() {
        return span == null ? null : span.clone();
    }

    private void choose(double[] next) {
        span = next;
        setAccessibleText(
                span == null
                        ? "The recording over time"
                        : String.format(
                                Locale.ROOT, "The recording over time, %.3f to %.3f seconds chosen", span[0], span[1]));
        redraw();
        onSpan.run();
    }

    // ---- places ----

    private double x(double seconds) {
        return EDGE + (getWidth() - 2 * EDGE) * (seconds - from) / (to - from);
    }

    private double seconds(double x) {
        double t = from + (to - from) * (x - EDGE) / Math.max(1, getWidth() - 2 * EDGE);
        return Math.max(0, Math.min(side.clip().seconds(), t));
    }

    /** Number of the note whose mark is at a place, 0 for the one that was measured; -1 if there is none. */
    private int noteAt(double x) {
        if (side == null) {
            return -1;
        }
        for (int i = 0; i < side.measurement().noteOnsets().size(); i++) {
            if (Math.abs(x(mark(i)) - x) < NEAR) {
                return i;
            }
        }
        return -1;
    }

    private double mark(int note) {
        return note == 0
                ? side.measurement().onsetSeconds()
                : side.measurement().noteOnsets().get(note);
    }

    private Handle handleAt(double x) {
        if (span != null && Math.abs(x(span[0]) - x) < NEAR) {
            return Handle.START;
        }
        if (span != null && Math.abs(x(span[1]) - x) < NEAR) {
            return Handle.END;
        }
        return noteAt(x) >= 0 ? Handle.MARK : Handle.NEW;
    }

    // ---- mouse and keys ----

    private void press(MouseEvent e) {
        requestFocus();
        if (side == null) {
            return;
        }
        held = handleAt(e.getX());
        pressedAt = seconds(e.getX());
        pressedNote = noteAt(e.getX());
        if ((held == Handle.NEW || held == Handle.MARK) && span != null) {
            choose(null);
        }
    }

    private void drag(MouseEvent e) {
        if (side == null || held == Handle.NONE) {
            return;
        }
        double t = seconds(e.getX());
        boolean away = span != null || Math.abs(x(pressedAt) - e.getX()) > 3;
        if (held == Handle.MARK) {
            boolean last = pressedNote + 1 >= side.measurement().noteOnsets().size();
            double end = last ? side.clip().seconds() : mark(pressedNote + 1);
            if (away && t < end) {
                choose(ordered(t, end));
            }
        } else if (held == Handle.NEW) {
            if (away) {
                choose(ordered(pressedAt, t));
            }
        } else {
            double other = held == Handle.START ? span[1] : span[0];
            choose(ordered(other, t));
            held = t < other ? Handle.START : Handle.END;
        }
    }

    private double[] ordered(double a, double b) {
        double low = Math.min(a, b);
        return new double[] {low, Math.max(Math.max(a, b), low + SHORTEST_SPAN)};
    }

    private void wheel(ScrollEvent e) {
        if (side != null && e.getDeltaY() != 0) {
            zoom(e.getDeltaY() > 0 ? 0.7 : 1 / 0.7, seconds(e.getX()));
            e.consume();
        }
    }

    private void zoom(double factor, double around) {
        double all = side.clip().seconds();
        double length = Math.max(Math.min(SHORTEST_VIEW, all), Math.min(all, (to - from) * factor));
        double share = (around - from) / (to - from);
        from = Math.max(0, Math.min(all - length, around - share * length));
        to = from + length;
        redraw();
    }

    private void key(KeyEvent e) {
        if (side == null) {
            return;
        }
        KeyCode code = e.getCode();
        double step = (to - from) / 50;
        double all = side.clip().seconds();
        if (code == KeyCode.LEFT || code == KeyCode.RIGHT) {
            double move = code == KeyCode.LEFT ? -step : step;
            if (span == null) {
                double start = Math.max(from, side.measurement().onsetSeconds());
                choose(ordered(start, Math.min(all, start + (to - from) / 5)));
            } else if (e.isShiftDown()) {
                choose(ordered(span[0], Math.min(all, Math.max(span[0] + SHORTEST_SPAN, span[1] + move))));
            } else {
                double by = Math.max(-span[0], Math.min(all - span[1], move));
                choose(ordered(span[0] + by, span[1] + by));
            }
        } else if (code == KeyCode.UP || code == KeyCode.DOWN) {
            double around = span == null ? side.measurement().onsetSeconds() : (span[0] + span[1]) / 2;
            zoom(code == KeyCode.UP ? 0.7 : 1 / 0.7, Math.max(from, Math.min(to, around)));
        } else if (code == KeyCode.ESCAPE && span != null) {
            choose(null);
        } else if (code == KeyCode.ESCAPE && to - from < all) {
            from = 0;
            to = all;
            redraw();
        } else {
            return;
        }
        e.consume();
    }

    // ---- drawing ----

    @Override
    protected void paint(GraphicsContext g, double w, double h) {
        ground(g, w, h);
        if (samples.length == 0 || w < 20) {
            return;
        }
        wave(g, w, h);
        chosen(g, h);
        onset(g, w, h);
        notes(g, h);
        extent(g, w, h);
        if (isFocused()) {
            g.setStroke(Palette.of(g).imitation());
            g.setLineWidth(1);
            g.strokeRoundRect(0.5, 0.5, w - 1, h - 1, 14, 14);
        }
    }

    /** How much of the recording is seen. */
    private void extent(GraphicsContext g, double w, double h) {
        double length = side.clip().seconds();
        String text = to - from >= length
                ? String.format(Locale.ROOT, "%.2f s", length)
                : String.format(Locale.ROOT, "%.3f to %.3f of %.2f s", from, to, length);
        double wide = 6.2 * text.length() + 4;
        g.setFill(Palette.of(g).panel());
        g.fillRect(w - 12 - wide, h - 20, wide + 2, 15);
        g.setFont(Palette.textFont(11));
        g.setTextAlign(TextAlignment.RIGHT);
        g.setTextBaseline(VPos.BOTTOM);
        g.setFill(Palette.of(g).quiet());
        g.fillText(text, w - 12, h - 6);
    }

    private void wave(GraphicsContext g, double w, double h) {
        double peak = Math.max(1e-6, side.clip().peak());
        double fs = side.clip().sampleRateHz();
        g.setFill(Palette.of(g).recording().deriveColor(0, 1, 0.72, 1));
        double perPixel = (to - from) * fs / (w - 2 * EDGE);
        for (int px = (int) EDGE; px < w - EDGE; px++) {
            int first = (int) (from * fs + (px - EDGE) * perPixel);
            int last = (int) Math.min(samples.length, Math.max(first + 1, from * fs + (px - EDGE + 1) * perPixel));
            float low = 0;
            float high = 0;
            for (int i = Math.max(0, first); i < last; i++) {
                low = Math.min(low, samples[i]);
                high = Math.max(high, samples[i]);
            }
            double half = h / 2 - 6;
            double top = h / 2 - high / peak * half - 0.5; // a rectangle: no shape to trace
            g.fillRect(px, top, 1, h / 2 - low / peak * half + 0.5 - top);
        }
    }

    private void chosen(GraphicsContext g, double h) {
        if (span == null) {
            return;
        }
        double left = Math.max(EDGE, x(span[0]));
        double right = Math.min(getWidth() - EDGE, x(span[1]));
        if (right < left) {
            return;
        }
        g.setFill(Palette.faint(Palette.of(g).within(), 0.22));
        g.fillRect(left, 3, right - left, h - 6);
        g.setFill(Palette.of(g).within());
        for (double x : new double[] {left, right}) {
            g.fillRect(x - 1, 3, 2, h - 6);
            g.fillRect(x - 3, h / 2 - 9, 6, 18);
        }
    }

    private void onset(GraphicsContext g, double w, double h) {
        double x = x(side.measurement().onsetSeconds());
        if (x < EDGE || x > w - EDGE) {
            return;
        }
        g.setStroke(Palette.of(g).text());
        g.setLineWidth(1);
        g.strokeLine(x, 4, x, h - 4);
        g.setFont(Palette.textFont(11));
        g.setTextBaseline(VPos.TOP);
        boolean roomRight = x < w - 120;
        g.setTextAlign(roomRight ? TextAlignment.LEFT : TextAlignment.RIGHT);
        String label =
                String.format(Locale.ROOT, "onset %.3f s", side.measurement().onsetSeconds());
        double labelX = x + (roomRight ? 6 : -6);
        g.setFill(Palette.of(g).panel());
        g.fillRect(roomRight ? labelX - 2 : labelX - 84, 5, 86, 15);
        g.setFill(Palette.of(g).text());
        g.fillText(label, labelX, 6);
    }

    /** Where further notes begin; a click measures one of them. */
    private void notes(GraphicsContext g, double h) {
        List<Double> onsets = side.measurement().noteOnsets();
        g.setStroke(Palette.of(g).imitation());
        g.setFill(Palette.of(g).imitation());
        g.setFont(Palette.textFont(11));
        g.setTextAlign(TextAlignment.LEFT);
        g.setTextBaseline(VPos.BOTTOM);
        g.setLineDashes(4, 3);
        for (int i = 1; i < onsets.size(); i++) {
            double x = x(onsets.get(i));
            if (x >= EDGE && x <= getWidth() - EDGE) {
                g.strokeLine(x, 4, x, h - 4);
                g.fillText(Integer.toString(i + 1), x + 3, h - 5);
            }
        }
        g.setLineDashes();
    }
}
