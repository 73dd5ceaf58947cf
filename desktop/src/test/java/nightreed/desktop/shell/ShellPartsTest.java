package nightreed.desktop.shell;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.concurrent.TimeUnit;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Paint;
import nightreed.desktop.OnStage;
import nightreed.desktop.drawing.Palette;
import nightreed.desktop.settings.Preferences.Look;
import nightreed.desktop.stage.WorkStage;
import nightreed.desktop.workspace.WorkspaceState;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.util.WaitForAsyncUtils;

/** The margin's edge, the path of stages, and what F1 answers. */
class ShellPartsTest {
    private final FxRobot robot = new FxRobot();

    @Test
    void theMarginsEdgeFollowsHandAndKeysWithinWhatCanBeRead() throws Exception {
        MarginSide[] side = new MarginSide[1];
        BorderPane pane = OnStage.show(() -> {
            BorderPane p = new BorderPane();
            side[0] = new MarginSide(new ScrollPane());
            side[0].setWidthShare(0.4);
            p.setRight(side[0]);
            return p;
        });
        assertThat(OnStage.fx(() -> side[0].getWidth())).isCloseTo(360, within(1.0)); // of 900
        Node edge = robot.lookup("#margin-edge").query();
        OnStage.fx(() -> {
            edge.requestFocus();
            return null;
        });
        robot.type(KeyCode.LEFT);
        WaitForAsyncUtils.waitForFxEvents();
        assertThat(OnStage.fx(() -> side[0].getWidth())).isCloseTo(380, within(1.0));
        Point2D from = OnStage.fx(() -> edge.localToScreen(4, 100));
        Point2D to = OnStage.fx(() -> pane.localToScreen(600, 100));
        robot.moveTo(from).press(MouseButton.PRIMARY).moveTo(to).release(MouseButton.PRIMARY);
        WaitForAsyncUtils.waitForFxEvents();
        assertThat(OnStage.fx(() -> side[0].getWidth())).isCloseTo(300, within(6.0));
        OnStage.fx(() -> {
            side[0].setWidthShare(0.01);
            return null;
        });
        assertThat(OnStage.fx(() -> side[0].getWidth())).isCloseTo(230, within(1.0));
    }

    @Test
    void aChangeOfLookReachesAllPartsTheSeenOnesFirst() throws Exception {
        VBox seen = new VBox(new Button("seen"));
        VBox hidden = new VBox(new Button("hidden"));
        hidden.setVisible(false);
        Looks looks = new Looks(Look.NIGHT);
        BorderPane pane = OnStage.show(() -> {
            looks.add(hidden);
            looks.add(seen);
            return new BorderPane(seen, null, null, hidden, null);
        });
        OnStage.fx(() -> {
            looks.begin(pane.getScene(), Look.DAY);
            return null;
        });
        assertThat(text(seen)).isEqualTo(Palette.DAY.text());
        assertThat(pane.getScene().getFill()).isEqualTo(Palette.DAY.ground());
        OnStage.fx(() -> {
            looks.change(pane.getScene(), Look.NIGHT);
            looks.ready(hidden); // about to be shown
            return null;
        });
        assertThat(text(hidden)).isEqualTo(Palette.NIGHT.text());
        WaitForAsyncUtils.waitFor(
                5, TimeUnit.SECONDS, () -> Palette.NIGHT.text().equals(text(seen)));
        VBox late = new VBox(new Button("late"));
        OnStage.fx(() -> {
            looks.add(late);
            pane.setBottom(late);
            return null;
        });
        assertThat(text(late)).as("what comes later wears the look of now").isEqualTo(Palette.NIGHT.text());
    }

    private static Paint text(VBox part) {
        return OnStage.fx(() -> {
            part.applyCss();
            return ((Button) part.getChildren().get(0)).getTextFill();
        });
    }

    @Test
    void thePathLeadsToEachStageAndSaysWhatIsOpenThere() throws Exception {
        List<WorkStage> went = new java.util.ArrayList<>();
        StagePath path = OnStage.show(() -> {
            StagePath p = new StagePath(went::add);
            p.show(WorkStage.BRIEF, WorkspaceState.EMPTY);
            return p;
        });
        for (WorkStage s : WorkStage.values()) {
            Button b = (Button) path.lookup("#stage-" + s.title().toLowerCase(java.util.Locale.ROOT));
            assertThat(b.getAccessibleText()).startsWith(s.title());
            OnStage.fx(() -> {
                b.fire();
                return null;
            });
        }
        assertThat(went).containsExactly(WorkStage.values());
        Button brief = (Button) path.lookup("#stage-brief");
        assertThat(brief.getAccessibleText()).isEqualTo("Brief, no recording");
        assertThat(brief.getStyleClass()).contains("stage-current");
    }

    @Test
    void anAnswerNamesTheThingAndTheNearestChapter() throws Exception {
        Button plain = OnStage.fx(() -> new Button("Fit anew"));
        Button tipped = OnStage.fx(() -> {
            Button b = new Button("‹");
            b.setAccessibleText("One octave lower");
            b.setTooltip(new Tooltip("Page Down does the same"));
            return b;
        });
        VBox inner = OnStage.show(() -> new VBox(plain, tipped));
        Help.chapter(inner, "build");
        assertThat(Help.about(plain)).isEqualTo(new Help.Answer("Fit anew.", "build"));
        assertThat(Help.about(tipped)).isEqualTo(new Help.Answer("One octave lower: Page Down does the same", "build"));
        Help.chapter(tipped, "listening");
        assertThat(Help.about(tipped).target()).isEqualTo("listening");
        assertThat(Help.about(null).target()).isEqualTo("index");
        assertThat(Help.about(null).words()).contains("Tab");
    }
}
