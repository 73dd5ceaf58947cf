package nightreed.desktop;

import static org.assertj.core.api.Assertions.assertThat;

import java.lang.ref.WeakReference;
import java.nio.file.Path;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import javafx.scene.Scene;
import javafx.scene.layout.Pane;
import javafx.stage.Stage;
import nightreed.desktop.stage.WorkStage;
import nightreed.device.NoDevices;
import nightreed.project.ProjectFile;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.testfx.api.FxToolkit;
import org.testfx.util.WaitForAsyncUtils;

/** What a window kept is given back once it is closed. */
class ClosedWindowTest {
    @TempDir
    Path folder;

    @BeforeEach
    void start() throws Exception {
        FxToolkit.registerPrimaryStage();
    }

    @AfterEach
    void leave() throws Exception {
        FxToolkit.cleanupStages();
    }

    private WeakReference<Workbench> openedAndClosed() throws Exception {
        ProjectFile project = ProjectFile.create(folder.resolve("closed.nightreed"), "Closed");
        Workbench[] w = new Workbench[1];
        FxToolkit.setupFixture(() -> {
            w[0] = new Workbench(new NoDevices(), folder.resolve("preferences.json"));
            w[0].show(new Stage());
            w[0].bench().open(project);
        });
        for (WorkStage s : WorkStage.values()) {
            WaitForAsyncUtils.waitForAsyncFx(20_000, () -> w[0].shell().go(s));
            WaitForAsyncUtils.waitForFxEvents();
        }
        WaitForAsyncUtils.waitForAsyncFx(20_000, () -> w[0].close());
        FxToolkit.cleanupStages();
        return new WeakReference<>(w[0]);
    }

    @Test
    void nothingKeepsAClosedWindow() throws Exception {
        WeakReference<Workbench> closed = openedAndClosed();
        FxToolkit.setupStage(
                stage -> { // the last that had the focus is remembered
                    stage.setScene(new Scene(new Pane(), 100, 100));
                    stage.show();
                });
        try {
            WaitForAsyncUtils.waitFor(20, TimeUnit.SECONDS, () -> {
                System.gc();
                return closed.get() == null;
            });
        } catch (TimeoutException kept) {
            assertThat(closed.get()).isNull();
        }
    }
}
