package nightreed.desktop.shell;

import java.util.EnumMap;
import java.util.Map;
import java.util.function.Consumer;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.ContentDisplay;
import javafx.scene.control.Label;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.shape.Circle;
import nightreed.desktop.stage.WorkStage;
import nightreed.desktop.workspace.WorkspaceState;

/** The six stages down the left side, each with what stands or is open there. */
final class StagePath extends VBox {
    private final Map<WorkStage, Button> buttons = new EnumMap<>(WorkStage.class);
    private final Map<WorkStage, Label> concerns = new EnumMap<>(WorkStage.class);

    StagePath(Consumer<WorkStage> go) {
        getStyleClass().add("stage-path");
        setAlignment(Pos.TOP_CENTER);
        for (WorkStage s : WorkStage.values()) {
            Circle dot = new Circle(6.5);
            dot.getStyleClass().add("stage-dot");
            Button b = new Button(s.title(), dot);
            b.setContentDisplay(ContentDisplay.TOP);
            b.getStyleClass().add("stage-button");
            b.setId("stage-" + s.title().toLowerCase(java.util.Locale.ROOT));
            b.setOnAction(e -> go.accept(s));
            Label concern = new Label();
            concern.getStyleClass().add("concern");
            buttons.put(s, b);
            concerns.put(s, concern);
            VBox cell = new VBox(1, b, concern);
            cell.setAlignment(Pos.TOP_CENTER);
            cell.setMinHeight(58);
            getChildren().add(cell);
            if (s != WorkStage.KEEP) {
                Region reed = new Region();
                reed.getStyleClass().add("stage-link");
                reed.setMaxWidth(1.5);
                reed.setMinHeight(10);
                VBox.setVgrow(reed, Priority.ALWAYS);
                getChildren().add(reed);
            }
        }
    }

    void show(WorkStage current, WorkspaceState state) {
        for (WorkStage s : WorkStage.values()) {
            Button b = buttons.get(s);
            b.getStyleClass().remove("stage-current");
            if (s == current) {
                b.getStyleClass().add("stage-current");
            }
            Label c = concerns.get(s);
            c.setText(s.concern(state));
            c.getStyleClass().remove("audible");
            if (s.audible(state)) {
                c.getStyleClass().add("audible");
            }
            b.setAccessibleText(s.title() + (c.getText().isEmpty() ? "" : ", " + c.getText()));
        }
    }
}
