package nightreed.desktop;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.TimeUnit;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import nightreed.desktop.stage.WorkStage;
import nightreed.desktop.workspace.WorkspaceState;
import nightreed.measure.partial.Partial;
import nightreed.project.ProjectFile;
import nightreed.recipe.Recipe;
import nightreed.recipe.RecipeJson;
import nightreed.sound.Clip;
import nightreed.sound.Loudness;
import nightreed.sound.WavFiles;
import nightreed.sound.file.SoundFiles;
import org.junit.jupiter.api.Test;
import org.testfx.util.WaitForAsyncUtils;

/** A new user's walks through the real window, from a dropped file to what is taken away. */
class WalkTest extends WindowTest {
    @Test
    void fromADroppedFileToThePatchSheet() throws Exception {
        drop(bar());
        await("the note is measured", s -> s.recording() != null);
        assertThat(fx(() -> workbench.shell().stage())).isEqualTo(WorkStage.MEASURE); // it leads on by itself
        List<Partial> reeds = state().recording().measurement().reliablePartials();
        assertThat(state().recording().measurement().nearestNote()).isEqualTo("D4");
        assertThat(reeds.size()).isGreaterThanOrEqualTo(4);
        Partial before = fx(() -> workbench.bench().selectedProperty().get());
        assertThat(before).isNotNull();

        Node bed = find("measure-bed", Node.class);
        fx(() -> {
            bed.requestFocus();
            return null;
        });
        robot.type(KeyCode.RIGHT);
        WaitForAsyncUtils.waitForFxEvents();
        assertThat(fx(() -> workbench.bench().selectedProperty().get()).frequencyHz())
                .isGreaterThan(before.frequencyHz());

        stage(WorkStage.BUILD);
        press("fit");
        await(
                "the fit is compared and advised on",
                s -> s.moves() != null && !s.tolerances().isEmpty());
        double fitted = state().comparison().totalJnd();
        assertThat(fitted).isLessThan(1.5);
        assertThat(state().takes()).hasSize(1);

        hearsBothSidesEquallyLoud();
        Recipe fit = state().recipe();
        movesARuler("noise.level", fit);
        await(
                "the moved value is compared",
                s -> s.comparison() != null && s.comparison().totalJnd() > fitted + 0.05);

        stage(WorkStage.COMPARE);
        double worse = state().comparison().totalJnd();
        String shown = fx(() -> find("aspect-noise", Label.class).getText());
        assertThat(Double.parseDouble(shown))
                .isCloseTo(state().comparison().jnd(nightreed.match.hearing.Aspect.NOISE), within(0.051));
        await("there is a next move", s -> s.moves() != null && !s.moves().isEmpty());
        double promised = state().moves().get(0).predictedJnd();
        robot.press(KeyCode.CONTROL).type(KeyCode.ENTER).release(KeyCode.CONTROL);
        await("the move is applied", s -> s.comparison().totalJnd() < worse - 0.01);
        assertThat(state().comparison().totalJnd()).isCloseTo(promised, within(0.02));

        undoesBackTo(fit);
        takesAway();
        reopens();
    }

    private void hearsBothSidesEquallyLoud() throws Exception {
        fx(() -> {
            workbench.bench().desk().volumeDb(-6);
            return null;
        });
        robot.type(KeyCode.SPACE);
        Clip recording = played(1.5);
        robot.press(KeyCode.SHIFT).type(KeyCode.SPACE).release(KeyCode.SHIFT);
        assertThat(fx(() -> find("hear-imitation", ToggleButton.class).isSelected()))
                .isTrue();
        robot.type(KeyCode.SPACE); // stops
        WaitForAsyncUtils.waitFor(
                5, TimeUnit.SECONDS, () -> !workbench.bench().desk().playing());
        robot.type(KeyCode.SPACE);
        Clip imitation = played(1.5);
        assertThat(recording.peak()).isGreaterThan(0.01);
        double a = Loudness.over(recording, 0, recording.length());
        double b = Loudness.over(imitation, 0, imitation.length());
        assertThat(b - a).isCloseTo(0, within(1.5)); // the two do not start at the same sample of a block
        robot.type(KeyCode.SPACE);
        WaitForAsyncUtils.waitFor(
                5, TimeUnit.SECONDS, () -> !workbench.bench().desk().playing());
    }

    /** Drags the tab and hears that the keys follow. */
    private void movesARuler(String id, Recipe fit) throws Exception {
        Node line = find("line-" + id, Node.class);
        Point2D middle = fx(() -> line.localToScreen(line.getLayoutBounds().getWidth() * 0.5, 10));
        Point2D right = fx(() -> line.localToScreen(line.getLayoutBounds().getWidth() * 0.72, 10));
        robot.moveTo(middle).press(MouseButton.PRIMARY).moveTo(right).release(MouseButton.PRIMARY);
        WaitForAsyncUtils.waitForFxEvents();
        double moved = state().recipe().value(id);
        assertThat(moved).isNotCloseTo(fit.value(id), within(1.0));
        assertThat(workbench.bench().desk()).isNotNull();
        robot.press(KeyCode.C);
        Clip note = played(0.4);
        robot.release(KeyCode.C);
        assertThat(note.peak()).isGreaterThan(0.005);
    }

