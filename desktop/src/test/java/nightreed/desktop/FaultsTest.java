package nightreed.desktop;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.zip.ZipFile;
import javafx.application.Platform;
import javafx.scene.control.Button;
import org.junit.jupiter.api.Test;
import org.testfx.util.WaitForAsyncUtils;

class FaultsTest extends WindowTest {
    @Test
    void aFaultNobodyForesawIsToldOnceAndTheWindowGoesOn() throws Exception {
        WaitForAsyncUtils.autoCheckException = false; // the fault is the point
        try {
            for (int i = 0; i < 3; i++) {
                Platform.runLater(() -> {
                    throw new IllegalStateException("a fault for the test");
                });
            }
            WaitForAsyncUtils.waitForFxEvents();
            assertThat(robot.lookup("#fault-go-on").queryAll()).hasSize(1);
            fx(() -> {
                find("fault-go-on", Button.class).fire();
                return null;
            });
            WaitForAsyncUtils.waitForFxEvents();
            assertThat(robot.lookup("#fault-go-on").queryAll()).isEmpty();
            fx(() -> {
                workbench.bench().shaping().note("goes on");
                return null;
            });
            await("the window goes on", s -> s.snapshot().note().equals("goes on"));
        } finally {
            WaitForAsyncUtils.clearExceptions();
            WaitForAsyncUtils.autoCheckException = true;
        }
    }

    @Test
    void theReportHoldsWhatHelpsAndNoSound() throws Exception {
        Path zip = folder.resolve("report.zip");
        fx(() -> {
            workbench.faults().save(zip, new IllegalStateException("a fault for the test"), false);
            return null;
        });
        try (ZipFile z = new ZipFile(zip.toFile())) {
            String text = new String(
                    z.getInputStream(z.getEntry("report.txt")).readAllBytes(), java.nio.charset.StandardCharsets.UTF_8);
            assertThat(text).contains("Night Reed").contains("java.version").contains("a fault for the test");
            assertThat(z.getEntry("recording.wav")).isNull();
        }
    }
}
