package nightreed.desktop.rail;

import static org.assertj.core.api.Assertions.assertThat;

import javafx.geometry.Point2D;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import nightreed.desktop.OnStage;
import nightreed.device.OutputMixer;
import nightreed.match.Matcher;
import nightreed.match.compare.ImitationRenderer;
import nightreed.recipe.ResonatorRecipe;
import nightreed.room.RecordingRoom;
import nightreed.work.Progress;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.util.WaitForAsyncUtils;

/** Keys on the screen: what is pressed is what sounds. */
class KeysTest {
    private static final int FS = 48_000;
    private static ResonatorRecipe recipe;

    private final FxRobot robot = new FxRobot();
    private OutputMixer desk;
    private Keys keys;

    @BeforeAll
    static void instrument() throws Exception {
        recipe = Matcher.startingValues(ImitationRenderer.side(
                RecordingRoom.record(RecordingRoom.instrument("slate-bars"), 60, 0.8, 3), Progress.NONE));
    }

    @BeforeEach
    void show() throws Exception {
        desk = new OutputMixer(FS);
        desk.instrument(recipe.with("noise.level", -100));
        desk.volumeDb(0);
        keys = OnStage.show(() -> new Keys(desk, 3));
        OnStage.fx(() -> {
            keys.lowestProperty().set(48);
            return null;
        });
        sound(0.4); // the soft start
    }

    private float[] sound(double seconds) {
        float[] all = new float[(int) (seconds * FS) / 256 * 256];
        float[] block = new float[256];
        for (int at = 0; at < all.length; at += 256) {
            desk.render(block, new float[256], 256);
            System.arraycopy(block, 0, all, at, 256);
        }
        return all;
    }

    /** Frequency of the strongest of the keys' fundamentals, as a key. */
    private int heard(float[] x) {
        int best = -1;
        double most = 0;
        for (int key = 40; key < 90; key++) {
            double hz = recipe.f0Hz() * Math.pow(2, (key - recipe.key()) / 12.0);
            double re = 0;
            double im = 0;
            for (int i = 4000; i < x.length; i++) {
                re += x[i] * Math.cos(2 * Math.PI * hz * i / FS);
                im += x[i] * Math.sin(2 * Math.PI * hz * i / FS);
            }
            if (Math.hypot(re, im) > most) {
                most = Math.hypot(re, im);
                best = key;
            }
        }
        return best;
    }

    private static double peak(float[] x) {
        double p = 0;
        for (float v : x) {
            p = Math.max(p, Math.abs(v));
        }
        return p;
    }

    @Test
    void lettersPlayTheMiddleOctaveAndItMoves() {
        assertThat(keys.letterDown(KeyCode.C)).isTrue(); // E, four steps above C
        assertThat(heard(sound(0.5))).isEqualTo(64);
        keys.letterUp(KeyCode.C);
        desk.panic();
        sound(0.1);
        OnStage.fx(() -> {
            keys.octave(-1);
            return null;
        });
        keys.letterDown(KeyCode.C);
        assertThat(heard(sound(0.5))).isEqualTo(52);
        assertThat(keys.letterDown(KeyCode.Q)).isFalse();
    }

    @Test
    void theMousePlaysTheKeyItIsOnHarderTowardsTheFrontEdge() {
        double white = OnStage.fx(() -> keys.getWidth() / 21);
        // the ninth white key from C3 up is D4
        Point2D back = OnStage.fx(() -> keys.localToScreen(8.5 * white, 0.62 * keys.getHeight()));
        Point2D front = OnStage.fx(() -> keys.localToScreen(8.5 * white, 0.97 * keys.getHeight()));
        robot.moveTo(front).press(MouseButton.PRIMARY);
        WaitForAsyncUtils.waitForFxEvents();
        float[] hard = sound(0.5);
        robot.release(MouseButton.PRIMARY);
        assertThat(heard(hard)).isEqualTo(62);
        desk.panic();
        sound(0.1);
        robot.moveTo(back).press(MouseButton.PRIMARY);
        WaitForAsyncUtils.waitForFxEvents();
        float[] soft = sound(0.5);
        robot.release(MouseButton.PRIMARY);
        assertThat(heard(soft)).isEqualTo(62);
        assertThat(20 * Math.log10(peak(hard) / peak(soft))).isGreaterThan(4);
    }

    @Test
    void aBlackKeyIsAboveTheWhiteOnesBesideIt() {
        double white = OnStage.fx(() -> keys.getWidth() / 21);
        Point2D black = OnStage.fx(() -> keys.localToScreen(8.02 * white, 0.3 * keys.getHeight())); // between C4 and D4
        robot.moveTo(black).press(MouseButton.PRIMARY);
        WaitForAsyncUtils.waitForFxEvents();
        assertThat(heard(sound(0.5))).isEqualTo(61);
        robot.release(MouseButton.PRIMARY);
    }

    @Test
    void aKeyThatIsHeldIsNotStruckAgainAndAllAreLetGoTogether() {
        keys.strike(60, 0.9);
        double first = peak(sound(0.3));
        keys.strike(60, 0.9); // the keyboard repeats while a letter is held
        float[] after = sound(0.3);
        assertThat(peak(after)).isLessThan(first);
        keys.releaseAll();
        desk.instrument(recipe.with("noise.level", -100).with("damper.t60", 0.05));
        keys.strike(60, 0.9);
        sound(0.05);
        keys.releaseAll();
        sound(0.3);
        assertThat(peak(sound(0.2))).isLessThan(1e-3);
    }
}
