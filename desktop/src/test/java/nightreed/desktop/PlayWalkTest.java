package nightreed.desktop;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.TimeUnit;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Labeled;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import nightreed.desktop.settings.PreferenceStore;
import nightreed.desktop.shape.EnvelopeDrawing;
import nightreed.desktop.stage.LateMenu;
import nightreed.desktop.stage.WorkStage;
import nightreed.desktop.workspace.Controllers;
import nightreed.device.midi.ScriptedPlayer;
import nightreed.recipe.part.Parameter;
import nightreed.sound.Clip;
import nightreed.sound.file.SoundFiles;
import org.junit.jupiter.api.Test;
import org.testfx.util.WaitForAsyncUtils;

/** Playing from outside, taking it down, teaching a controller, and shaping by hand. */
class PlayWalkTest extends WindowTest {
    private void started(String method) throws Exception {
        drop(bar());
        await("the note is measured", s -> s.recording() != null);
        fx(() -> {
            workbench.bench().fitting().startMethod(method);
            return null;
        });
        await("it is started", s -> s.recipe() != null && s.comparison() != null);
    }

    @Test
    @SuppressWarnings("unchecked") // the choice of devices is one of names
    void theScriptedPlayerIsHeardAndTakenDown() throws Exception {
        started("resonators");
        stage(WorkStage.PLAY);
        fx(() -> {
            ((ComboBox<String>) find("midi-device", ComboBox.class)).setValue(ScriptedPlayer.NAME);
            return null;
        });
        WaitForAsyncUtils.waitFor(10, TimeUnit.SECONDS, () -> played(0.2).peak() > 0.001f);
        press("tape");
        WaitForAsyncUtils.waitFor(
                10,
                TimeUnit.SECONDS,
                () -> fx(() -> find("tape", Button.class).getText()).startsWith("Stop"));
        played(1.5);
        press("tape");
        WaitForAsyncUtils.waitFor(
                10,
                TimeUnit.SECONDS,
                () -> fx(() -> find("tape-hear", Button.class).isVisible()));
        List<Path> files;
        try (var listed = Files.list(projectPath.resolveSibling("played"))) {
            files = listed.toList();
        }
        assertThat(files).hasSize(1);
        Clip taken = SoundFiles.read(files.get(0)).clip();
        assertThat(taken.channelCount()).isEqualTo(2);
        assertThat(taken.seconds()).isBetween(1.2, 60.0);
        assertThat(taken.peak())
                .as("at its own level, not at that of the headphones")
                .isGreaterThan(0.02f);
        WaitForAsyncUtils.waitFor(
                10,
                TimeUnit.SECONDS,
                () -> fx(() -> find("tape-words", Labeled.class).getText()).contains("beside the project"));
        assertThat(PreferenceStore.read(folder.resolve("preferences.json"))
                        .midi()
                        .device())
                .isEqualTo(ScriptedPlayer.NAME);
    }

    @Test
    void aControllerIsTaughtAndMovesTheValueInOneStep() throws Exception {
        started("subtractive");
        stage(WorkStage.BUILD);
        Parameter cutoff = state().recipe().setting("filter.cutoff").parameter();
        double before = state().recipe().value("filter.cutoff");
        Controllers c = fx(() -> workbench.bench().controllers());
        fx(() -> {
            c.learn(cutoff);
            return null;
        });
        awaitMessage("Turn the controller");
        c.turned(21, 0.4);
        awaitMessage("Controller 21 moves");
        assertThat(state().recipe().value("filter.cutoff"))
                .as("teaching moves nothing")
                .isEqualTo(before);
        for (int k = 0; k <= 20; k++) {
            c.turned(21, 0.5 + 0.01 * k);
        }
        await("it has moved", s -> Math.abs(s.recipe().value("filter.cutoff") - cutoff.at(0.7)) < 1e-6);
        await("it is one step", s -> s.undoLabel() != null && s.undoLabel().contains("cutoff"));
        fx(() -> {
            workbench.bench().undo();
            return null;
        });
        await("one step back", s -> s.recipe().value("filter.cutoff") == before);
        WaitForAsyncUtils.waitFor(
                10,
                TimeUnit.SECONDS,
                () -> "filter.cutoff"
                        .equals(PreferenceStore.read(folder.resolve("preferences.json"))
                                .midi()
                                .controls()
                                .get(21)));
    }

    @Test
    void anEnvelopeIsShapedByHandAndARouteAndAMacroAreAdded() throws Exception {
        started("subtractive");
        stage(WorkStage.BUILD);
        toggle("group-shaping");
        toggle("drawn-amp");
        EnvelopeDrawing drawing = find("envelope-drawing", EnvelopeDrawing.class);
        assertThat(fx(drawing::isVisible)).isTrue();
        double release = state().recipe().value("amp.release");
        fx(() -> {
            drawing.requestFocus();
            return null;
        });
        robot.press(KeyCode.SHIFT).type(KeyCode.ENTER).release(KeyCode.SHIFT); // the last handle: the release
        robot.type(KeyCode.LEFT, 3);
        await("shorter", s -> s.recipe().value("amp.release") < 0.98 * release);
        double shorter = state().recipe().value("amp.release");
        double attack = state().recipe().value("amp.attack");
        var corner = fx(() -> drawing.localToScreen(0, 0));
        var top = fx(() -> drawing.handleAt(0)); // of the attack
        robot.moveTo(corner.getX() + top.getX(), corner.getY() + top.getY())
                .press(MouseButton.PRIMARY)
                .moveBy(40, 0)
                .release(MouseButton.PRIMARY);
        await("slower", s -> s.recipe().value("amp.attack") > 1.2 * attack);
        assertThat(state().recipe().value("amp.release")).isCloseTo(shorter, within(1e-9));

        choose("add-part", "add-route");
        await(
                "there is a route and something that moves",
                s -> s.recipe().common().routes().size() == 1
                        && s.recipe().common().first() != null);
        choose("add-part", "add-macro");
        await("there is a macro", s -> s.recipe().common().macros().size() == 1);
        toggle("group-playing");
        toggle("macro-1");
        press("macro-take-out");
        await("it is gone", s -> s.recipe().common().macros().isEmpty());
        assertThat(state().recipe().value("amp.attack")).isGreaterThan(1.2 * attack);
    }

    private void toggle(String id) {
        fx(() -> {
            find(id, ToggleButton.class).fire();
            return null;
        });
        WaitForAsyncUtils.waitForFxEvents();
    }

    private void choose(String menu, String item) {
        fx(() -> {
            find(menu, LateMenu.class).fill();
            MenuItem found = find(menu, MenuButton.class).getItems().stream()
                    .filter(m -> item.equals(m.getId()))
                    .findFirst()
                    .orElseThrow();
            assertThat(found.isDisable()).isFalse();
            found.fire();
            return null;
        });
        WaitForAsyncUtils.waitForFxEvents();
    }
}
