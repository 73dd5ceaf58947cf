package nightreed.desktop.shell;

import javafx.scene.AccessibleRole;
import javafx.scene.Cursor;
import javafx.scene.Node;
import javafx.scene.control.ScrollPane;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;

/** The margin with an edge that can be dragged, or moved with Left and Right. */
final class MarginSide extends HBox {
    private static final double LEAST = 230;
    private static final double MOST = 520;
    private double share = 0.23;

    MarginSide(ScrollPane margin) {
        Region edge = new Region();
        edge.getStyleClass().add("margin-edge");
        edge.setMinWidth(8);
        edge.setCursor(Cursor.H_RESIZE);
        edge.setFocusTraversable(true);
        edge.setId("margin-edge");
        edge.setAccessibleRole(AccessibleRole.SLIDER);
        edge.setAccessibleText("Edge of the margin");
        edge.setAccessibleHelp("Left makes the margin wider, Right narrower.");
        edge.setOnMouseDragged(e -> widen(getBoundsInParent().getMaxX() - sceneX(e.getSceneX())));
        edge.setOnKeyPressed(e -> {
            int direction = e.getCode() == KeyCode.LEFT ? 1 : e.getCode() == KeyCode.RIGHT ? -1 : 0;
            if (direction != 0) {
                widen(getWidth() + 20 * direction);
                e.consume();
            }
        });
        HBox.setHgrow(margin, Priority.ALWAYS);
        getChildren().addAll(edge, margin);
        setMinWidth(LEAST);
        sceneProperty().addListener((o, a, scene) -> {
            if (scene != null) {
                scene.widthProperty().addListener((p, b, w) -> setWidthShare(share));
                setWidthShare(share);
            }
        });
    }

    private double sceneX(double x) {
        Node parent = getParent();
        return parent == null ? x : parent.sceneToLocal(x, 0).getX();
    }

    private void widen(double width) {
        if (getScene() != null) {
            setWidthShare(width / getScene().getWidth());
        }
    }

    /** @param s share of the window's width; held within what can be read */
    void setWidthShare(double s) {
        double all = getScene() == null || getScene().getWidth() <= 0
                ? 1280
                : getScene().getWidth();
        share = Math.max(LEAST, Math.min(MOST, s * all)) / all;
        setPrefWidth(share * all);
    }

    double widthShare() {
        return share;
    }
}
