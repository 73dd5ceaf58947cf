package nightreed.desktop.ruler;

import javafx.beans.property.BooleanProperty;
import javafx.beans.property.DoubleProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleDoubleProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import javafx.scene.control.Control;
import javafx.scene.control.Skin;
import nightreed.match.advice.Tolerances;
import nightreed.recipe.part.Parameter;

/**
 * A value on a line with a scale in real units: a tab at the value, a tick at the fitted value, a shaded span in which a
 * change stays under one JND, and at the end a bar for how strongly the value moves the match.
 *
 * <p>Drag, arrow keys (Shift fine, Ctrl coarse), type a number, double-click for the fitted value. While a hand drags, the
 * value is changing; where it ends, it is set once more and no longer changing.
 */
public final class Ruler extends Control {
    private final Parameter parameter;
    private final DoubleProperty value = new SimpleDoubleProperty(this, "value");
    private final BooleanProperty valueChanging = new SimpleBooleanProperty(this, "valueChanging");
    private final ObjectProperty<Double> fitted = new SimpleObjectProperty<>(this, "fitted");
    private final ObjectProperty<Tolerances.Span> span = new SimpleObjectProperty<>(this, "span");
    private final StringProperty tag = new SimpleStringProperty(this, "tag");

    /** At the lowest value of its range, until another is set. */
    public Ruler(Parameter parameter) {
        this.parameter = parameter;
        value.set(parameter.least());
        getStyleClass().add("ruler");
        setFocusTraversable(false); // the line and the number within it take the keys
        setAccessibleText(parameter.name());
        setId("ruler-" + parameter.id());
    }

    public Parameter parameter() {
        return parameter;
    }

    /** Where the tab stands, in the unit of the parameter. */
    public DoubleProperty valueProperty() {
        return value;
    }

    public double getValue() {
        return value.get();
    }

    /** Whether a hand is dragging the tab, and has not let go. */
    public BooleanProperty valueChangingProperty() {
        return valueChanging;
    }

    public boolean isValueChanging() {
        return valueChanging.get();
    }

    /** What a fit gave the value; null if there was none. */
    public ObjectProperty<Double> fittedProperty() {
        return fitted;
    }

    /** In which a change stays under one JND; null if that is not known. */
    public ObjectProperty<Tolerances.Span> spanProperty() {
        return span;
    }

    /** A short word beside the name, such as what moves the value from outside; null for none. */
    public StringProperty tagProperty() {
        return tag;
    }

    /** Shows a value. A hand that is dragging keeps its own. */
    public void show(double v, Double fittedValue, Tolerances.Span tolerance) {
        fitted.set(fittedValue);
        span.set(tolerance);
        if (!isValueChanging()) {
            value.set(v);
        }
    }

    @Override
    protected Skin<?> createDefaultSkin() {
        return new RulerSkin(this);
    }
}
