package nightreed.desktop.ruler;

import java.util.Locale;
import javafx.geometry.Pos;
import javafx.geometry.VPos;
import javafx.scene.AccessibleRole;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.control.Label;
import javafx.scene.control.SkinBase;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.text.TextAlignment;
import nightreed.desktop.drawing.Drawing;
import nightreed.desktop.drawing.Palette;
import nightreed.match.advice.Tolerances;
import nightreed.recipe.part.Parameter;

/** How a ruler looks, and what hands and keys do to it: name, number and unit over a line with a tab. */
final class RulerSkin extends SkinBase<Ruler> {
    /** Room beside the line for half a tab [px]. */
    private static final double SIDE = 10;

    /** Width of the bar that tells how strongly the value moves the match [px]. */
    private static final double BAR = 40;

    private final Ruler ruler;
    private final Parameter parameter;
    private final TextField number = new TextField();
    private final Line line;
    private Parameter ruled; // the part of the range on the line

    RulerSkin(Ruler ruler) {
        super(ruler);
        this.ruler = ruler;
        this.parameter = ruler.parameter();
        this.ruled = parameter;
        this.line = new Line();
        getChildren().add(new VBox(head(), line));
        registerChangeListener(ruler.valueProperty(), o -> follow());
        registerChangeListener(ruler.valueChangingProperty(), o -> follow());
        registerChangeListener(ruler.fittedProperty(), o -> follow());
        registerChangeListener(ruler.spanProperty(), o -> line.redraw());
        follow();
    }

    private HBox head() {
        Label name = new Label(parameter.name());
        name.getStyleClass().add("ruler-name");
        name.setMinWidth(30);
        Tooltip.install(name, new Tooltip(parameter.meaning()));
        number.getStyleClass().add("ruler-number");
        number.setId("number-" + parameter.id());
        boolean named = !parameter.choices().isEmpty();
        number.setPrefColumnCount(named ? 13 : 6);
        // as wide as its longest choice needs; a switch leaves the name its room
        int longest =
                parameter.choices().stream().mapToInt(String::length).max().orElse(0);
        number.setMaxWidth(named && longest > 6 ? 132 : 78);
        number.setMinWidth(62);
        number.setAlignment(Pos.CENTER_RIGHT);
        number.setAccessibleText(parameter.name() + " in " + parameter.unit());
        number.setOnAction(e -> typed());
        number.focusedProperty().addListener((o, was, is) -> {
            if (!is) {
                typed();
            }
        });
        Label unit = new Label(parameter.unit());
        unit.getStyleClass().add("ruler-unit");
        unit.setMinWidth(38);
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        Label tag = new Label();
        tag.getStyleClass().add("ruler-tag");
        tag.textProperty().bind(ruler.tagProperty());
        tag.visibleProperty().bind(ruler.tagProperty().isNotNull());
        tag.managedProperty().bind(tag.visibleProperty());
        tag.setMinWidth(Region.USE_PREF_SIZE);
        HBox head = new HBox(4, name, tag, gap, number, unit);
        head.setAlignment(Pos.BASELINE_LEFT);
        return head;
    }

    private void typed() {
        String text = number.getText().trim();
        if (text.equals(parameter.format(ruler.getValue()))) {
            return;
        }
        Double v = parameter.parse(text);
        if (v != null) {
            move(v);
        } else {
            number.getStyleClass().add("wrong");
            String wanted =
                    parameter.choices().isEmpty() ? "a number" : "one of " + String.join(", ", parameter.choices());
            Tooltip.install(number, new Tooltip("'" + text + "' is not " + wanted + "; the value stays as it was."));
        }
        number.setText(parameter.format(ruler.getValue()));
    }

    private void move(double v) {
        number.getStyleClass().remove("wrong");
        ruler.valueProperty().set(parameter.clamp(v));
        number.setText(parameter.format(ruler.getValue()));
    }

    /** Brings number and line up to date; the part of the range on the line moves only if the hand is off it. */
    private void follow() {
        if (!ruler.isValueChanging()) {
            double v = ruler.getValue();
            Double fitted = ruler.fittedProperty().get();
            ruled = parameter.around(fitted == null ? v : fitted);
            if (ruled.position(v) <= 0 || ruled.position(v) >= 1) {
                ruled = parameter.around(v);
            }
            if (!number.isFocused()) {
                number.setText(parameter.format(v));
            }
        }
        line.redraw();
    }

    /** The line with its tab. */
    private final class Line extends Drawing {
        Line() {
            setFocusTraversable(true);
            setAccessibleRole(AccessibleRole.SLIDER);
            setAccessibleText(parameter.name());
            setAccessibleHelp(parameter.meaning());
            setMinHeight(31);
            setPrefHeight(31);
            getStyleClass().add("ruler-line");
            setId("line-" + parameter.id());
            focusedProperty().addListener((o, a, b) -> redraw());
            setOnMousePressed(this::press);
            setOnMouseDragged(e -> {
                if (ruler.isValueChanging()) {
                    move(ruled.at((e.getX() - SIDE) / room()));
                }
            });
            setOnMouseReleased(e -> ruler.valueChangingProperty().set(false));
            setOnKeyPressed(this::key);
        }

