package nightreed.desktop;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.concurrent.TimeUnit;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.KeyCode;
import nightreed.desktop.stage.WorkStage;
import nightreed.match.advice.Adviser.Ranked;
import nightreed.match.frontier.Frontier;
import nightreed.match.method.Starts;
import nightreed.recipe.Recipe;
import nightreed.recipe.part.Parameter;
import org.junit.jupiter.api.Test;
import org.testfx.util.WaitForAsyncUtils;

/** From a dropped recording to a judged imitation: all methods, moves, a lock, a fit from here, a blind test, and back. */
class MatchWalkTest extends WindowTest {
    /** By keys, with a value that is locked and stays. */
    private void theLineFromSimplerToNearerIsWalked() throws Exception {
        Frontier line = fx(() -> workbench.bench().simpler().line());
        assertThat(line.points()).hasSizeGreaterThan(2);
        assertThat(fx(() -> workbench.bench().simpler().here())).isIn(line.points());
        fx(() -> {
            find("build-simpler", Node.class).requestFocus();
            return null;
        });
        robot.type(KeyCode.HOME);
        await("the simplest", s -> s.recipe().equals(line.simplest().recipe()));
        robot.type(KeyCode.RIGHT);
        await("the next", s -> s.recipe().equals(line.points().get(1).recipe()));
        robot.type(KeyCode.END);
        await("the nearest", s -> s.recipe().equals(line.nearest().recipe()));
        await(
                "its distance",
                s -> s.comparison() != null
                        && s.comparison().totalJnd() < line.nearest().totalJnd() + 0.3);
        assertThat(find("build-simpler", Node.class).getAccessibleText())
                .contains(line.nearest().size() + " values");

        // a press is one edit, which one undo takes back
        robot.clickOn(robot.point(find("build-simpler", Node.class))
                .atPosition(Pos.CENTER_LEFT)
                .atOffset(94, 0));
        await("the simplest again", s -> s.recipe().equals(line.simplest().recipe()));
        idle();
        robot.press(KeyCode.CONTROL).type(KeyCode.Z).release(KeyCode.CONTROL);
        await("the nearest is back", s -> s.recipe().equals(line.nearest().recipe()));
    }

    @Test
    void allMethodsAreTriedAndTheNearestIsWorkedOn() throws Exception {
        drop(bar());
        await("the note is measured", s -> s.recording() != null);
        idle();
        stage(WorkStage.BUILD);
        fx(() -> {
            workbench.bench().fitting().matchAll(Double.POSITIVE_INFINITY);
            return null;
        });
        WaitForAsyncUtils.waitFor(
                240,
                TimeUnit.SECONDS,
                () -> fx(() -> workbench.bench().fitting().rankingProperty().get() != null));
        idle();
        await("the nearest is on the bench", s -> s.recipe() != null && s.comparison() != null);
        List<Ranked> ranking =
                fx(() -> workbench.bench().fitting().rankingProperty().get());
        assertThat(ranking).extracting(r -> r.fitted().method()).containsExactlyInAnyOrderElementsOf(Starts.METHODS);
        assertThat(ranking)
                .isSortedAccordingTo((a, b) -> Double.compare(
                        a.fitted().comparison().totalJnd(),
                        b.fitted().comparison().totalJnd()));
        assertThat(state().takes()).hasSize(Starts.METHODS.size());
        theLineFromSimplerToNearerIsWalked();

        // another method, in which moves are left to make
        fx(() -> {
            workbench.bench().fitting().startMethod("subtractive");
            return null;
        });
        await("starting values", s -> s.recipe() != null && s.recipe().method().equals("subtractive"));
        idle();
        stage(WorkStage.COMPARE);
        int edits = 0;
        for (int i = 0; i < 3; i++) {
            await("advice", s -> s.moves() != null && s.comparison() != null);
            if (state().moves().isEmpty()) {
                break;
            }
            double before = state().comparison().totalJnd();
            Recipe was = state().recipe();
            robot.press(KeyCode.CONTROL).type(KeyCode.ENTER).release(KeyCode.CONTROL);
            await("the move is made", s -> !s.recipe().equals(was));
            await(
                    "it is compared",
                    s -> s.comparison() != null && s.comparison().totalJnd() < before);
            edits++;
        }
        assertThat(edits).isPositive();

        Parameter attack = state().recipe().setting("amp.attack").parameter();
        double value = state().recipe().value("amp.attack");
        fx(() -> {
            workbench.bench().shaping().lock(attack, true);
            workbench.bench().fitting().fitFromHere();
            return null;
        });
        await(
                "the fit from here is done",
                s -> s.undoLabel() != null && s.undoLabel().contains("fit from here"));
        idle();
        assertThat(state().recipe().value("amp.attack")).isEqualTo(value);
        assertThat(state().snapshot().locked()).containsExactly("amp.attack");

        await("it is compared", s -> s.comparison() != null && s.imitation() != null);
        blindTest();

        while (fx(() -> workbench.bench().state().undoLabel() != null)
                && fx(() -> workbench.bench().state().recipe() != null)) {
            Recipe was = state().recipe();
            String label = state().undoLabel();
            fx(() -> {
                workbench.bench().undo();
                return null;
            });
            await("one step back", s -> s.undoLabel() == null || !s.undoLabel().equals(label) || s.recipe() != was);
            idle();
        }
        assertThat(state().recipe()).isNull();
        assertThat(state().recording()).isNotNull();
    }

    private void blindTest() throws Exception {
        int takes = state().takes().size();
        fx(() -> {
            find("blind-test", ToggleButton.class).fire();
            return null;
        });
        for (int i = 0; i < 12; i++) {
            int trial = i;
            fx(() -> {
                find("blind-x", Button.class).fire();
                find(trial % 3 == 0 ? "blind-is-recording" : "blind-is-imitation", Button.class)
                        .fire();
                return null;
            });
        }
        WaitForAsyncUtils.waitForFxEvents();
        await("the result is kept", s -> s.takes().size() == takes + 1);
        assertThat(state().takes().get(takes).note()).contains("of 12 right");
        assertThat(fx(() -> find("blind-is-recording", Button.class).isDisabled()))
                .isTrue();
        fx(() -> {
            find("blind-test", ToggleButton.class).fire();
            return null;
        });
    }
}
