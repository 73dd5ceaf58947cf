package nightreed.desktop;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.TimeUnit;
import java.util.function.Predicate;
import javafx.scene.Node;
import javafx.scene.control.ButtonBase;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import nightreed.desktop.settings.Preferences;
import nightreed.desktop.stage.WorkStage;
import nightreed.desktop.workspace.FittedBar;
import nightreed.desktop.workspace.WorkspaceState;
import nightreed.device.NoDevices;
import nightreed.device.StandInOutput;
import nightreed.project.ProjectFile;
import nightreed.room.RecordingRoom;
import nightreed.sound.Clip;
import nightreed.sound.WavFiles;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.io.TempDir;
import org.testfx.api.FxRobot;
import org.testfx.api.FxToolkit;
import org.testfx.util.WaitForAsyncUtils;

/** Tests that drive the real window, on an empty project of their own. */
abstract class WindowTest {
    @TempDir
    Path folder;

    final FxRobot robot = new FxRobot();
    Workbench workbench;
    StandInOutput output;
    Path projectPath;

    @BeforeEach
    void openAnEmptyProject() throws Exception {
        FxToolkit.registerPrimaryStage();
        projectPath = folder.resolve("walk.nightreed");
        ProjectFile project = ProjectFile.create(projectPath, "Walk");
        FxToolkit.setupFixture(
                () -> { // events of the primary stage are kept for ever
                    workbench = new Workbench(new NoDevices(), folder.resolve("preferences.json"));
                    output = (StandInOutput) workbench.output();
                    workbench.preferences().change(Preferences::asWelcomed);
                    workbench.shell().go(WorkStage.BRIEF);
                    workbench.show(new Stage());
                    workbench.bench().fitting().trying(0.1); // what is found is tested elsewhere
                    workbench.bench().open(project);
                });
        await("the project is open", s -> s.current() != null);
    }

    @AfterEach
    void closeTheWindow() throws Exception {
        fx(() -> {
            workbench.close();
            return null;
        });
        FxToolkit.cleanupStages();
    }

    final <T> T fx(Callable<T> work) {
        return WaitForAsyncUtils.waitForAsyncFx(20_000, work);
    }

    final WorkspaceState state() {
        return fx(() -> workbench.bench().state());
    }

    final void await(String what, Predicate<WorkspaceState> ready) throws Exception {
        try {
            WaitForAsyncUtils.waitFor(60, TimeUnit.SECONDS, () -> ready.test(state()));
        } catch (java.util.concurrent.TimeoutException e) {
            throw new AssertionError("waited a minute until " + what + "; message: "
                    + fx(() -> workbench.bench().messageProperty().get()));
        }
        WaitForAsyncUtils.waitForFxEvents();
    }

    final void awaitMessage(String text) throws Exception {
        WaitForAsyncUtils.waitFor(
                20,
                TimeUnit.SECONDS,
                () -> fx(
                        () -> String.valueOf(workbench.bench().messageProperty().get())
                                .contains(text)));
    }

    final void drop(Path file) {
        fx(() -> {
            workbench.shell().drop(List.of(file.toFile()));
            return null;
        });
    }

    final <T extends Node> T find(String id, Class<T> type) {
        // by predicate: an id with a point in it is no CSS selector
        return type.cast(robot.lookup((Node n) -> id.equals(n.getId())).query());
    }

    /** Presses a button the way Enter would. */
    final void press(String id) {
        fx(() -> {
            find(id, ButtonBase.class).fire();
            return null;
        });
        WaitForAsyncUtils.waitForFxEvents();
    }

    final void stage(WorkStage s) {
        KeyCode[] digits = {
            KeyCode.DIGIT1, KeyCode.DIGIT2, KeyCode.DIGIT3, KeyCode.DIGIT4, KeyCode.DIGIT5, KeyCode.DIGIT6
        };
        robot.press(KeyCode.CONTROL)
                .type(digits[List.of(WorkStage.values()).indexOf(s)])
                .release(KeyCode.CONTROL);
        WaitForAsyncUtils.waitForFxEvents();
        assertThat(fx(() -> workbench.shell().stage())).isEqualTo(s);
    }

    final Path bar() throws Exception {
        Path wav = folder.resolve("harbour bar.wav");
        Clip clip = FittedBar.cutShort(RecordingRoom.record(RecordingRoom.instrument("slate-bars"), 62, 0.8, 21));
        WavFiles.write(clip, WavFiles.Format.PCM24, wav);
        return wav;
    }

    /** What the output keeps while something is done, from now until {@code seconds} later. */
    final Clip played(double seconds) throws Exception {
        long from = output.played();
        long to = from + (long) (seconds * 48_000);
        WaitForAsyncUtils.waitFor(20, TimeUnit.SECONDS, () -> output.played() >= to);
        return output.kept(from, to);
    }

    /** Waits until no task is under way. */
    final void idle() throws Exception {
        WaitForAsyncUtils.waitFor(
                60,
                TimeUnit.SECONDS,
                () -> fx(() -> workbench.bench().taskProperty().get() == null));
    }

    final void run(Runnable work) {
        fx(() -> {
            work.run();
            return null;
        });
        WaitForAsyncUtils.waitForFxEvents();
    }
}