        private void press(MouseEvent e) {
            requestFocus();
            Double fitted = ruler.fittedProperty().get();
            if (e.getClickCount() == 2 && fitted != null) {
                ruler.valueChangingProperty().set(false);
                move(fitted);
            } else if (e.getX() <= SIDE + room() + 4) {
                ruler.valueChangingProperty().set(true);
                move(ruled.at((e.getX() - SIDE) / room()));
            }
        }

        private void key(KeyEvent e) {
            int direction = e.getCode() == KeyCode.RIGHT || e.getCode() == KeyCode.UP
                    ? 1
                    : e.getCode() == KeyCode.LEFT || e.getCode() == KeyCode.DOWN ? -1 : 0;
            if (direction != 0 && !e.isAltDown()) {
                double step = parameter.law() == Parameter.Law.CHOICE
                        ? 1.0 / (parameter.choices().size() - 1)
                        : e.isShiftDown() ? 0.001 : e.isControlDown() ? 0.05 : 0.01;
                move(ruled.at(ruled.position(ruler.getValue()) + direction * step));
                e.consume();
            } else if (e.getCode() == KeyCode.HOME && ruler.fittedProperty().get() != null) {
                move(ruler.fittedProperty().get());
                e.consume();
            }
        }

        private double room() {
            return Math.max(20, getWidth() - 2 * SIDE - BAR - 6);
        }

        @Override
        protected void paint(GraphicsContext g, double w, double h) {
            double y = 9.5;
            g.clearRect(0, 0, w, h);
            Tolerances.Span span = ruler.spanProperty().get();
            if (span != null) {
                double a = SIDE + ruled.position(span.low()) * room();
                double b = SIDE + ruled.position(span.high()) * room();
                g.setFill(Palette.faint(Palette.of(g).within(), 0.32));
                g.fillRoundRect(a, y - 6, Math.max(3, b - a), 12, 5, 5);
            }
            g.setStroke(isFocused() ? Palette.of(g).imitation() : Palette.of(g).scale());
            g.setLineWidth(isFocused() ? 2 : 1);
            g.strokeLine(SIDE, y, SIDE + room(), y);
            ticks(g, y);
            Double fitted = ruler.fittedProperty().get();
            if (fitted != null) {
                double x = Math.rint(SIDE + ruled.position(fitted) * room()) + 0.5;
                g.setStroke(Palette.of(g).recording());
                g.setLineWidth(2);
                g.strokeLine(x, y - 8, x, y + 6);
            }
            double x = SIDE + ruled.position(ruler.getValue()) * room();
            g.setFill(Palette.of(g).imitation());
            g.fillPolygon(
                    new double[] {x, x + 6, x + 6, x - 6, x - 6},
                    new double[] {y - 3, y + 3, y + 11, y + 11, y + 3},
                    5);
            effect(g, w, y, span);
        }

        private void ticks(GraphicsContext g, double y) {
            g.setFont(Palette.figuresFont(11));
            g.setFill(Palette.of(g).quiet());
            g.setTextBaseline(VPos.TOP);
            g.setTextAlign(TextAlignment.CENTER);
            g.setStroke(Palette.of(g).scale());
            g.setLineWidth(1);
            double tab = SIDE + ruled.position(ruler.getValue()) * room();
            for (double p : new double[] {0, 0.5, 1}) {
                double x = Math.rint(SIDE + p * room()) + 0.5;
                g.strokeLine(x, y - 3, x, y + 3);
                if (Math.abs(x - tab) > 26) {
                    String text = parameter.law() == Parameter.Law.CHOICE
                            ? (p == 0.5 ? "" : shortened(parameter.format(ruled.at(p))))
                            : shortly(ruled.at(p), ruled.least() > 0 && ruled.most() / ruled.least() < 1.5);
                    double half = Math.max(16, 3.4 * text.length());
                    g.fillText(text, Math.max(half, Math.min(SIDE + room() + 10 - half, x)), y + 6);
                }
            }
        }

        private void effect(GraphicsContext g, double w, double y, Tolerances.Span span) {
            double left = w - BAR;
            g.setFill(Palette.of(g).raised());
            g.fillRoundRect(left, y - 3, BAR - 2, 6, 6, 6);
            if (span != null) {
                double share = Math.min(1, span.effect() / 2);
                g.setFill(share > 0.5 ? Palette.of(g).audible() : Palette.of(g).quiet());
                g.fillRoundRect(left, y - 3, Math.max(3, share * (BAR - 2)), 6, 6, 6);
            }
        }
    }

    private static String shortened(String name) {
        return name.length() > 8 ? name.substring(0, 7) + "." : name;
    }

    private static String shortly(double v, boolean narrow) {
        if (narrow) {
            return String.format(Locale.ROOT, "%.3f", v);
        }
        double a = Math.abs(v);
        if (a >= 10_000) {
            return String.format(Locale.ROOT, "%.0fk", v / 1000);
        }
        return a == 0 || a >= 10 || v == Math.rint(v)
                ? String.format(Locale.ROOT, "%.0f", v)
                : String.format(Locale.ROOT, a >= 1 ? "%.1f" : a >= 0.1 ? "%.2f" : "%.3f", v);
    }
}
