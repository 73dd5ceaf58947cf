package nightreed.desktop.stage.brief;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import javafx.geometry.Point2D;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import nightreed.desktop.OnStage;
import nightreed.sound.file.Outline;
import nightreed.sound.file.SoundFormat;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.util.WaitForAsyncUtils;

/** Pointing out a note in a long file, by hand and with keys. */
class SpanPickerTest {
    private final FxRobot robot = new FxRobot();
    private SpanPicker picker;

    @BeforeEach
    void show() throws Exception {
        float[] peaks = new float[12_000]; // two minutes, one blow after 50 s
        for (int i = 5000; i < 5200; i++) {
            peaks[i] = 0.8f * (5200 - i) / 200;
        }
        Outline outline = new Outline(new SoundFormat("WAV", 48_000, 1, 5_760_000), 0.01, peaks);
        picker = OnStage.show(SpanPicker::new);
        OnStage.fx(() -> {
            picker.show(outline, 60);
            picker.requestFocus();
            return null;
        });
    }

    private Point2D at(double seconds) {
        return OnStage.fx(
                () -> picker.localToScreen(12 + (picker.getWidth() - 24) * seconds / 120, picker.getHeight() / 2));
    }

    @Test
    void theSpanStartsAtTheLoudestMoment() {
        assertThat(picker.fromProperty().get()).isCloseTo(49.7, within(0.02));
        assertThat(picker.toProperty().get()).isCloseTo(55, within(0.02));
    }

    @Test
    void theNearerEdgeFollowsTheHand() {
        robot.moveTo(at(54.5)).press(MouseButton.PRIMARY).moveTo(at(80)).release(MouseButton.PRIMARY);
        WaitForAsyncUtils.waitForFxEvents();
        assertThat(picker.toProperty().get()).isCloseTo(80, within(0.5));
        assertThat(picker.fromProperty().get()).isCloseTo(49.7, within(0.02));
        robot.moveTo(at(50)).press(MouseButton.PRIMARY).moveTo(at(30)).release(MouseButton.PRIMARY);
        WaitForAsyncUtils.waitForFxEvents();
        assertThat(picker.fromProperty().get()).isCloseTo(30, within(0.5));
    }

    @Test
    void arrowsMoveTheSpanAndItsEndAndStayInTheFile() {
        robot.type(KeyCode.RIGHT, KeyCode.RIGHT);
        assertThat(picker.fromProperty().get()).isCloseTo(50.7, within(0.02));
        robot.press(KeyCode.SHIFT).type(KeyCode.RIGHT).release(KeyCode.SHIFT);
        assertThat(picker.fromProperty().get()).isCloseTo(50.7, within(0.02));
        assertThat(picker.toProperty().get()).isCloseTo(56.5, within(0.02));
        robot.press(KeyCode.CONTROL);
        for (int i = 0; i < 9; i++) {
            robot.type(KeyCode.RIGHT);
        }
        robot.release(KeyCode.CONTROL);
        assertThat(picker.toProperty().get()).isLessThanOrEqualTo(120);
        assertThat(picker.fromProperty().get()).isLessThan(picker.toProperty().get());
        for (int i = 0; i < 3; i++) {
            robot.press(KeyCode.CONTROL).type(KeyCode.LEFT).release(KeyCode.CONTROL);
        }
        assertThat(picker.fromProperty().get()).isGreaterThanOrEqualTo(0);
    }
}