    private void undoesBackTo(Recipe fit) throws Exception {
        for (int i = 0; i < 2; i++) {
            String label = state().undoLabel();
            robot.press(KeyCode.CONTROL).type(KeyCode.Z).release(KeyCode.CONTROL);
            await("undone: " + label, s -> label.equals(s.redoLabel()));
        }
        assertThat(state().recipe()).isEqualTo(fit);
        String redo = state().redoLabel();
        robot.press(KeyCode.CONTROL, KeyCode.SHIFT).type(KeyCode.Z).release(KeyCode.SHIFT, KeyCode.CONTROL);
        await("redone", s -> redo.equals(s.undoLabel()));
        assertThat(state().recipe()).isNotEqualTo(fit);
        robot.press(KeyCode.CONTROL).type(KeyCode.Z).release(KeyCode.CONTROL);
        await("undone again", s -> redo.equals(s.redoLabel()));
    }

    private void takesAway() throws Exception {
        stage(WorkStage.KEEP);
        Path away = folder.resolve("away");
        fx(() -> {
            workbench.shell().keep().export(away);
            return null;
        });
        WaitForAsyncUtils.waitFor(
                30,
                TimeUnit.SECONDS,
                () -> fx(() -> find("written", Label.class).getText()).contains("harbour-bar-sheet.html"));
        assertThat(Files.readString(away.resolve("harbour-bar-sheet.html")))
                .contains("D4")
                .contains("mode 1 T60");
        assertThat(RecipeJson.parse(Files.readString(away.resolve("harbour-bar-recipe.json")), "recipe"))
                .isEqualTo(state().recipe());
        assertThat(Files.readAllLines(away.resolve("harbour-bar-partials.csv")))
                .hasSize(1 + state().recording().measurement().partials().size());
        Clip sound = SoundFiles.read(away.resolve("harbour-bar.wav")).clip();
        assertThat(sound.length()).isEqualTo(state().recording().clip().length());
    }

    private void reopens() throws Exception {
        WorkspaceState before = state();
        fx(() -> {
            workbench.close();
            return null;
        });
        try (ProjectFile again = ProjectFile.open(projectPath)) {
            var imitation = again.imitations().get(0);
            assertThat(again.now(imitation)).isEqualTo(before.snapshot());
            assertThat(again.takes(imitation)).isEqualTo(before.takes());
            assertThat(again.redoLabel(imitation)).contains(before.redoLabel());
        }
    }

    @Test
    void badFilesAreExplainedAndNothingIsLost() throws Exception {
        drop(bar());
        await("the note is measured", s -> s.recording() != null);
        var kept = state().recording();
        Path text = Files.writeString(folder.resolve("letter.wav"), "no sound at all");
        drop(text);
        awaitMessage("letter.wav is not a sound file");
        Path silent = folder.resolve("silent.wav");
        WavFiles.write(Clip.mono(new float[48_000], 48_000), WavFiles.Format.PCM16, silent);
        WaitForAsyncUtils.waitFor(
                20,
                TimeUnit.SECONDS,
                () -> fx(() -> workbench.bench().taskProperty().get() == null));
        drop(silent);
        awaitMessage("silent");
        WaitForAsyncUtils.waitFor(
                20,
                TimeUnit.SECONDS,
                () -> fx(() -> workbench.bench().taskProperty().get() == null));
        assertThat(fx(() -> find("message", Label.class).getText()))
                .contains("silent")
                .doesNotContain("Exception");
        assertThat(state().recording()).isSameAs(kept);
        Path inTheWay = Files.writeString(folder.resolve("file"), "x");
        press("measure-fit");
        await("the fit is compared", s -> s.comparison() != null);
        WaitForAsyncUtils.waitFor(
                20,
                TimeUnit.SECONDS,
                () -> fx(() -> workbench.bench().taskProperty().get() == null));
        fx(() -> {
            workbench.shell().keep().export(inTheWay.resolve("inside"));
            return null;
        });
        awaitMessage("was not written");
    }

    @Test
    void aFitCanBeStoppedAndLeavesEverythingAsItWas() throws Exception {
        drop(bar());
        await("the note is measured", s -> s.recording() != null);
        WaitForAsyncUtils.waitFor(
                20,
                TimeUnit.SECONDS,
                () -> fx(() -> workbench.bench().taskProperty().get() == null));
        press("measure-fit");
        press("stop-task");
        WaitForAsyncUtils.waitFor(
                20,
                TimeUnit.SECONDS,
                () -> fx(() -> workbench.bench().taskProperty().get() == null));
        assertThat(state().recipe()).isNull();
        assertThat(state().takes()).isEmpty();
        assertThat(state().undoLabel()).startsWith("recording");
    }

    @Test
    void theRecordingRoomPlaysAndEveryStageShowsSomething() throws Exception {
        press("room-record");
        await("the room has played", s -> s.recording() != null);
        assertThat(state().recording().measurement().nearestNote()).isEqualTo("A4");
        assertThat(state().recordingName()).startsWith("recording room: Slate bars A4");
        for (WorkStage s : WorkStage.values()) {
            stage(s); // before there is a recipe, each says what to do first
        }
        stage(WorkStage.BUILD);
        press("fit");
        await("advised", s -> s.moves() != null && !s.tolerances().isEmpty());
        for (WorkStage s : WorkStage.values()) {
            stage(s);
        }
        assertThat(WorkStage.KEEP.concern(state())).isEqualTo("1 take");
        assertThat(WorkStage.MEASURE.concern(state())).endsWith("partials");
    }
}
